import { useElementSize } from '@mantine/hooks';
import { nanoid } from 'nanoid';
import { lazy, Suspense, useMemo, useState } from 'react';
import { cutSheets } from '#core/cutting/cutSheet.ts';
import type { Operation, OperationKind } from '#core/steps/operation.ts';
import { ShownAs, useSettledBoard } from '../../data/openBoard.tsx';
import { BoardMiniature } from '../../drawing/BoardMiniature.tsx';
import { fitScale } from '../../drawing/scale.ts';
import { Scrolled } from '../../shell/Scrolled.tsx';
import { gluedPartsOf } from '../glue/gluedParts.ts';
import { GluedStageContext } from '../glue/gluedWords.ts';
import { useMade } from '../trim/useMade.ts';

const CutPieceDrawing = lazy(async () => ({ default: (await import('../cuts/CutPieceDrawing.tsx')).CutPieceDrawing }));
const ClampDrawing = lazy(async () => ({ default: (await import('../glue/ClampDrawing.tsx')).ClampDrawing }));
const SheetDrawing = lazy(async () => ({ default: (await import('../sheet/SheetDrawing.tsx')).SheetDrawing }));
const RowMap = lazy(async () => ({ default: (await import('../sheet/RowMap.tsx')).RowMap }));
const PartMap = lazy(async () => ({ default: (await import('../sheet/PartMap.tsx')).PartMap }));
const FrameMap = lazy(async () => ({ default: (await import('../sheet/FrameMap.tsx')).FrameMap }));
const BackMap = lazy(async () => ({ default: (await import('../sheet/BackMap.tsx')).BackMap }));
const StackMap = lazy(async () => ({ default: (await import('../sheet/StackMap.tsx')).StackMap }));
const TrimDrawing = lazy(async () => ({ default: (await import('../trim/TrimDrawing.tsx')).TrimDrawing }));

/** What is drawn of a kind of step: a new kind is one more line. */
const DRAWN: Readonly<
  Record<OperationKind, 'pieces' | 'panel' | 'clamps' | 'rows' | 'parts' | 'frame' | 'back' | 'bits' | 'trim' | 'board'>
> = {
  crosscut: 'pieces',
  split: 'pieces',
  flatten: 'pieces',
  jointEdge: 'pieces',
  rip: 'pieces',
  resaw: 'pieces',
  remill: 'panel',
  planeStrips: 'panel',
  jointStrips: 'panel',
  slice: 'rows',
  layRows: 'rows',
  sawApart: 'parts',
  layParts: 'parts',
  layFrame: 'frame',
  flushEnds: 'frame',
  flushFrame: 'frame',
  layBack: 'back',
  cutBits: 'bits',
  layBits: 'bits',
  flattenStack: 'bits',
  cutStack: 'bits',
  layOut: 'panel',
  keys: 'panel',
  dryRun: 'clamps',
  glue: 'clamps',
  flattenSections: 'panel',
  join: 'clamps',
  scrape: 'panel',
  flattenPanel: 'trim',
  cutApart: 'trim',
  trimEdges: 'trim',
  trimEnds: 'trim',
  inlay: 'board',
  corners: 'board',
  groove: 'board',
  edges: 'board',
  holds: 'board',
  handles: 'board',
  bores: 'board',
  sand: 'board',
  engrave: 'board',
  raiseGrain: 'board',
  oil: 'board',
  topCoat: 'board',
  feet: 'board',
  fit: 'board',
};

/** The drawing of just this step: the pieces with their cuts, the clamps, the map of rows, the board. */
export function StepDrawing({ step }: { step: Operation }) {
  return (
    <Suspense fallback={null}>
      <Drawn step={step} />
    </Suspense>
  );
}

function Drawn({ step }: { step: Operation }) {
  const { plan } = useSettledBoard();
  switch (DRAWN[step.kind]) {
    case 'pieces':
      return <Pieces />;
    case 'panel':
      return <SheetDrawing marks />;
    case 'clamps':
      return <Clamps step={step} />;
    case 'rows':
      return plan.recut && <RowMap recut={plan.recut} />;
    case 'parts':
      return plan.again?.how === 'parts' && <PartMap inset={plan.again} />;
    case 'frame':
      return plan.frame && <FrameMap frame={plan.frame} />;
    case 'back':
      return plan.back && <BackMap back={plan.back} />;
    case 'bits':
      return plan.stacks.map(({ stack }, k) => (
        <StackMap key={stack.operation.id} stack={stack} number={plan.stacks.length > 1 ? k + 1 : null} />
      ));
    case 'trim':
      return <Trimming />;
    case 'board':
      return <Finished />;
  }
}

/** The board as it will be, as large as the page lets it be. */
function Finished() {
  const { board, input } = useSettledBoard();
  const { ref, width } = useElementSize();
  const scale = fitScale([board.length, board.width], [Math.max(240, width), 320], 2);
  return <div ref={ref}>{width > 0 && <BoardMiniature board={board} input={input} scale={scale} />}</div>;
}

/** The pieces that are cut, one under another. */
function Pieces() {
  const { plan, input, board } = useSettledBoard();
  const { shop, rack, species } = input;
  const sheets = useMemo(
    () =>
      cutSheets(plan.cutting, plan.cutting.blanks.length > 0 ? new Map(rack.map((p) => [p.id, p])) : new Map(), shop),
    [plan, rack, shop],
  );
  const { ref, width } = useElementSize();
  const longest = Math.max(600, ...sheets.map((s) => s.piece.length));
  const scale = Math.max(0.16, fitScale([longest + 4, 1], [Math.max(300, width), 1e6], 0.7));
  return (
    <div ref={ref}>
      {sheets.map((sheet) => (
        <Scrolled
          key={`${sheet.piece.id}/${sheet.unit}`}
          name={`Piece ${sheet.piece.mark}${sheet.piece.count > 1 ? ` no. ${sheet.unit + 1}` : ''}`}
        >
          <CutPieceDrawing
            sheet={sheet}
            species={species.find((s) => s.code === sheet.piece.species)}
            scale={scale}
            ripKerf={shop.saw.kerf}
            boardNumber={() => null}
            lettered={board.count > 1}
            lit={null}
          />
        </Scrolled>
      ))}
    </div>
  );
}

/** The clamps of a glue-up; a rehearsal is one of what is glued next. */
function Clamps({ step }: { step: Operation }) {
  const open = useSettledBoard();
  const found = useMemo(() => {
    const { plan } = open;
    const next = step.glueUp === null ? plan.operations.find((o) => o.number > step.number && o.glueUp !== null) : step;
    for (const part of gluedPartsOf(plan)) {
      const glueUp = part.glued.gluing(plan).glueUps.find((g) => g.id === next?.glueUp);
      if (glueUp) return { part, glueUp, view: part.view(open) };
    }
    return null;
  }, [open, step]);
  if (!found) return <SheetDrawing />;
  return (
    <ShownAs open={found.view}>
      <GluedStageContext value={found.part.glued}>
        <ClampDrawing glueUp={found.view.plan.gluing.glueUps.find((g) => g.id === found.glueUp.id) ?? found.glueUp} />
      </GluedStageContext>
    </ShownAs>
  );
}

/** The panel as it is trimmed; a bad place is marked on it by drawing round it. */
function Trimming() {
  const { noteSpot } = useMade();
  const [chosen, setChosen] = useState<string | null>(null);
  return (
    <TrimDrawing
      chosen={chosen}
      onChoose={setChosen}
      onMark={(place) => {
        const id = nanoid(8);
        noteSpot({ id, ...place, what: 'Bad place' });
        setChosen(id);
      }}
    />
  );
}
