import { firstOf } from '#core/lists/there.ts';
import { DRAWING_FORMATS, drawingFormatIds, type DrawingFormatId } from '#core/format/drawingFormats.ts';
import { PAPERS, type Paper } from '#core/format/drawingPaper.ts';
import { writeGcode } from '#core/format/gcode.ts';
import { jobsOf } from '#core/machining/job.ts';
import { makePlan } from '#core/plan/plan.ts';
import { templatesOf } from '#core/templates/templates.ts';
import { DEFAULT_DISPLAY } from '#core/units/formatLength.ts';
import { readBoard, readWords, Refusal, refusing } from './boardArguments.ts';

const USAGE =
  'Usage: npm run -s export -- FILE --as svg|dxf|pdf|gcode [--template NAME] [--job NAME] [--paper a4|letter] [--unit mm|inch] > OUT';

/** `npm run -s export -- FILE --as …`: a board, one of its templates or a machine's job, on standard output. */
async function main(args: readonly string[]): Promise<void> {
  const { paths, words } = readWords(
    args,
    { as: [...drawingFormatIds, 'gcode'], template: null, job: null, paper: Object.keys(PAPERS), unit: ['mm', 'inch'] },
    USAGE,
  );
  if (paths.length > 1) throw new Refusal(`One file at a time. ${USAGE}`);
  if (words.as === undefined) throw new Refusal(`--as is missing. ${USAGE}`);
  const file = readBoard(firstOf(paths));
  const plan = makePlan(file);
  if (words.as === 'gcode') {
    const jobs = jobsOf(plan.worked);
    const job = words.job === undefined ? jobs[0] : jobs.find((j) => j.id === words.job);
    if (!job)
      throw new Refusal(
        jobs.length === 0
          ? `${paths[0]}: board: has nothing that a machine could cut: a groove, a hand hole or a mark with a drawing.`
          : `${paths[0]}: there is no job "${words.job}"; this board has ${jobs.map((j) => j.id).join(', ')}.`,
      );
    process.stdout.write(writeGcode(job));
    return;
  }
  const display = { ...DEFAULT_DISPLAY, system: words.unit === 'inch' ? ('inch' as const) : ('metric' as const) };
  const templates = templatesOf(file.board, plan.worked, plan.shop, display);
  const template = templates.find((t) => t.id === (words.template ?? 'board'));
  if (!template)
    throw new Refusal(
      `${paths[0]}: there is no template "${words.template}"; this board has ${templates.map((t) => t.id).join(', ')}.`,
    );
  if (plan.worked.size.width <= 0 || plan.worked.size.thickness <= 0)
    throw new Refusal(`${paths[0]}: board: has no strips or no thickness yet; there is nothing to draw.`);
  try {
    const { write } = DRAWING_FORMATS[words.as as DrawingFormatId];
    process.stdout.write(await write(template.drawing, (words.paper ?? 'a4') as Paper));
  } catch (error) {
    if (error instanceof RangeError) throw new Refusal(`${paths[0]}: ${error.message}`);
    throw error;
  }
}

await refusing(() => main(process.argv.slice(2)));
