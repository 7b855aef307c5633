import { firstOf } from '#core/lists/there.ts';
import { ActionIcon, Button, Checkbox, MultiSelect, NumberInput, SegmentedControl, Select } from '@mantine/core';
import { IconX } from '@tabler/icons-react';
import { wishesSchema, type Wishes } from '#core/propose/wishes.ts';
import type { Piece } from '#core/stock/piece.ts';
import type { Species } from '#core/wood/species.ts';
import { LengthInput } from '../../quantities/LengthInput.tsx';
import classes from './ProposePlace.module.css';

interface WishesLineProps {
  wishes: Wishes;
  onChange(wishes: Wishes): void;
  species: readonly Species[];
  rack: readonly Piece[];
}

const EITHER = [
  { value: 'either', label: 'as it comes' },
  { value: 'yes', label: 'yes' },
  { value: 'no', label: 'no' },
];

/** What proposals should be like, to be read as a sentence. */
export function WishesLine({ wishes, onChange, species, rack }: WishesLineProps) {
  const inRack = new Set(rack.map((p) => p.species));
  const choices = species.filter((s) => inRack.has(s.code)).map((s) => ({ value: s.code, label: s.name }));
  const set = (change: Partial<Wishes>) => onChange({ ...wishes, ...change });
  const range = (side: 'length' | 'width' | 'thickness', words: string) => (
    <span className={classes.range}>
      <LengthInput
        field={`Least ${side}`}
        label={null}
        size="xs"
        w={78}
        mm={wishes[side].least}
        schema={wishesSchema.shape[side].shape.least}
        onCommit={(least) => set({ [side]: { ...wishes[side], least } })}
      />
      to
      <LengthInput
        field={`Greatest ${side}`}
        label={null}
        size="xs"
        w={78}
        mm={wishes[side].greatest}
        schema={wishesSchema.shape[side].shape.greatest}
        onCommit={(greatest) => set({ [side]: { ...wishes[side], greatest } })}
      />
      {words}
    </span>
  );
  return (
    <section className={classes.wishes} aria-label="Wishes">
      <p>
        A board {range('length', 'long,')} {range('width', 'wide,')} {range('thickness', 'thick,')}
      </p>
      <p>
        <SegmentedControl
          size="xs"
          aria-label="Construction"
          value={wishes.construction}
          onChange={(v) => set({ construction: v })}
          data={[
            { value: 'either', label: 'either way' },
            { value: 'edge', label: 'edge grain' },
            { value: 'face', label: 'face grain' },
          ]}
        />
        <span>
          only of{' '}
          <MultiSelect
            size="xs"
            aria-label="Only these species"
            w={230}
            placeholder={wishes.only.length > 0 ? undefined : 'any species'}
            data={choices}
            value={wishes.only}
            onChange={(only) => set({ only })}
          />
        </span>
        <span>
          without{' '}
          <MultiSelect
            size="xs"
            aria-label="Without these species"
            w={200}
            placeholder={wishes.never.length > 0 ? undefined : 'none'}
            data={choices}
            value={wishes.never}
            onChange={(never) => set({ never })}
          />
        </span>
      </p>
      <p>
        <span>
          mirrored{' '}
          <SegmentedControl
            size="xs"
            aria-label="Mirrored"
            value={wishes.symmetry}
            onChange={(v) => set({ symmetry: v as Wishes['symmetry'] })}
            data={EITHER}
          />
        </span>
        <span>
          fine lines{' '}
          <SegmentedControl
            size="xs"
            aria-label="Fine lines"
            value={wishes.accents}
            onChange={(v) => set({ accents: v as Wishes['accents'] })}
            data={EITHER}
          />
        </span>
        <span>
          using up{' '}
          <Select
            size="xs"
            aria-label="Piece to use up"
            w={130}
            clearable
            searchable
            placeholder="no piece"
            data={rack.map((p) => ({ value: p.id, label: p.mark }))}
            value={wishes.useUp}
            onChange={(useUp) => set({ useUp })}
          />
        </span>
        <span>
          from{' '}
          <MultiSelect
            size="xs"
            aria-label="Only from these pieces"
            w={210}
            searchable
            placeholder={wishes.pieces ? undefined : 'the whole rack'}
            data={rack.map((p) => ({ value: p.id, label: p.mark }))}
            value={wishes.pieces ?? []}
            onChange={(pieces) => set({ pieces: pieces.length > 0 ? pieces : null })}
          />
        </span>
        <Checkbox
          size="xs"
          label="few cuts"
          checked={wishes.fewestCuts}
          onChange={(e) => set({ fewestCuts: e.currentTarget.checked })}
        />
      </p>
      {wishes.shares.map((share, i) => {
        const change = (next: Partial<typeof share>) =>
          set({ shares: wishes.shares.map((s, k) => (k === i ? { ...s, ...next } : s)) });
        return (
          <p key={i}>
            <NumberInput
              size="xs"
              aria-label={`Least share ${i + 1}`}
              w={74}
              min={0}
              max={100}
              suffix=" %"
              value={share.least}
              onChange={(v) => typeof v === 'number' && change({ least: v })}
            />
            to
            <NumberInput
              size="xs"
              aria-label={`Greatest share ${i + 1}`}
              w={74}
              min={0}
              max={100}
              suffix=" %"
              value={share.most}
              onChange={(v) => typeof v === 'number' && change({ most: v })}
            />
            <Select
              size="xs"
              aria-label={`Species of share ${i + 1}`}
              w={170}
              allowDeselect={false}
              data={choices}
              value={share.species}
              onChange={(v) => v && change({ species: v })}
            />
            <ActionIcon
              size="sm"
              variant="subtle"
              color="gray"
              c="var(--ink-soft)"
              aria-label={`Let share ${i + 1} go`}
              onClick={() => set({ shares: wishes.shares.filter((_, k) => k !== i) })}
            >
              <IconX size={15} />
            </ActionIcon>
          </p>
        );
      })}
      {choices[0] && (
        <Button
          size="compact-xs"
          variant="subtle"
          onClick={() => set({ shares: [...wishes.shares, { species: firstOf(choices).value, least: 20, most: 60 }] })}
        >
          A share of one species
        </Button>
      )}
    </section>
  );
}
