import { TextField } from '../../quantities/plainFields.tsx';
import { Button, NumberInput, TextInput } from '@mantine/core';
import { useElementSize } from '@mantine/hooks';
import { useId, useState } from 'react';
import { Link } from 'react-router';
import { countSchemaOf } from '#core/board/writtenBoard.ts';
import { boardSchema, panelWidth, stripTops, type Board, type Construction } from '#core/board/board.ts';
import { useOpenBoard, useSettledBoard } from '../../data/openBoard.tsx';
import { bestPerPanel } from '#core/plan/batchOptions.ts';
import { FaceCells } from '../../drawing/FaceWood.tsx';
import { fitScale, scaleWords } from '../../drawing/scale.ts';
import { useStripSpecies } from '../../drawing/useStripSpecies.ts';
import { CommitField } from '../../quantities/CommitField.tsx';
import { LengthInput } from '../../quantities/LengthInput.tsx';
import { SwitchDialog } from '../layout/SwitchDialog.tsx';
import classes from './BriefPlace.module.css';
import { LookChoice } from './LookChoice.tsx';
import { FrameFigures, InsetFigures, LookCosts, RecutFigures } from './RecutFigures.tsx';
import { asLook, isFlatLook, lookOf, type Look } from '#core/board/looks.ts';
import { isCutAgain, stripsOf } from '#core/board/recipe.ts';
import { fromPanelsThatFit } from '#core/plan/panelsThatFit.ts';
import { DueFields } from '../../planning/DueFields.tsx';
import { useDisplay } from '../../quantities/display.tsx';

const USES = ['Bread', 'Carving', 'Dough', 'Cheese', 'Everyday'];

/** Room around the outlines for the fields that stand on the dimension lines, pixels. */
const ROOM = { left: 128, top: 64, gap: 26, bottom: 74 };

/** What the board is for and how large: the sizes are typed on the dimension lines of the drawing itself. */
export function BriefPlace() {
  const { board, session, input } = useOpenBoard();
  const { display } = useDisplay();
  const { ref, width } = useElementSize();
  const [switching, setSwitching] = useState<Construction | null>(null);
  const set = (change: Partial<Board>) => session.edit((b) => ({ ...b, ...change }));
  /** A look begins a recipe; between the two flat ones the strips change too, which is shown first. */
  const begin = (look: Look) => {
    if (!isFlatLook(look)) {
      session.edit((b) => fromPanelsThatFit(input, asLook(b, look, display.system)));
      return;
    }
    if (isCutAgain(board)) session.edit((b) => asLook(b, look));
    if (look === board.construction) return;
    if (stripsOf(board).length === 0) set({ construction: look });
    else setSwitching(look);
  };
  const scale = fitScale([board.length, board.width + board.thickness], [width - ROOM.left - 20, 330], 1.2);
  const [w, h, t] = [board.length * scale, board.width * scale, Math.max(3, board.thickness * scale)];
  const offset = Math.max(0, (panelWidth(board) - board.width) / 2);
  const joints = (isCutAgain(board) ? [] : stripTops(stripsOf(board)))
    .map((top) => top - offset)
    .filter((mm) => mm > 0 && mm < board.width);
  const sideY = ROOM.top + h + ROOM.gap;

  return (
    <div className={classes.page}>
      <div className={classes.words}>
        <TextField
          size="md"
          field="Name"
          value={board.name}
          schema={boardSchema.shape.name}
          onCommit={(name) => set({ name })}
        />
        <CommitField field="Use" value={board.use} schema={boardSchema.shape.use} onCommit={(use) => set({ use })}>
          {(typed, change, problem, leave) => (
            <div>
              <TextInput
                label="What it is for"
                value={typed}
                error={problem}
                placeholder="Bread, carving, a gift …"
                onChange={(e) => change(e.currentTarget.value)}
                onBlur={leave}
                onKeyDown={(e) => e.key === 'Enter' && leave()}
              />
              <div className={classes.uses}>
                {USES.map((use) => (
                  <Button
                    key={use}
                    size="compact-xs"
                    variant={board.use === use ? 'filled' : 'default'}
                    aria-pressed={board.use === use}
                    onClick={() => {
                      change(use);
                      set({ use });
                    }}
                  >
                    {use}
                  </Button>
                ))}
              </div>
            </div>
          )}
        </CommitField>
        <LookChoice value={lookOf(board)} empty={stripsOf(board).length === 0} onChange={begin} />
        {switching && <SwitchDialog to={switching} onClose={() => setSwitching(null)} />}
        <CommitField
          field="Number of boards"
          value={board.count}
          schema={countSchemaOf(board)}
          onCommit={(count) => set({ count, perPanel: bestPerPanel({ ...input, board: { ...board, count } }) })}
        >
          {(typed, change, problem, leave) => (
            <NumberInput
              label="How many"
              w={120}
              value={typed}
              error={problem}
              allowNegative={false}
              onChange={(n) => change(typeof n === 'number' ? n : Number.NaN)}
              onBlur={leave}
              onKeyDown={(e) => e.key === 'Enter' && leave()}
            />
          )}
        </CommitField>
        {board.count > 1 && !isCutAgain(board) && (
          <p className={classes.batch}>
            {board.perPanel > 1 ? (
              <>
                Up to {Math.min(board.count, board.perPanel)} from each panel, by what the rack, one pair of hands and
                the glue-ups allow
              </>
            ) : (
              <>A panel for each</>
            )}
            :{' '}
            <Link to="../mill" relative="path">
              figures and other ways
            </Link>
          </p>
        )}
        <DueFields />
        <Button component={Link} to="../layout" relative="path" className={classes.next}>
          Lay out strips
        </Button>
      </div>

      <div ref={ref} className={classes.sheet}>
        {width > 0 && (
          <>
            <svg
              width={width}
              height={sideY + t + ROOM.bottom}
              role="img"
              aria-label="Outline of the finished board from above and from the side, to scale"
            >
              <g transform={`translate(${ROOM.left} ${ROOM.top})`}>
                <Face scale={scale} width={w} height={h} />
              </g>
              <g className={classes.outline}>
                <rect x={ROOM.left} y={ROOM.top} width={w} height={h} data-seen={isCutAgain(board) || undefined} />
                <rect x={ROOM.left} y={sideY} width={w} height={t} />
                {joints.map((mm) => (
                  <path key={mm} d={`M${ROOM.left} ${ROOM.top + mm * scale}h${w}`} className={classes.hint} />
                ))}
              </g>
              <g className={classes.lines}>
                <path
                  d={`M${ROOM.left} ${ROOM.top - 8}v-26M${ROOM.left + w} ${ROOM.top - 8}v-26M${ROOM.left} ${ROOM.top - 22}h${w}`}
                />
                <path
                  d={`M${ROOM.left - 8} ${ROOM.top}h-26M${ROOM.left - 8} ${ROOM.top + h}h-26M${ROOM.left - 22} ${ROOM.top}v${h}`}
                />
                <path
                  d={`M${ROOM.left - 8} ${sideY}h-26M${ROOM.left - 8} ${sideY + t}h-26M${ROOM.left - 22} ${sideY - 12}v${t + 24}`}
                />
              </g>
              <text className={classes.caption} x={ROOM.left} y={sideY + t + 24}>
                Finished board from above and from the side, {scaleWords(scale)}
              </text>
            </svg>
            <div className={classes.dimension} style={{ left: ROOM.left + w / 2 - 58, top: ROOM.top - 52 }}>
              <LengthInput
                field="Length"
                label={null}
                size="sm"
                w={116}
                mm={board.length}
                schema={boardSchema.shape.length}
                onCommit={(length) => set({ length })}
              />
            </div>
            <div className={classes.dimension} style={{ left: 2, top: ROOM.top + h / 2 - 18 }}>
              <LengthInput
                field="Width"
                label={null}
                size="sm"
                w={108}
                mm={board.width}
                schema={boardSchema.shape.width}
                onCommit={(wide) => set({ width: wide })}
              />
            </div>
            <div className={classes.dimension} style={{ left: 2, top: sideY + t / 2 - 18 }}>
              <LengthInput
                field="Thickness"
                label={null}
                size="sm"
                w={108}
                mm={board.thickness}
                schema={boardSchema.shape.thickness}
                onCommit={(thickness) => set({ thickness })}
              />
            </div>
          </>
        )}
        <div className={classes.asks}>
          <RecutFigures />
          <InsetFigures />
          <FrameFigures />
          <LookCosts />
        </div>
      </div>
    </div>
  );
}

/** What is seen of a board that is cut again, in its outline. */
function Face({ scale, width, height }: { scale: number; width: number; height: number }) {
  const { board, plan, input } = useSettledBoard();
  const species = useStripSpecies(board, input.species);
  const clip = useId();
  const thing = plan.lastly && plan.wood?.board;
  return (
    thing && (
      <>
        <clipPath id={clip}>
          <rect width={width} height={height} />
        </clipPath>
        <g clipPath={`url(#${clip})`}>
          <FaceCells thing={thing} scale={scale} species={species} />
        </g>
      </>
    )
  );
}
