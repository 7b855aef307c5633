import { firstOf } from '#core/lists/there.ts';
import { writeBoardFile } from '#core/format/boardFile.ts';
import { propose } from '#core/propose/propose.ts';
import { OPEN_WISHES } from '#core/propose/wishes.ts';
import { DEFAULT_DISPLAY } from '#core/units/formatLength.ts';
import { phraseText } from '#core/units/phrase.ts';
import { MOST_SECONDS, readArguments, readBoard, Refusal, refusing } from './boardArguments.ts';

const USAGE = 'Usage: npm run -s propose -- FILE [--seed S] [--seconds N]';
/** A board this much longer, wider or thicker than the file's still counts as wanted. */
const ROOM = 0.1;

/**
 * `npm run -s propose -- FILE --seed S --seconds N`: boards about the size of the file's that can be cut from its rack, as a JSON array of board files on standard
 * output, best first; a sentence about each on standard error.
 */
function main(args: readonly string[]): Promise<void> {
  const {
    paths,
    numbers: { seed, seconds },
  } = readArguments(
    args,
    {
      seed: { usual: 1, least: 0, greatest: 2 ** 31 - 1, whole: true },
      seconds: { usual: 20, least: 0, greatest: MOST_SECONDS },
    },
    USAGE,
  );
  if (paths.length > 1) throw new Refusal(USAGE);
  const { board, rack, shop, species } = readBoard(firstOf(paths));
  const range = (mm: number, least: number, greatest: number) => ({
    least: Math.max(least, Math.round(mm * (1 - ROOM))),
    greatest: Math.min(greatest, Math.round(mm * (1 + ROOM))),
  });
  const wishes = {
    ...OPEN_WISHES,
    length: range(board.length, 50, 3000),
    width: range(board.width, 30, 1500),
    thickness: range(board.thickness, 5, 150),
  };
  const proposed = propose(
    { wishes, rack, shop, species, promised: [], system: 'metric' },
    { seed, seconds, now: () => performance.now() / 1000 },
  );
  if (!proposed.ok)
    throw new Refusal(`${paths[0]}: ${proposed.why.map((p) => phraseText(p, DEFAULT_DISPLAY)).join(' ')}`);
  const files = proposed.proposals.map(
    (p) => JSON.parse(writeBoardFile({ board: p.board, facts: [], rack, shop, species })) as unknown,
  );
  process.stdout.write(`${JSON.stringify(files, null, 2)}\n`);
  proposed.proposals.forEach((p, i) =>
    process.stderr.write(`${i + 1}. ${p.board.name}. ${phraseText(p.says, DEFAULT_DISPLAY)}\n`),
  );
  return Promise.resolve();
}

await refusing(() => main(process.argv.slice(2)));
