import { readFileSync, statSync } from 'node:fs';
import { checkPlan } from '#core/checks/checkPlan.ts';
import { GREATEST_FILE_BYTES, readBoardFile } from '#core/format/boardFile.ts';
import { makePlan } from '#core/plan/plan.ts';

/** Exit code for a file that cannot be read or is not valid. */
const BAD_FILE = 2;

/** `npm run -s plan -- FILE`: the plan of a board file as JSON on standard output. */
function main(path: string | undefined): number {
  if (path === undefined) return refuse('Usage: npm run -s plan -- FILE');
  let text: string;
  try {
    if (statSync(path).size > GREATEST_FILE_BYTES) return refuse(`${path}: file is larger than ${GREATEST_FILE_BYTES / 1e6} MB; that is not a board file.`);
    text = readFileSync(path, 'utf8');
  } catch (error) {
    return refuse(`${path}: file cannot be read (${(error as NodeJS.ErrnoException).code}).`);
  }
  const read = readBoardFile(text);
  if (!read.ok) {
    const { path: field, message } = read.problems[0]!;
    return refuse(`${path}: ${field === '' ? '' : `${field}: `}${message}`);
  }
  const input = read.file;
  const plan = makePlan(input);
  process.stdout.write(`${JSON.stringify({ board: input.board, plan, findings: checkPlan(plan, input) }, null, 2)}\n`);
  return 0;
}

function refuse(line: string): number {
  process.stderr.write(`${line}\n`);
  return BAD_FILE;
}

process.exitCode = main(process.argv[2]);
