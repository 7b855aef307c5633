import { SegmentedControl } from '@mantine/core';
import { useMemo } from 'react';
import { Link } from 'react-router';
import { asLook, isFlatLook, LOOK_WORDS, lookOf, LOOKS } from '#core/board/looks.ts';
import { boardSchema } from '#core/board/board.ts';
import { stripsOf } from '#core/board/recipe.ts';
import { asLargeAs, fieldOf } from '#core/board/again.ts';
import { certain } from '#core/lists/there.ts';
import { lengthBetween } from '#core/units/lengthSchema.ts';
import { LengthInput } from '../../quantities/LengthInput.tsx';
import { showProblem } from '../../shell/notices.tsx';
import { makePlan } from '#core/plan/plan.ts';
import { fromPanelsThatFit } from '#core/plan/panelsThatFit.ts';
import { glueUpsOf } from '#core/plan/trimAgain.ts';
import { useOpenBoard, useSettledBoard } from '../../data/openBoard.tsx';
import { useDisplay } from '../../quantities/display.tsx';
import { durationWords } from '../../quantities/duration.ts';
import { Length } from '../../quantities/Length.tsx';
import classes from './BriefPlace.module.css';

const PANEL_LENGTH = lengthBetween(50, 8000);

/** What the size asks of rows, slices and panels of a board that is cut again. */
export function RecutFigures() {
  const { plan, board, input } = useSettledBoard();
  const { session } = useOpenBoard();
  const { recut } = plan;
  if (!recut) return null;
  const inside = fieldOf(board, input.shop);
  const across = recut.last.runs === 'across';
  const side = across ? 'length' : 'width';
  const fit = (long: number) => {
    const large = asLargeAs(board, input.shop, long);
    const sized = large && boardSchema.shape[side].safeParse(large[side]);
    if (!large || !sized?.success)
      showProblem(
        new Error(
          `A panel of that length gives no board: ${large ? `its ${side} ${certain(sized?.error?.issues[0]).message}` : 'not one slice comes out of it'}. Nothing was changed.`,
        ),
      );
    else session.edit((b) => asLargeAs(b, input.shop, long) ?? b);
  };
  return (
    <section className={classes.recut} aria-label="What the size asks">
      <p>
        <b>{recut.rows} rows</b> of <Length mm={recut.row} /> make {across ? 'the length' : 'the width'} of{' '}
        <Length mm={across ? inside.length : inside.width} />. Slices are sawn <Length mm={recut.pitch} />
        {recut.angle === 0 ? '' : ` wide at ${recut.angle}°`}, {recut.all.length} in all
        {recut.slices.length > 1 ? `, from ${recut.slices.length} panels` : ''}. The panel:{' '}
        <Length mm={recut.panelLength} bare /> × <Length mm={recut.wantedPanelWidth} bare /> ×{' '}
        <Length mm={recut.thickness} />, its strips {board.construction === 'edge' ? 'on edge' : 'lying flat'}.{' '}
        <Link to="../layout" relative="path">
          Change it stage by stage
        </Link>
      </p>
      <LengthInput
        size="xs"
        w={220}
        field="Panel length"
        label={`As ${across ? 'long' : 'wide'} as panels of this length make it`}
        mm={recut.panelLength}
        schema={PANEL_LENGTH}
        onCommit={fit}
      />
      <SegmentedControl
        size="xs"
        aria-label="How strips lie in the panel"
        value={board.construction}
        onChange={(construction) => session.edit((b) => ({ ...b, construction }))}
        data={[
          { value: 'edge', label: 'Strips on edge' },
          { value: 'face', label: 'Strips lying flat' },
        ]}
      />
    </section>
  );
}

/** What the size asks of the panel of a board that strips are put into. */
export function InsetFigures() {
  const { again } = useSettledBoard().plan;
  if (again?.how !== 'parts') return null;
  const { inserts } = again;
  return (
    <section className={classes.recut} aria-label="What the size asks">
      <p>
        The panel: <Length mm={again.panelLength} bare /> × <Length mm={again.wantedPanelWidth} bare /> ×{' '}
        <Length mm={again.thickness} />, sawn into <b>{inserts.length + 1} parts</b>.{' '}
        {inserts.map((i) => (
          <span key={i.operation.id}>
            Strip {i.number}: <Length mm={i.width} bare /> wide, <Length mm={i.length} /> long as crosscut.{' '}
          </span>
        ))}
        <Link to="../layout" relative="path">
          Move, turn and add them on the drawing
        </Link>
      </p>
    </section>
  );
}

/** What the size asks of the board inside a frame. */
export function FrameFigures() {
  const { frame } = useSettledBoard().plan;
  if (!frame) return null;
  return (
    <section className={classes.recut} aria-label="What the frame leaves">
      <p>
        Inside the frame the board is <Length mm={frame.field.length} bare /> × <Length mm={frame.field.width} />,
        trimmed square before {frame.rings.length === 1 ? '4 strips' : `${4 * frame.rings.length} strips`} go round it.
        Between the dry and the damp month it moves <Length mm={Math.abs(frame.movement.across)} /> across and{' '}
        <Length mm={Math.abs(frame.movement.along)} /> along; the frame does not.{' '}
        <Link to="../layout" relative="path">
          Widen, narrow and add rings on the drawing
        </Link>
      </p>
    </section>
  );
}

/** What the same strips cost in wood, glue-ups and hours, each way. */
export function LookCosts() {
  const { board, input } = useSettledBoard();
  const { display } = useDisplay();
  const now = lookOf(board);
  const rows = useMemo(() => {
    if (stripsOf(board).length === 0) return [];
    const flat = asLook(board, 'edge');
    return LOOKS.filter((look) => !isFlatLook(look) || look === board.construction).map((look) => {
      const made = look === now ? board : fromPanelsThatFit(input, asLook(flat, look, display.system));
      const plan = makePlan({ ...input, board: made });
      return {
        look,
        litres: plan.materials.taken.cubicMetres * 1000,
        short: plan.cutting.shortages.length > 0,
        glueUps: glueUpsOf(plan).length,
        hands: plan.handsMinutes,
      };
    });
  }, [board, input, now, display.system]);
  if (rows.length === 0) return null;
  return (
    <table className={classes.costs}>
      <caption>These strips each way</caption>
      <thead>
        <tr>
          <th scope="col">Look</th>
          <th scope="col">Wood from the rack</th>
          <th scope="col">Glue-ups</th>
          <th scope="col">Hands-on</th>
        </tr>
      </thead>
      <tbody>
        {rows.map((row) => (
          <tr key={row.look} aria-current={row.look === now || undefined}>
            <th scope="row">{LOOK_WORDS[row.look]}</th>
            <td>
              {row.litres.toFixed(1)} l{row.short && ', and the rack lacks some'}
            </td>
            <td>{row.glueUps}</td>
            <td>{durationWords(row.hands)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
