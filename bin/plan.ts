import { firstOf, nth } from '#core/lists/there.ts';
import { checkPlan } from '#core/checks/checkPlan.ts';
import type { CutPlan } from '#core/cutting/cutPlan.ts';
import { cutSheets } from '#core/cutting/cutSheet.ts';
import { improveCut } from '#core/cutting/improveCut.ts';
import type { BoardFile } from '#core/format/boardFile.ts';
import { cutProblemFor } from '#core/saw/cutForBoard.ts';
import { faceOf } from '#core/plan/face.ts';
import { makePlan } from '#core/plan/plan.ts';
import { stagesOf } from '#core/plan/stages.ts';
import type { Piece } from '#core/stock/piece.ts';
import { MOST_SECONDS, readArguments, refusing } from './boardArguments.ts';
import { highsInNode } from './highsInNode.ts';
import { readTogether } from './oneShop.ts';

/** Time to improve the cut plan when nothing is said; it stops sooner when the plan is proven. */
const USUAL_SECONDS = 5;
const USAGE = 'Usage: npm run -s plan -- FILE [FILE ...] [--seconds N]';

/** Each piece with its crosscuts and rips in cutting order; places in mm from its marked end and near edge. */
function piecesOf(cutting: CutPlan, rack: readonly Piece[], files: readonly BoardFile[]) {
  const { shop } = firstOf(files);
  return cutSheets(cutting, new Map(rack.map((p) => [p.id, p])), shop).map(
    ({ piece, unit, crosscuts, blanks, leftovers }) => ({
      piece: piece.mark,
      id: piece.id,
      unit,
      crosscuts,
      blanks: blanks.map(({ blank, rips }) => ({
        number: blank.number,
        from: blank.from,
        to: blank.from + blank.length,
        rips: rips.map(({ from, to, strips }) => ({
          from,
          to,
          strips: strips.map((s) => ({
            board: nth(files, Number(s.demand.board)).board.name,
            strip: s.demand.strip,
            copy: s.demand.copy,
            spare: s.demand.spare,
            shows: s.way.shows,
            planed: s.planed,
            thickness: s.way.thickness,
            layer: s.layer,
            layers: s.layers,
            order: s.order,
          })),
        })),
      })),
      leftovers: leftovers.map(({ from, length, across, width, side, kept }) => ({
        from,
        length,
        across,
        width,
        side,
        kept,
      })),
    }),
  );
}

/** `npm run -s plan -- FILE ...`: the plan of each board, and the cut plan of all of them, as JSON on standard output. */
async function main(args: readonly string[]): Promise<void> {
  const {
    paths,
    numbers: { seconds },
  } = readArguments(args, { seconds: { usual: USUAL_SECONDS, least: 0, greatest: MOST_SECONDS } }, USAGE);
  const { files, rack, shop, species } = readTogether(paths);
  const problem = cutProblemFor(
    files.map((file, i) => ({ key: String(i), board: file.board, done: [], facts: file.facts })),
    { rack, shop, species, promised: [] },
  );
  const cutting = improveCut(problem, await highsInNode(), { seconds, now: () => performance.now() / 1000 });
  const boards = files.map((file, i) => {
    const input = {
      board: file.board,
      facts: file.facts,
      rack,
      shop,
      species,
      saw: { key: String(i), promised: [], chosen: cutting, done: [] },
    };
    const made = makePlan(input);
    // Where strips lie in their pieces is for drawings; the cuts say it in figures.
    const { bodies: _, wood: _w, again, recut: _r, frame, back, lastly: _l, ...plan } = made;
    return {
      board: file.board,
      plan: {
        ...plan,
        ...(again
          ? { [`${again.how === 'rows' ? 'row' : 'part'}Gluing`]: again.gluing, panelLadders: again.ladders }
          : {}),
        ...(back ? { backGluing: [back.panel.gluing, back.gluing], topLadders: back.tops.ladders } : {}),
        ...(frame ? { frameGluing: frame.pairs.map((p) => p.gluing), fieldLadders: frame.fields.ladders } : {}),
      },
      stages: stagesOf(made, file.board),
      face: { cells: faceOf(made, file.board) },
      findings: checkPlan(made, input),
    };
  });
  const { score, bound, gap, proofs, shortages } = cutting;
  const cuts = {
    value: score,
    bound,
    gap,
    proofs,
    currency: shop.currency,
    pieces: piecesOf(cutting, rack, files),
    shortages,
  };
  process.stdout.write(`${JSON.stringify(boards.length === 1 ? { ...boards[0], cuts } : { boards, cuts }, null, 2)}\n`);
}

await refusing(() => main(process.argv.slice(2)));
