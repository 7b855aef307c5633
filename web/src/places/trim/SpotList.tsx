import { certain } from '#core/lists/there.ts';
import { Button } from '@mantine/core';
import { IconPlus } from '@tabler/icons-react';
import { MOST_SPOTS } from '#core/facts/factsThatHold.ts';
import { spotSchema, type Spot } from '#core/facts/fact.ts';
import { allowancesFor } from '#core/board/allowances.ts';
import { trimLayout } from '#core/trim/trimLayout.ts';
import { trimAgain } from '#core/plan/trimAgain.ts';
import { lengthBetween } from '#core/units/lengthSchema.ts';
import { useOpenBoard } from '../../data/openBoard.tsx';
import { TextField } from '../../quantities/plainFields.tsx';
import { Length } from '../../quantities/Length.tsx';
import { LengthInput } from '../../quantities/LengthInput.tsx';
import { LineNote } from '../../shell/LineNote.tsx';
import { PanelOffcuts } from './PanelOffcuts.tsx';
import classes from './SpotList.module.css';
import { useMade } from './useMade.ts';
import { RemoveButton } from '../../quantities/RemoveButton.tsx';

const FIELDS = [
  ['x', 'From the left end'],
  ['y', 'From the far edge'],
  ['length', 'Long'],
  ['width', 'Wide'],
] as const;

interface SpotListProps {
  chosen: string | null;
  onChoose(id: string): void;
  onMark(place: Pick<Spot, 'x' | 'y' | 'length' | 'width'>): void;
}

/** Bad places found on the flat panel: a gap, a knot, a bad end. Boards are placed clear of them, or it is said what size remains. */
export function SpotList({ chosen, onChoose, onMark }: SpotListProps) {
  const { board, plan, input, session } = useOpenBoard();
  const { made, state, elsewhere, noteLength, noteSpot, forgetSpot, forgetPanel, forget } = useMade();
  // What is offered follows what was just noted, not the plan of a moment ago.
  const layout = plan.lastly
    ? trimAgain(plan, board, made)
    : trimLayout(board, allowancesFor(board, input.shop, made), plan.shop, made);
  const add = () =>
    onMark({ x: 0, y: Math.max(0, Math.round(layout.width / 2 - 10)), length: 15, width: Math.min(20, layout.width) });
  return (
    <>
      <p className={classes.head}>
        <b>Bad places</b> found on the flat{' '}
        {plan.back ? 'backed board' : plan.frame ? 'framed board' : plan.again ? 'block' : 'panel'}
        {board.perPanel < board.count ? ', the first one' : ''}: draw them on it, or{' '}
        <Button
          size="compact-xs"
          variant="default"
          leftSection={<IconPlus size={13} />}
          onClick={add}
          disabled={made.spots.length >= MOST_SPOTS}
        >
          Mark one
        </Button>
      </p>
      {plan.lastly ? null : made.panelLength === null ? (
        <p className={classes.head}>
          <Button size="compact-xs" variant="default" onClick={() => noteLength(Math.round(layout.length * 10) / 10)}>
            The panel is glued
          </Button>{' '}
          keeps its real length when the board changes
        </p>
      ) : (
        <div className={classes.glued}>
          <LengthInput
            size="xs"
            w={150}
            field="Panel as glued, length"
            mm={made.panelLength}
            schema={lengthBetween(50, 8000)}
            onCommit={noteLength}
          />
          <Button size="compact-xs" variant="default" onClick={forgetPanel}>
            It is not glued yet
          </Button>
        </div>
      )}
      {layout.missing > 0 && layout.instead && (
        <div className={classes.remedy} role="alert">
          <p>
            {made.spots.length === 0
              ? 'The panel is too small for them.'
              : layout.boards.length === 0
                ? 'No board of this size lies clear of them.'
                : `Only ${layout.boards.length} of ${layout.boards.length + layout.missing} boards lie clear of them.`}{' '}
            What remains:
          </p>
          {layout.instead.length >= 50 && (
            <Button
              size="compact-xs"
              variant="default"
              onClick={() => session.edit((b) => ({ ...b, length: certain(layout.instead).length }))}
            >
              <span>
                Make {board.count > 1 ? 'them' : 'it'} <Length mm={layout.instead.length} /> long
              </span>
            </Button>
          )}{' '}
          {layout.instead.width >= 30 && (
            <Button
              size="compact-xs"
              variant="default"
              onClick={() => session.edit((b) => ({ ...b, width: certain(layout.instead).width }))}
            >
              <span>
                Make {board.count > 1 ? 'them' : 'it'} <Length mm={layout.instead.width} /> wide
              </span>
            </Button>
          )}
        </div>
      )}
      <PanelOffcuts lengths={layout.offcuts} />
      {made.spots.map((spot, i) => (
        <fieldset
          key={spot.id}
          className={classes.spot}
          data-chosen={chosen === spot.id || undefined}
          onFocus={() => onChoose(spot.id)}
        >
          <legend className={classes.legend}>Bad place {i + 1}</legend>
          <TextField
            size="xs"
            field="What it is"
            value={spot.what}
            schema={spotSchema.shape.what}
            onCommit={(what) => noteSpot({ ...spot, what })}
          />
          {FIELDS.map(([key, label]) => (
            <LengthInput
              key={key}
              size="xs"
              field={label}
              mm={spot[key]}
              schema={spotSchema.shape[key]}
              onCommit={(mm) => noteSpot({ ...spot, [key]: mm })}
            />
          ))}
          <RemoveButton label={`Take ${spot.what} off the list`} onClick={() => forgetSpot(spot.id)} />
        </fieldset>
      ))}
      {elsewhere.length > 0 && (
        <p className={classes.head}>
          {elsewhere.length === 1 ? 'One note is' : `${elsewhere.length} notes are`} about a panel that this board no
          longer has, and {elsewhere.length === 1 ? 'decides' : 'decide'} nothing.{' '}
          <Button size="compact-xs" variant="default" onClick={() => forget(elsewhere.map((f) => f.id))}>
            Take {elsewhere.length === 1 ? 'it' : 'them'} back
          </Button>
        </p>
      )}
      <LineNote state={state} className={classes.note} />
    </>
  );
}
