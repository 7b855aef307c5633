import { firstOf, nth } from '#core/lists/there.ts';
import { stripTops } from '#core/board/board.ts';
import { stripsOf } from '#core/board/recipe.ts';
import type { Plan } from '#core/plan/plan.ts';
import { useSettledBoard } from '../../../data/openBoard.tsx';
import { FaceCells } from '../../../drawing/FaceWood.tsx';
import { StackBits } from '../../../drawing/StackBits.tsx';
import { useStripSpecies } from '../../../drawing/useStripSpecies.ts';
import { Length } from '../../../quantities/Length.tsx';
import { cutLines, panelOutline } from './sliceGeometry.ts';
import { stagesIn, type RecutStage } from './stage.ts';
import classes from './recut.module.css';

/** Height of the small drawings, pixels; all stages are drawn to one scale. */
const HEIGHT = 44;
const WIDEST = 150;

const NAMES: Readonly<Record<RecutStage, string>> = {
  bits: 'Accents',
  panel: 'Panel',
  slices: 'Slices',
  rows: 'Rows',
  parts: 'Put in',
  frame: 'Frame',
  back: 'Back',
  board: 'Board',
};

interface StageRowProps {
  stage: RecutStage;
  onStage(stage: RecutStage): void;
}

/** The recipe in small true drawings, in the order of the work; the one that is chosen is worked on below. */
export function StageRow({ stage, onStage }: StageRowProps) {
  const { plan } = useSettledBoard();
  const { again, frame, back, stacks } = plan;
  const outline = outlineOf(plan);
  const whole = frame?.block ?? again?.block ?? outline;
  const longest = Math.max(outline.length, whole.length, 1);
  const highest = Math.max(outline.width, whole.width, 1);
  const scale = Math.min(HEIGHT / highest, WIDEST / longest);
  return (
    <div className={classes.stages} role="tablist" aria-label="The recipe, stage by stage">
      {stagesIn(again?.how ?? 'flat', {
        stacked: stacks.length > 0,
        framed: frame !== null,
        backed: back !== null,
      }).map((s, i) => (
        <span key={s} className={classes.stageItem}>
          {i > 0 && <span aria-hidden="true">→</span>}
          <button type="button" role="tab" aria-selected={s === stage} onClick={() => onStage(s)}>
            <StageDrawing stage={s} scale={scale} />
            <span className={classes.stageWords}>
              <b>{NAMES[s]}</b>
              <StageFigures stage={s} />
            </span>
          </button>
        </span>
      ))}
    </div>
  );
}

/** The first panel, its strips staggered where they are. */
const outlineOf = ({ again, allowances, panelWidth }: Plan): { length: number; width: number } =>
  again?.how === 'rows' ? panelOutline(again) : { length: firstOf(allowances.panels).length, width: panelWidth };

function StageFigures({ stage }: { stage: RecutStage }) {
  const { plan } = useSettledBoard();
  const { again, frame, back, allowances } = plan;
  if (stage === 'panel') {
    const kinds = again?.how === 'rows' ? again.kinds : [];
    const panels = kinds.length > 1 ? kinds.reduce((sum, k) => sum + k.slices.length, 0) : allowances.panels.length;
    return (
      <small>
        {panels > 1 && `${panels} ${kinds.length > 1 ? 'panels, the first' : 'of'} `}
        <Length mm={firstOf(allowances.panels).length} bare /> × <Length mm={plan.panelWidth} bare /> ×{' '}
        <Length mm={again?.thickness ?? frame?.fields.thickness ?? back?.tops.thickness ?? allowances.glueThickness} />
      </small>
    );
  }
  if (stage === 'bits') {
    const accents = plan.stacks.reduce((sum, s) => sum + s.stack.accents.length, 0);
    return (
      <small>
        {accents} of {plan.stacks.reduce((sum, s) => sum + s.stack.bits.length, 0)} bits
      </small>
    );
  }
  if (frame && stage === 'frame')
    return <small>{frame.rings.length === 1 ? '4 strips' : `${frame.rings.length} rings`}</small>;
  if (back && stage === 'back')
    return (
      <small>
        {back.strips.length} of <Length mm={back.thickness} />
      </small>
    );
  if (again?.how === 'parts' && stage === 'parts')
    return <small>{again.inserts.length === 1 ? '1 strip' : `${again.inserts.length} strips`}</small>;
  if (again?.how === 'rows' && stage === 'slices')
    return (
      <small>
        {again.all.length} of <Length mm={again.pitch} />
        {again.angle !== 0 && `, ${Math.abs(again.angle)}°`}
      </small>
    );
  if (again?.how === 'rows' && stage === 'rows')
    return (
      <small>
        {again.rows} of <Length mm={again.row} />
      </small>
    );
  const { length, width, thickness } = plan.ladders;
  return (
    <small>
      <Length mm={length.reached} bare /> × <Length mm={width.reached} bare /> × <Length mm={thickness.reached} />
    </small>
  );
}

function StageDrawing({ stage, scale }: { stage: RecutStage; scale: number }) {
  const { board, plan, input } = useSettledBoard();
  const species = useStripSpecies(board, input.species);
  const { again } = plan;
  const [first] = plan.stacks;
  if (stage === 'bits' && first)
    return (
      <svg width={first.stack.glued * scale + 2} height={first.stack.depth * scale + 2} aria-hidden="true">
        <g transform="translate(1 1)">
          <StackBits stack={first.stack} species={input.species} scale={scale} />
        </g>
      </svg>
    );
  if (stage !== 'panel' && stage !== 'slices') {
    const thing =
      stage === 'board' || stage === 'back' ? plan.wood?.board : stage === 'frame' ? plan.frame?.framed : again?.glued;
    const whole = stage === 'frame' ? plan.frame?.block : again?.block;
    const [length, width] = thing?.size ?? [whole?.length ?? 0, whole?.width ?? 0];
    return (
      <svg width={length * scale + 2} height={width * scale + 2} aria-hidden="true">
        <g transform="translate(1 1)">
          {thing && (
            <FaceCells thing={thing} side={stage === 'back' ? 'under' : 'top'} scale={scale} species={species} />
          )}
          <rect width={length * scale} height={width * scale} className={classes.outline} />
        </g>
      </svg>
    );
  }
  const { length, width } = outlineOf(plan);
  const strips = stripsOf(board);
  const tops = stripTops(strips);
  return (
    <svg width={length * scale + 2} height={width * scale + 2} aria-hidden="true">
      <g transform="translate(1 1)">
        {strips.map((strip, i) => (
          <rect
            key={strip.id}
            x={(again?.how === 'rows' ? (again.offsets[i] ?? 0) : 0) * scale}
            y={nth(tops, i) * scale}
            width={firstOf(plan.allowances.panels).length * scale}
            height={strip.width * scale}
            fill={species.get(strip.id)?.colour ?? 'var(--line)'}
            className={classes.small}
          />
        ))}
        {again?.how === 'rows' && stage === 'slices' && (
          <path
            className={classes.cutSmall}
            d={cutLines(again)
              .map(({ from, to }) => `M${from[0] * scale} ${from[1] * scale}L${to[0] * scale} ${to[1] * scale}`)
              .join('')}
          />
        )}
      </g>
    </svg>
  );
}
