import { firstOf } from '../lists/there.ts';
import { unitGeometry } from '../cutting/unitGeometry.ts';
import { flattenerLimits } from '../shop/flattener.ts';
import { panelSaw } from '../shop/tools.ts';
import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import { length, say } from '../units/phrase.ts';
import { buildLadder, type Ladder } from './ladder.ts';
import type { PlanContext } from './context.ts';
import { leastPiece } from './limitingPiece.ts';

export function lengthLadder(context: PlanContext): Ladder {
  const {
    allowances,
    board,
    shop: { habits },
  } = context;
  const { kerf } = panelSaw(context.shop, context.panelWidth);
  const { snipe } = flattenerLimits(context.shop);
  const panel = firstOf(allowances.panels);
  // In a batch the last panel may be shorter; the ladder is that of the longest.
  const piece = leastPiece(
    context,
    (p) => p.length,
    (blank) => blank.length >= panel.length - LENGTH_TOLERANCE_MM,
  )?.piece;
  const start = piece?.length ?? panel.length + 2 * habits.stockEndTrim;
  const trimmed = piece ? unitGeometry(piece, context.shop, []).start : habits.stockEndTrim;
  const snipeDecides = snipe > habits.panelEndTrim;
  const end = {
    taken: allowances.endTrim + kerf,
    habit: snipeDecides ? undefined : ('panelEndTrim' as const),
    ...(snipeDecides ? { source: 'machine' as const } : {}),
    why: snipeDecides
      ? say`The planer snipes ${length(snipe)} at each end, more than the usual trim; the kerf goes too.`
      : say`The end is squared; the kerf goes too.`,
  };
  return buildLadder(
    'length',
    start,
    board.length,
    [
      {
        id: 'stock-end',
        label: say`Trim the end of the stock`,
        taken: trimmed,
        habit: trimmed === habits.stockEndTrim ? 'stockEndTrim' : undefined,
        ...(trimmed === habits.stockEndTrim ? {} : { source: 'piece' as const }),
        why:
          trimmed > habits.stockEndTrim
            ? say`This end is checked or sniped further than the usual trim.`
            : say`Checks and old snipe sit at the ends.`,
      },
      {
        id: 'crosscut',
        label: say`Crosscut to ${length(panel.length)}`,
        taken: start - trimmed - panel.length,
        why: say`The rest of the piece gives other blanks, their kerfs, the far end trim and the offcut.`,
      },
      {
        id: 'creep',
        label: say`Strips creep in the clamps`,
        taken: habits.creep,
        habit: 'creep',
        why: say`Wet glue lets strips slide; only where all of them lie is there board.`,
      },
      { id: 'first-end', label: say`Trim the first end`, ...end },
      { id: 'second-end', label: say`Turn end for end, trim the second`, ...end },
      {
        id: 'spare',
        label: say`Off for bad places`,
        taken: allowances.spareLength,
        source: 'piece' as const,
        why: say`The panel was glued for longer boards than now come out of it.`,
      },
      {
        id: 'others',
        label: say`Other boards of this panel`,
        taken: board.worked.others.reduce((sum, o) => sum + o.length + kerf, 0),
        source: 'machine',
        why: say`They come out of the same panel, each behind a kerf of ${length(kerf)}.`,
      },
      {
        id: 'cut-apart',
        label: say`Cut ${panel.boards} boards apart`,
        taken: (panel.boards - 1) * (board.length + kerf),
        source: 'machine',
        why: say`The panel holds ${panel.boards} boards end to end; each cut between them takes a kerf.`,
      },
    ],
    piece ? say`${piece.mark}, the shortest piece in use at ${length(piece.length)}` : null,
  );
}
