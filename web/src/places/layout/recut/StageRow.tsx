import { nth } from '#core/lists/there.ts';
import { stripTops } from '#core/board/board.ts';
import { stripsOf } from '#core/board/recipe.ts';
import type { RecutPlan } from '#core/plan/plan.ts';
import { useSettledBoard } from '../../../data/openBoard.tsx';
import { FaceCells } from '../../../drawing/FaceWood.tsx';
import { useStripSpecies } from '../../../drawing/useStripSpecies.ts';
import { Length } from '../../../quantities/Length.tsx';
import { cutLines, panelOutline } from './sliceGeometry.ts';
import { STAGES, type RecutStage } from './stage.ts';
import classes from './recut.module.css';

/** Height of the small drawings, pixels; all stages are drawn to one scale. */
const HEIGHT = 44;
const WIDEST = 150;

const NAMES: Readonly<Record<RecutStage, string>> = {
  panel: 'Panel',
  slices: 'Slices',
  rows: 'Rows',
  board: 'Board',
};

interface StageRowProps {
  stage: RecutStage;
  onStage(stage: RecutStage): void;
}

/** The recipe in small true drawings, in the order of the work; the one that is chosen is worked on below. */
export function StageRow({ stage, onStage }: StageRowProps) {
  const { plan } = useSettledBoard();
  const { recut } = plan;
  if (!recut) return null;
  const outline = panelOutline(recut);
  const longest = Math.max(outline.length, recut.block.length, 1);
  const highest = Math.max(outline.width, recut.block.width, 1);
  const scale = Math.min(HEIGHT / highest, WIDEST / longest);
  return (
    <div className={classes.stages} role="tablist" aria-label="The recipe, stage by stage">
      {STAGES.map((s, i) => (
        <span key={s} className={classes.stageItem}>
          {i > 0 && <span aria-hidden="true">→</span>}
          <button type="button" role="tab" aria-selected={s === stage} onClick={() => onStage(s)}>
            <StageDrawing stage={s} recut={recut} scale={scale} />
            <span className={classes.stageWords}>
              <b>{NAMES[s]}</b>
              <StageFigures stage={s} recut={recut} />
            </span>
          </button>
        </span>
      ))}
    </div>
  );
}

function StageFigures({ stage, recut }: { stage: RecutStage; recut: RecutPlan }) {
  const { plan } = useSettledBoard();
  if (stage === 'panel')
    return (
      <small>
        {recut.slices.length > 1 && `${recut.slices.length} of `}
        <Length mm={recut.panelLength} bare /> × <Length mm={recut.panelWidth} bare /> × <Length mm={recut.thickness} />
      </small>
    );
  if (stage === 'slices')
    return (
      <small>
        {recut.all.length} of <Length mm={recut.pitch} />
        {recut.angle !== 0 && `, ${Math.abs(recut.angle)}°`}
      </small>
    );
  if (stage === 'rows')
    return (
      <small>
        {recut.rows} of <Length mm={recut.row} />
      </small>
    );
  const { length, width, thickness } = plan.ladders;
  return (
    <small>
      <Length mm={length.reached} bare /> × <Length mm={width.reached} bare /> × <Length mm={thickness.reached} />
    </small>
  );
}

function StageDrawing({ stage, recut, scale }: { stage: RecutStage; recut: RecutPlan; scale: number }) {
  const { board, plan, input } = useSettledBoard();
  const species = useStripSpecies(board, input.species);
  if (stage === 'rows' || stage === 'board') {
    const thing = stage === 'rows' ? plan.wood?.panel : plan.wood?.board;
    const [length, width] = thing?.size ?? [recut.block.length, recut.block.width];
    return (
      <svg width={length * scale + 2} height={width * scale + 2} aria-hidden="true">
        <g transform="translate(1 1)">
          {thing && <FaceCells thing={thing} scale={scale} species={species} />}
          <rect width={length * scale} height={width * scale} className={classes.outline} />
        </g>
      </svg>
    );
  }
  const { length, width } = panelOutline(recut);
  const strips = stripsOf(board);
  const tops = stripTops(strips);
  return (
    <svg width={length * scale + 2} height={width * scale + 2} aria-hidden="true">
      <g transform="translate(1 1)">
        {strips.map((strip, i) => (
          <rect
            key={strip.id}
            x={(recut.offsets[i] ?? 0) * scale}
            y={nth(tops, i) * scale}
            width={recut.panelLength * scale}
            height={strip.width * scale}
            fill={species.get(strip.id)?.colour ?? 'var(--line)'}
            className={classes.small}
          />
        ))}
        {stage === 'slices' && (
          <path
            className={classes.cutSmall}
            d={cutLines(recut)
              .map(({ from, to }) => `M${from[0] * scale} ${from[1] * scale}L${to[0] * scale} ${to[1] * scale}`)
              .join('')}
          />
        )}
      </g>
    </svg>
  );
}
