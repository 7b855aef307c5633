import { readFileSync, statSync } from 'node:fs';
import { isDeepStrictEqual } from 'node:util';
import { checkPlan } from '#core/checks/checkPlan.ts';
import type { CutPlan } from '#core/cutting/cutPlan.ts';
import { cutSheets } from '#core/cutting/cutSheet.ts';
import { improveCut } from '#core/cutting/improveCut.ts';
import { GREATEST_FILE_BYTES, readBoardFile, type BoardFile } from '#core/format/boardFile.ts';
import { cutProblemFor } from '#core/plan/cutForBoard.ts';
import { makePlan } from '#core/plan/plan.ts';
import type { Piece } from '#core/stock/piece.ts';
import { highsInNode } from './highsInNode.ts';

/** Exit code for a file that cannot be read or is not valid. */
const BAD_FILE = 2;
/** Time to improve the cut plan when nothing is said; it stops sooner when the plan is proven. */
const USUAL_SECONDS = 5;
const MOST_SECONDS = 3600;
const USAGE = 'Usage: npm run -s plan -- FILE [FILE ...] [--seconds N]';

/** A refusal in one line. */
class Refusal extends Error {}

function readFile(path: string): BoardFile {
  let text: string;
  try {
    if (statSync(path).size > GREATEST_FILE_BYTES) throw new Refusal(`${path}: file is larger than ${GREATEST_FILE_BYTES / 1e6} MB; that is not a board file.`);
    text = readFileSync(path, 'utf8');
  } catch (error) {
    if (error instanceof Refusal) throw error;
    throw new Refusal(`${path}: file cannot be read (${(error as NodeJS.ErrnoException).code}).`);
  }
  const read = readBoardFile(text);
  if (read.ok) return read.file;
  const { path: field, message } = read.problems[0]!;
  throw new Refusal(`${path}: ${field === '' ? '' : `${field}: `}${message}`);
}

function readArguments(args: readonly string[]): { paths: string[]; seconds: number } {
  const paths: string[] = [];
  let seconds = USUAL_SECONDS;
  for (let i = 0; i < args.length; i += 1) {
    if (args[i] === '--seconds') {
      seconds = Number(args[i + 1]);
      if (args[i + 1] === undefined || !Number.isFinite(seconds) || seconds < 0 || seconds > MOST_SECONDS) throw new Refusal(`--seconds must be a number from 0 to ${MOST_SECONDS}.`);
      i += 1;
    } else if (args[i]!.startsWith('--')) throw new Refusal(`${args[i]} is not known. ${USAGE}`);
    else paths.push(args[i]!);
  }
  if (paths.length === 0) throw new Refusal(USAGE);
  return { paths, seconds };
}

/** One rack out of several files: a piece that two files know must be the same piece. */
function oneRack(files: readonly BoardFile[], paths: readonly string[]): Piece[] {
  const rack = new Map<string, Piece>();
  files.forEach((file, i) => file.rack.forEach((piece) => {
    const known = rack.get(piece.id);
    if (known && !isDeepStrictEqual(known, piece)) throw new Refusal(`${paths[i]}: rack: piece ${piece.mark} differs from the one in ${paths[0]}; boards that are cut together need one rack.`);
    rack.set(piece.id, piece);
  }));
  return [...rack.values()];
}

/** Each piece with its crosscuts and rips in cutting order; places in mm from its marked end and near edge. */
function piecesOf(cutting: CutPlan, rack: readonly Piece[], files: readonly BoardFile[]) {
  const { shop } = files[0]!;
  return cutSheets(cutting, new Map(rack.map((p) => [p.id, p])), shop).map(({ piece, unit, crosscuts, blanks, leftovers }) => ({
    piece: piece.mark, id: piece.id, unit, crosscuts,
    blanks: blanks.map(({ blank, rips }) => ({
      number: blank.number, from: blank.from, to: blank.from + blank.length,
      rips: rips.map(({ from, to, strips }) => ({
        from, to,
        strips: strips.map((s) => ({
          board: files[Number(s.demand.board)]!.board.name, strip: s.demand.strip, copy: s.demand.copy, spare: s.demand.spare, shows: s.way.shows,
          planed: s.planed, thickness: s.way.thickness, layer: s.layer, layers: s.layers, order: s.order,
        })),
      })),
    })),
    leftovers: leftovers.map(({ from, length, across, width, side, kept }) => ({ from, length, across, width, side, kept })),
  }));
}

/** `npm run -s plan -- FILE ...`: the plan of each board, and the cut plan of all of them, as JSON on standard output. */
async function main(args: readonly string[]): Promise<void> {
  const { paths, seconds } = readArguments(args);
  const files = paths.map(readFile);
  const rack = oneRack(files, paths);
  const { shop } = files[0]!;
  files.forEach((file, i) => {
    if (!isDeepStrictEqual(file.shop, shop)) throw new Refusal(`${paths[i]}: shop: differs from the one in ${paths[0]}; boards that are cut together need one shop.`);
  });
  const species = [...new Map(files.flatMap((f) => f.species).map((s) => [s.code, s])).values()];
  const problem = cutProblemFor(files.map((file, i) => ({ key: String(i), board: file.board, done: [] })), { rack, shop, species, promised: [] });
  const cutting = improveCut(problem, await highsInNode(), { seconds, now: () => performance.now() / 1000 });
  const boards = files.map((file, i) => {
    const input = { board: file.board, rack, shop, species, saw: { key: String(i), promised: [], chosen: cutting, done: [] } };
    const plan = makePlan(input);
    return { board: file.board, plan, findings: checkPlan(plan, input) };
  });
  const { score, bound, gap, proofs, shortages } = cutting;
  const cuts = { value: score, bound, gap, proofs, currency: shop.currency, pieces: piecesOf(cutting, rack, files), shortages };
  process.stdout.write(`${JSON.stringify(boards.length === 1 ? { ...boards[0], cuts } : { boards, cuts }, null, 2)}\n`);
}

try {
  await main(process.argv.slice(2));
} catch (error) {
  if (!(error instanceof Refusal)) throw error;
  process.stderr.write(`${error.message}\n`);
  process.exitCode = BAD_FILE;
}
