import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import { length, say } from '../units/phrase.ts';
import type { RecutPlan } from '../plan/plan.ts';
import type { Found, Rule } from './finding.ts';

/** More than this beyond the trims is wood thrown away on purpose (common practice: a saw kerf or two a side, of the panel and of the block). */
const GENEROUS_TRIM = 20;

/** What rows and slices leave, against the board that is wanted: as long, as wide, as thick. */
export const recutSize: Rule = (plan, { board, shop }) => {
  const { recut } = plan;
  if (!recut) return [];
  const across = recut.last.runs === 'across';
  const [rowSide, stackSide] = across ? (['width', 'length'] as const) : (['length', 'width'] as const);
  const words = { width: 'wide', length: 'long' } as const;
  const found: Found[] = [];
  const wider = plan.panelWidth - recut.wantedPanelWidth;
  if (wider < -LENGTH_TOLERANCE_MM)
    found.push({
      rule: 'panel-width',
      severity: 'stop',
      strips: [],
      what: say`The strips add up to ${length(plan.panelWidth)}; ${length(recut.wantedPanelWidth)} is needed, ${length(-wider)} more.`,
      why: say`Trimmed as a panel and again as a block, rows of it leave a board ${length(plan.ladders[rowSide].reached)} ${words[rowSide]}, not ${length(board[rowSide])}.`,
      waysOut: [
        say`Add or widen strips by ${length(-wider)}.`,
        say`Make the board ${length(plan.ladders[rowSide].reached)} ${words[rowSide]}.`,
      ],
    });
  if (wider > GENEROUS_TRIM)
    found.push({
      rule: 'panel-width',
      severity: 'note',
      strips: [],
      what: say`The panel is ${length(wider)} wider than it needs to be.`,
      why: say`It is trimmed away from the ends of every row.`,
      waysOut: [say`Narrow or remove a strip.`, say`Make the board longer or wider.`],
    });
  const stack = recut.rows * recut.row;
  const short = board[stackSide] - stack;
  if (short > LENGTH_TOLERANCE_MM)
    found.push({
      rule: 'rows-short',
      severity: 'stop',
      strips: [],
      at: 'layRows',
      what: say`${recut.rows} rows of ${length(recut.row)} are ${length(stack)}; the board shall be ${length(board[stackSide])} ${words[stackSide]}.`,
      why: say`The board ends ${length(short)} short.`,
      waysOut: [
        say`Saw ${Math.ceil(short / recut.row)} more slices.`,
        say`Make the board ${length(stack)} ${words[stackSide]}.`,
      ],
    });
  return [...found, ...thickness(recut, plan.ladders.thickness.reached, board.thickness, shop.habits.sanding)];
};

function thickness(recut: RecutPlan, reached: number, wanted: number, sanding: number): Found[] {
  const short = wanted - reached;
  if (short <= LENGTH_TOLERANCE_MM) return [];
  const needed = wanted + recut.flatten + sanding;
  return [
    {
      rule: 'board-thickness',
      severity: 'stop',
      strips: [],
      what: say`The board comes out ${length(reached)} thick, ${length(short)} short of ${length(wanted)}.`,
      why: recut.up
        ? say`Of slices of ${length(recut.pitch)} flattening takes ${length(recut.flatten)} and sanding ${length(sanding)}.`
        : say`Of a panel of ${length(recut.thickness)} flattening takes ${length(recut.flatten)} and sanding ${length(sanding)}.`,
      waysOut: [
        recut.up ? say`Saw the slices ${length(needed)} thick.` : say`Make the panel ${length(needed)} thick.`,
        say`Make the board ${length(Math.max(0, reached))} thick.`,
      ],
    },
  ];
}
