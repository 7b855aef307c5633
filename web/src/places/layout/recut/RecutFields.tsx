import { Button, Switch } from '@mantine/core';
import { glueSchema, GREATEST_PANEL_COUNT, sliceSchema } from '#core/board/recipe.ts';
import { rowsOf } from '#core/board/again.ts';
import { useOpenBoard } from '../../../data/openBoard.tsx';
import { LengthInput } from '../../../quantities/LengthInput.tsx';
import { NumberField } from '../../../quantities/plainFields.tsx';
import { USUAL_ANGLES } from './sliceGeometry.ts';
import type { useRecut } from './useRecut.ts';
import classes from './recut.module.css';

const thicknessSchema = glueSchema.shape.thickness.unwrap();
const pitchSchema = sliceSchema.shape.pitch.unwrap();
const countSchema = sliceSchema.shape.count.unwrap();

/** The figures of the slices, typed; those that follow from the size of the board say so. */
export function RecutFields({ work }: { work: ReturnType<typeof useRecut> }) {
  const { board, input } = useOpenBoard();
  const recut = rowsOf(board, input.shop);
  if (!recut) return null;
  const { slice, panel, up } = recut;
  const asked = (fixed: boolean, free: () => void) =>
    fixed ? (
      <Button size="compact-xs" variant="subtle" onClick={free}>
        as the board asks
      </Button>
    ) : (
      <small>as the board asks</small>
    );
  return (
    <div className={classes.fields}>
      {up && (
        <LengthInput
          size="xs"
          w={104}
          field="Row"
          label="A row, panel thick"
          mm={recut.thickness}
          schema={thicknessSchema}
          onCommit={work.setThickness}
        />
      )}
      <div>
        <LengthInput
          size="xs"
          w={104}
          field="Slice"
          label="A slice as sawn"
          mm={recut.pitch}
          schema={pitchSchema}
          onCommit={(pitch) => work.setPitch(pitch)}
        />
        {up && asked(slice.pitch !== null, () => work.setPitch(null))}
      </div>
      <div>
        <NumberField
          size="xs"
          field="Slices"
          label="Slices for a board"
          value={recut.rows}
          schema={countSchema}
          onCommit={work.setCount}
        />
        {asked(slice.count !== null, () => work.setCount(null))}
      </div>
      <LengthInput
        size="xs"
        w={104}
        field="First cut"
        label="First cut, further in"
        mm={slice.first}
        schema={sliceSchema.shape.first}
        onCommit={(first) => work.setFirst(first)}
      />
      <NumberField
        size="xs"
        field="Panels"
        label={recut.kinds.length > 1 ? 'Panels of each' : 'From panels'}
        value={slice.panels}
        schema={sliceSchema.shape.panels}
        onCommit={work.setPanels}
      />
      <div>
        <NumberField
          size="xs"
          field="Angle"
          suffix="°"
          value={slice.angle}
          schema={sliceSchema.shape.angle}
          onCommit={(angle) => work.setAngle(angle)}
        />
        <span className={classes.angles}>
          {USUAL_ANGLES.map((a) => (
            <button key={a} type="button" aria-pressed={slice.angle === a} onClick={() => work.setAngle(a)}>
              {a}°
            </button>
          ))}
        </span>
      </div>
      {slice.angle !== 0 && (
        <Switch
          size="xs"
          label="Strips staggered by the angle"
          checked={panel.stagger !== 0}
          onChange={(event) => work.setStagger(event.currentTarget.checked ? slice.angle : 0)}
        />
      )}
      <div className={classes.operations}>
        {recut.kinds.length < GREATEST_PANEL_COUNT && (
          <Button size="compact-xs" variant="default" onClick={work.panelInTurn}>
            {recut.kinds.length === 1 ? 'Rows from a second panel in turn' : 'From a third panel'}
          </Button>
        )}
        <Button size="compact-xs" variant="subtle" color="red" onClick={work.takeOut}>
          Take the slices out
        </Button>
      </div>
    </div>
  );
}
