import { Button, Popover, Select, TextInput } from '@mantine/core';
import { IconSearch } from '@tabler/icons-react';
import { pieceShape } from '#core/stock/piece.ts';
import type { Species } from '#core/wood/species.ts';
import { LengthInput } from '../../quantities/LengthInput.tsx';
import type { Search, SortKey } from '#core/cutting/findPieces.ts';
import classes from './RackPlace.module.css';

const SORTS: Record<SortKey, string> = {
  mark: 'by mark',
  length: 'longest first',
  width: 'widest first',
  thickness: 'thickest first',
  volume: 'most wood first',
};
const COMMON_STRIP = { length: 430, width: 32, thickness: 20 };

/** What is looked for: words, a species, a strip the piece could give; and the order. */
export function RackSearch({
  search,
  species,
  onChange,
}: {
  search: Search;
  species: readonly Species[];
  onChange(search: Search): void;
}) {
  const set = (change: Partial<Search>) => onChange({ ...search, ...change });
  const strip = search.strip ?? COMMON_STRIP;
  return (
    <div className={classes.search} role="search">
      <TextInput
        aria-label="Find in the rack"
        placeholder="Find: mark, note, shelf, knot …"
        leftSection={<IconSearch size={16} />}
        value={search.text}
        onChange={(e) => set({ text: e.currentTarget.value })}
      />
      <Select
        aria-label="Species shown"
        clearable
        searchable
        placeholder="all species"
        w={190}
        value={search.species}
        onChange={(v) => set({ species: v })}
        data={species.map((s) => ({ value: s.code, label: s.name }))}
      />
      <Popover withArrow position="bottom-start">
        <Popover.Target>
          <Button variant={search.strip ? 'light' : 'default'}>
            {search.strip ? 'Gives a strip: on' : 'Could give a strip of …'}
          </Button>
        </Popover.Target>
        <Popover.Dropdown>
          <div className={classes.stripSearch}>
            {(['length', 'width', 'thickness'] as const).map((key) => (
              <LengthInput
                key={key}
                field={{ length: 'Strip length', width: 'Strip width', thickness: 'Strip thickness' }[key]}
                mm={strip[key]}
                schema={pieceShape.shape.ends.shape.mark.shape.checked}
                onCommit={(mm) => set({ strip: { ...strip, [key]: mm } })}
              />
            ))}
            <Button onClick={() => set({ strip })}>Show pieces that give it</Button>
            <Button variant="default" disabled={!search.strip} onClick={() => set({ strip: null })}>
              Show all
            </Button>
            <p>After end trims, defects and flattening; either way round; not what is promised.</p>
          </div>
        </Popover.Dropdown>
      </Popover>
      <Select
        aria-label="Order"
        w={170}
        allowDeselect={false}
        value={search.sort}
        onChange={(v) => set({ sort: v as SortKey })}
        data={Object.entries(SORTS).map(([value, label]) => ({ value, label }))}
      />
    </div>
  );
}
