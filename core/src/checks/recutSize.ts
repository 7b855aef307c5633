import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import { length, say } from '../units/phrase.ts';
import type { Again } from '../board/again.ts';
import type { Board } from '../board/board.ts';
import type { Plan } from '../plan/plan.ts';
import type { Found, Rule } from './finding.ts';

/** More than this beyond the trims is wood thrown away on purpose (common practice: a saw kerf or two a side, of the panel and of the block). */
const GENEROUS_TRIM = 20;

/** What rows and slices leave, against the board that is wanted: as long, as wide, as thick. */
export const recutSize: Rule = (plan, { board, shop }) => {
  const { recut } = plan;
  if (!recut) return [];
  const across = recut.last.runs === 'across';
  const [rowSide, stackSide] = across ? (['width', 'length'] as const) : (['length', 'width'] as const);
  const found = recut.kinds.flatMap((kind, k) =>
    panelOf(k === 0 ? plan : { ...plan, panelWidth: kind.panelWidth }, recut, board, rowSide),
  );
  const idle = recut.kinds.findIndex((k) => k.slices.every((n) => n === 0));
  if (idle >= 0)
    found.push({
      rule: 'panel-idle',
      severity: 'stop',
      strips: [],
      at: 'slice',
      what: say`Rows come from ${recut.kinds.length} panels in turn, and there ${recut.rows === 1 ? say`is 1 row` : say`are ${recut.rows} rows`}: none comes from the ${idle === 1 ? 'second' : 'third'}.`,
      why: say`A panel would be glued for nothing.`,
      waysOut: [say`Make rows thinner, so that there are more.`, say`Take the panel out.`],
    });
  const stack = recut.rows * recut.row;
  const short = board[stackSide] - stack;
  if (short > LENGTH_TOLERANCE_MM)
    found.push({
      rule: 'rows-short',
      severity: 'stop',
      strips: [],
      at: 'layRows',
      what: say`${recut.rows} rows of ${length(recut.row)} are ${length(stack)}; the board shall be ${length(board[stackSide])} ${WORDS[stackSide]}.`,
      why: say`The board ends ${length(short)} short.`,
      waysOut: [
        say`Saw ${Math.ceil(short / recut.row)} more slices.`,
        say`Make the board ${length(stack)} ${WORDS[stackSide]}.`,
      ],
    });
  return [...found, ...thicknessOf(recut, plan.ladders.thickness.reached, board.thickness, shop.habits.sanding)];
};

const WORDS = { width: 'wide', length: 'long' } as const;

/** Whether the strips are wide enough together, or much too wide. @param side of the board that the panel's width becomes */
export function panelOf(
  plan: Plan,
  { wantedPanelWidth }: Pick<Again, 'wantedPanelWidth'>,
  board: Board,
  side: 'width' | 'length',
): Found[] {
  const wider = plan.panelWidth - wantedPanelWidth;
  if (wider < -LENGTH_TOLERANCE_MM)
    return [
      {
        rule: 'panel-width',
        severity: 'stop',
        strips: [],
        what: say`The strips add up to ${length(plan.panelWidth)}; ${length(wantedPanelWidth)} is needed, ${length(-wider)} more.`,
        why: say`Trimmed as a panel and again as a block, it leaves a board ${length(plan.ladders[side].reached)} ${WORDS[side]}, not ${length(board[side])}.`,
        waysOut: [
          say`Add or widen strips by ${length(-wider)}.`,
          say`Make the board ${length(plan.ladders[side].reached)} ${WORDS[side]}.`,
        ],
      },
    ];
  if (wider <= GENEROUS_TRIM) return [];
  return [
    {
      rule: 'panel-width',
      severity: 'note',
      strips: [],
      what: say`The panel is ${length(wider)} wider than it needs to be.`,
      why: say`It is trimmed away from the block.`,
      waysOut: [say`Narrow or remove a strip.`, say`Make the board ${side === 'length' ? 'longer' : 'wider'}.`],
    },
  ];
}

/** Whether the block is thick enough for the board. */
export function thicknessOf(
  again: NonNullable<Plan['again']>,
  reached: number,
  wanted: number,
  sanding: number,
): Found[] {
  const short = wanted - reached;
  if (short <= LENGTH_TOLERANCE_MM) return [];
  const needed = wanted + again.flatten + sanding;
  return [
    {
      rule: 'board-thickness',
      severity: 'stop',
      strips: [],
      what: say`The board comes out ${length(reached)} thick, ${length(short)} short of ${length(wanted)}.`,
      why:
        again.how === 'rows' && again.up
          ? say`Of slices of ${length(again.pitch)} flattening takes ${length(again.flatten)} and sanding ${length(sanding)}.`
          : say`Of a panel of ${length(again.thickness)} flattening takes ${length(again.flatten)} and sanding ${length(sanding)}.`,
      waysOut: [
        again.up ? say`Saw the slices ${length(needed)} thick.` : say`Make the panel ${length(needed)} thick.`,
        say`Make the board ${length(Math.max(0, reached))} thick.`,
      ],
    },
  ];
}
