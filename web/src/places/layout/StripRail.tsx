import { ActionIcon, Select, Tooltip } from '@mantine/core';
import { IconArrowDown, IconArrowUp, IconArrowsExchange, IconArrowsLeftRight, IconCopy, IconFlipHorizontal, IconTrash } from '@tabler/icons-react';
import { memo, type ReactNode } from 'react';
import { stripSchema } from '#core/board/board.ts';
import type { PlanInput } from '#core/plan/context.ts';
import { useOpenBoard } from '../../data/openBoard.tsx';
import { useDisplay } from '../../quantities/display.tsx';
import { LengthInput, readLength } from '../../quantities/LengthInput.tsx';
import { Say } from '../../quantities/Length.tsx';
import { inHandIndex } from './inHand.ts';
import classes from './StripRail.module.css';

/** What can be done with the strip in hand. */
export interface StripActions {
  move(by: 1 | -1): void;
  duplicate(): void;
  mirror(): void;
  reverse(): void;
  turn(): void;
  remove(): void;
  setWidth(mm: number): void;
  setSpecies(code: string): void;
}

interface StripRailProps {
  selectedId: string | null;
  actions: StripActions;
}

/** The strip in hand: what it is, where it comes from, and what hands can do with it. */
export const StripRail = memo(function StripRail({ selectedId, actions }: StripRailProps) {
  const { board, plan, findings, input } = useOpenBoard();
  const { display } = useDisplay();
  const selected = inHandIndex(board.strips, selectedId);
  const strip = board.strips[selected];
  if (!strip) {
    return (
      <div className={classes.rail}>
        <p className={classes.empty}>Nothing laid out yet. Take a section from the shelf below: click it, drag it onto the board, or press <kbd>I</kbd>.</p>
      </div>
    );
  }
  const isLength = (text: string) => typeof readLength(text, 'Strip width', display.system, stripSchema.shape.width) === 'number';
  const marks = [...new Set(plan.strips[selected]?.sources.map((s) => s.mark) ?? [])];
  const concern = findings.find((f) => f.strips.includes(selected + 1));

  return (
    <div className={classes.rail} role="toolbar" aria-label={`Strip ${selected + 1}`}>
      <span className={classes.which}><b>{selected + 1}</b> of {board.strips.length}</span>
      <SpeciesChoice value={strip.species} species={input.species} rack={input.rack} onChange={actions.setSpecies} />
      <LengthInput id="strip-width" key={strip.id} field="Strip width" label={null} size="xs" w={110} mm={strip.width} schema={stripSchema.shape.width}
        onCommit={actions.setWidth} onKeyDown={(event) => event.key === 'Enter' && isLength(event.currentTarget.value) && backToStrip()} />
      <RailButtons actions={actions} />
      <span className={classes.source}>
        {marks.length > 0 ? <>from <b>{marks.join(', ')}</b></> : <span className={classes.stop}>no piece gives it</span>}
        {concern && <span className={classes.concern} data-severity={concern.severity}><Say phrase={concern.what} /></span>}
      </span>
    </div>
  );
});

/** Gives the keys back to the strip in hand once a field has done its work. */
function backToStrip(): void {
  requestAnimationFrame(() => document.querySelector<SVGGElement>('[data-strip][data-selected]')?.focus());
}

interface SpeciesChoiceProps {
  value: string;
  species: PlanInput['species'];
  rack: PlanInput['rack'];
  onChange(code: string): void;
}

/** The species of the strip in hand, those in the rack first. Rendered only when one of its own properties changes: a drag must not touch it. */
const SpeciesChoice = memo(function SpeciesChoice({ value, species, rack, onChange }: SpeciesChoiceProps) {
  const inRack = new Set(rack.map((p) => p.species));
  const items = (here: boolean) => species.filter((s) => inRack.has(s.code) === here).map((s) => ({ value: s.code, label: s.name }));
  return (
    <Select id="strip-species" aria-label="Species" size="xs" w={170} data={[{ group: 'In the rack', items: items(true) }, { group: 'Not in the rack', items: items(false) }]}
      value={value} allowDeselect={false} searchable comboboxProps={{ width: 220, position: 'bottom-start' }} onChange={(code) => {
        if (!code) return;
        onChange(code);
        backToStrip();
      }} />
  );
});

const RailButtons = memo(function RailButtons({ actions }: { actions: StripActions }) {
  return (
    <span className={classes.buttons}>
      <RailButton label="Towards the start" keys="Alt ↑" onClick={() => actions.move(-1)}><IconArrowUp size={17} /></RailButton>
      <RailButton label="Towards the end" keys="Alt ↓" onClick={() => actions.move(1)}><IconArrowDown size={17} /></RailButton>
      <RailButton label="Duplicate" keys="D" onClick={actions.duplicate}><IconCopy size={17} /></RailButton>
      <RailButton label="Mirror the board about this strip" keys="M" onClick={actions.mirror}><IconFlipHorizontal size={17} /></RailButton>
      <RailButton label="Reverse the order of all strips" keys="R" onClick={actions.reverse}><IconArrowsExchange size={17} style={{ rotate: '90deg' }} /></RailButton>
      <RailButton label="Turn end for end" keys="T" onClick={actions.turn}><IconArrowsLeftRight size={17} /></RailButton>
      <RailButton label="Remove" keys="Del" onClick={actions.remove}><IconTrash size={17} /></RailButton>
    </span>
  );
});

function RailButton({ label, keys, onClick, children }: { label: string; keys: string; onClick(): void; children: ReactNode }) {
  return (
    <Tooltip label={`${label} (${keys})`}>
      <ActionIcon variant="subtle" color="gray" c="var(--ink)" aria-label={label} onClick={onClick}>{children}</ActionIcon>
    </Tooltip>
  );
}
