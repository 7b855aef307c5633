import { ActionIcon, Menu, Select, Tooltip } from '@mantine/core';
import {
  IconArrowDown,
  IconArrowUp,
  IconArrowsDoubleNeSw,
  IconArrowsLeftRight,
  IconCopy,
  IconDots,
  IconFlipHorizontal,
  IconLock,
  IconRotate,
  IconRotateClockwise2,
  IconSwitchVertical,
  IconTrash,
} from '@tabler/icons-react';
import { memo, type ReactNode } from 'react';
import type { PlanInput } from '#core/saw/planInput.ts';
import { useOpenBoard, useSettledBoard } from '../../data/openBoard.tsx';
import { useDisplay } from '../../quantities/display.tsx';
import { LengthInput, readLength } from '../../quantities/LengthInput.tsx';
import { Say } from '../../quantities/Length.tsx';
import { heldIndices, inHandIndex, type Hand } from './hand.ts';
import classes from './StripRail.module.css';
import type { StripActions } from './useStripActions.ts';
import { stripSchema, stripsOf } from '#core/board/recipe.ts';
import { woodsOf } from '#core/board/accents.ts';

interface StripRailProps {
  hand: Hand;
  actions: StripActions;
  onShuffle(): void;
}

/** The strips in hand: what they are, where they come from, and what hands can do with them. */
export const StripRail = memo(function StripRail({ hand, actions, onShuffle }: StripRailProps) {
  const { board, numbersFrom = 0 } = useOpenBoard();
  const { plan, findings, input } = useSettledBoard();
  const { display } = useDisplay();
  const selected = inHandIndex(stripsOf(board), hand.strip);
  const strip = stripsOf(board)[selected];
  const number = numbersFrom + selected + 1;
  const held = heldIndices(stripsOf(board), hand);
  if (!strip) {
    return (
      <div className={classes.rail}>
        <p className={classes.empty}>
          Nothing laid out yet. Take a section from the shelf below: click it, drag it onto the board, or press{' '}
          <kbd>I</kbd>.
        </p>
      </div>
    );
  }
  const isLength = (text: string) =>
    typeof readLength(text, 'Strip width', display.system, stripSchema.shape.width) === 'number';
  // What bits are cut from stands for their accents.
  const cutFrom = (i: number) => {
    const of = plan.stacks.find(({ stack }) => stack.operation.id === plan.strips[i]?.stack)?.stack;
    return of ? of.sticks.map((s) => s.number - 1) : [i];
  };
  const marks = [...new Set(held.flatMap(cutFrom).flatMap((i) => plan.strips[i]?.sources.map((s) => s.mark) ?? []))];
  const concern = findings.find((f) => f.strips.includes(number));

  return (
    <div
      className={classes.rail}
      role="toolbar"
      aria-label={held.length > 1 ? `${held.length} strips` : `Strip ${number}`}
    >
      <span className={classes.which}>
        {held.length > 1 ? (
          <>
            <b>{held.length}</b> held
          </>
        ) : (
          <>
            <b>{number}</b> of {numbersFrom + stripsOf(board).length}
          </>
        )}
      </span>
      {strip.stack === null ? (
        <SpeciesChoice value={strip.species} species={input.species} rack={input.rack} onChange={actions.setSpecies} />
      ) : (
        <span className={classes.bits}>
          Bits of{' '}
          {woodsOf(board, strip)
            .map((code) => input.species.find((s) => s.code === code)?.name ?? code)
            .join(', ')}
        </span>
      )}
      <LengthInput
        id="strip-width"
        key={strip.id}
        field="Strip width"
        label={null}
        size="xs"
        w={100}
        mm={strip.width}
        schema={stripSchema.shape.width}
        onCommit={actions.setWidth}
        onKeyDown={(event) => event.key === 'Enter' && isLength(event.currentTarget.value) && backToStrip()}
      />
      <RailButtons actions={actions} locked={strip.locked} onShuffle={onShuffle} />
      <span className={classes.source}>
        {marks.length > 0 ? (
          <>
            from <b>{marks.join(', ')}</b>
          </>
        ) : (
          <span className={classes.stop}>no piece gives it</span>
        )}
        {concern && (
          <span className={classes.concern} data-severity={concern.severity}>
            <Say phrase={concern.what} />
          </span>
        )}
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
export const SpeciesChoice = memo(function SpeciesChoice({ value, species, rack, onChange }: SpeciesChoiceProps) {
  const inRack = new Set(rack.map((p) => p.species));
  const items = (here: boolean) =>
    species.filter((s) => inRack.has(s.code) === here).map((s) => ({ value: s.code, label: s.name }));
  return (
    <Select
      id="strip-species"
      aria-label="Species"
      size="xs"
      w={150}
      data={[
        { group: 'In the rack', items: items(true) },
        { group: 'Not in the rack', items: items(false) },
      ]}
      value={value}
      allowDeselect={false}
      searchable
      comboboxProps={{ width: 220, position: 'bottom-start' }}
      onChange={(code) => {
        if (!code) return;
        onChange(code);
        backToStrip();
      }}
    />
  );
});

const RailButtons = memo(function RailButtons({
  actions,
  locked,
  onShuffle,
}: {
  actions: StripActions;
  locked: boolean;
  onShuffle(): void;
}) {
  return (
    <span className={classes.buttons}>
      <RailButton label="Towards the start" keys="Alt ↑" onClick={() => actions.move(-1)}>
        <IconArrowUp size={17} />
      </RailButton>
      <RailButton label="Towards the end" keys="Alt ↓" onClick={() => actions.move(1)}>
        <IconArrowDown size={17} />
      </RailButton>
      <RailButton label="Swap two strips" keys="X" onClick={actions.swap}>
        <IconSwitchVertical size={17} />
      </RailButton>
      <RailButton label="Duplicate, or repeat what is held" keys="D" onClick={actions.repeat}>
        <IconCopy size={17} />
      </RailButton>
      <RailButton label="Mirror the board about this strip" keys="M" onClick={actions.mirror}>
        <IconFlipHorizontal size={17} />
      </RailButton>
      <RailButton label="Turn end for end" keys="T" onClick={actions.turn}>
        <IconArrowsLeftRight size={17} />
      </RailButton>
      <RailButton label="Turn over: the other face shows" keys="O" onClick={actions.turnOver}>
        <IconRotate size={17} />
      </RailButton>
      <RailButton label="Roll a quarter turn: edge or face up" keys="Q" onClick={actions.roll}>
        <IconRotateClockwise2 size={17} />
      </RailButton>
      <RailButton label={locked ? 'Unlock' : 'Lock place and width'} keys="L" pressed={locked} onClick={actions.lock}>
        <IconLock size={17} />
      </RailButton>
      <RailButton label="Even out widths to fill the board" keys="E" onClick={actions.evenOut}>
        <IconArrowsDoubleNeSw size={17} style={{ rotate: '45deg' }} />
      </RailButton>
      <RailButton label="Remove" keys="Del" onClick={actions.remove}>
        <IconTrash size={17} />
      </RailButton>
      <Menu position="bottom-start" width={300}>
        <Menu.Target>
          <ActionIcon variant="subtle" color="gray" c="var(--ink)" aria-label="More to do with strips">
            <IconDots size={17} />
          </ActionIcon>
        </Menu.Target>
        <Menu.Dropdown>
          <Menu.Item onClick={onShuffle} rightSection={<kbd>F</kbd>}>
            Shuffle this board …
          </Menu.Item>
          <Menu.Item onClick={actions.reverse} rightSection={<kbd>R</kbd>}>
            Reverse the order
          </Menu.Item>
          <Menu.Item onClick={actions.mirrorHalf}>Mirror the first half onto the second</Menu.Item>
          <Menu.Item onClick={actions.mirrorWhole}>Mirror the whole board behind itself</Menu.Item>
          <Menu.Item onClick={actions.repeatFull}>Repeat what is held until the board is full</Menu.Item>
          <Menu.Divider />
          <Menu.Item onClick={actions.split}>Split the strip in two</Menu.Item>
          <Menu.Item onClick={actions.join}>Join the strips held</Menu.Item>
          <Menu.Divider />
          <Menu.Item onClick={actions.holdSpecies}>Pick up all of this species</Menu.Item>
          <Menu.Item onClick={actions.holdAll} rightSection={<kbd>A</kbd>}>
            Pick up all strips
          </Menu.Item>
          <Menu.Item onClick={actions.lockSpecies}>Lock or unlock all of this species</Menu.Item>
        </Menu.Dropdown>
      </Menu>
    </span>
  );
});

function RailButton({
  label,
  keys,
  pressed,
  onClick,
  children,
}: {
  label: string;
  keys: string;
  pressed?: boolean;
  onClick(): void;
  children: ReactNode;
}) {
  return (
    <Tooltip label={`${label} (${keys})`}>
      <ActionIcon
        variant={pressed ? 'light' : 'subtle'}
        color={pressed ? 'blue' : 'gray'}
        c={pressed ? 'var(--blue)' : 'var(--ink)'}
        aria-label={label}
        aria-pressed={pressed}
        onClick={onClick}
      >
        {children}
      </ActionIcon>
    </Tooltip>
  );
}
