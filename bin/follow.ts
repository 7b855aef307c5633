import { followPlan } from '#core/follow/followPlan.ts';
import { failureText } from '#core/follow/failureText.ts';
import { makePlan } from '#core/plan/plan.ts';
import { DEFAULT_DISPLAY } from '#core/units/formatLength.ts';
import { capitalised, phraseText } from '#core/units/phrase.ts';
import { readArguments, readBoard, refusing } from './boardArguments.ts';

const USAGE = 'Usage: npm run -s follow -- FILE [FILE ...]';
/** Exit code when the blind maker failed. */
const FAILED = 1;

/** One line a step, then what went wrong, or that nothing did. @returns how many failures */
function followFile(path: string): number {
  const file = readBoard(path);
  const input = { board: file.board, facts: file.facts, rack: file.rack, shop: file.shop, species: file.species };
  const plan = makePlan(input);
  const { steps, failures } = followPlan(plan, input);
  const lines = plan.operations.map((o) => {
    const mine = failures.filter((f) => f.step === o.number && f.instruction !== 'done');
    return `${o.number}. ${phraseText(o.title, DEFAULT_DISPLAY)}: ${o.instructions.length} ${o.instructions.length === 1 ? 'instruction' : 'instructions'}, ${mine.length === 0 ? 'done' : `${mine.length} ${mine.length === 1 ? 'failure' : 'failures'}`}`;
  });
  for (const f of failures) {
    const where = f.instruction === 'done' ? 'in the end' : `step ${f.step}, ${f.instruction}`;
    lines.push(`${where}: ${phraseText(capitalised(failureText(f)), DEFAULT_DISPLAY)}`);
  }
  lines.push(`followed: ${steps} steps, ${failures.length} ${failures.length === 1 ? 'failure' : 'failures'}`);
  process.stdout.write(`${lines.join('\n')}\n`);
  return failures.length;
}

/** `npm run -s follow -- FILE`: the blind maker carries out the plan of a board file. */
function main(args: readonly string[]): void {
  const { paths } = readArguments(args, {}, USAGE);
  const failures = paths.reduce((sum, path) => sum + followFile(path), 0);
  if (failures > 0) process.exitCode = FAILED;
}

await refusing(() => Promise.resolve().then(() => main(process.argv.slice(2))));
