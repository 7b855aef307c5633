import { lastOf } from '../lists/there.ts';
import type { Placed, Schedule } from '../schedule/task.ts';
import type { BoardWork, WorkTask } from '../schedule/work.ts';
import { phraseText } from '../units/phrase.ts';
import type { LengthDisplay } from '../units/formatLength.ts';
import type { ShopEvent } from './shopCalendar.ts';

const MINUTE_MS = 60_000;
/** A wait that is over when it begins is none, minutes. */
const SHORTEST_WAIT = 5;
/** How long the moment that a wait ends stands in a calendar, minutes. */
const MOMENT = 15;

/** What a step is called where others stand beside it: with its part, where it has several. */
function titleOf(task: WorkTask, board: string, display: LengthDisplay): string {
  const part = task.copies > 1 ? ` (${task.copy} of ${task.copies})` : '';
  const coat = task.parts > 1 ? `, part ${task.part} of ${task.parts}` : '';
  return `${board}: ${phraseText(task.title, display)}${part}${coat}`;
}

/** A schedule as events: each stretch of hands, and the moments at which waits are over. Every stretch of a step has an id of its own that stays while the step does. */
export function scheduleEvents(
  schedule: Pick<Schedule, 'placed'>,
  works: readonly BoardWork[],
  display: LengthDisplay,
): ShopEvent[] {
  const names = new Map(works.map((w) => [w.board, w.name]));
  return [...schedule.placed.values()].flatMap((placed): ShopEvent[] => {
    const task = placed.task as WorkTask;
    const board = names.get(task.board) ?? '';
    const title = titleOf(task, board, display);
    const id = encodeURIComponent(task.id);
    return [
      ...placed.hands.map((hand, k) => ({
        id: `${id}-${k + 1}`,
        from: hand.from * MINUTE_MS,
        // Calendars know no events without length.
        to: Math.max(hand.to, hand.from + 1) * MINUTE_MS,
        title,
        words: wordsOf(placed, display),
        reminds: false,
      })),
      ...(task.wait >= SHORTEST_WAIT
        ? [
            {
              id: `${id}-over`,
              from: placed.until * MINUTE_MS,
              to: (placed.until + MOMENT) * MINUTE_MS,
              title: `${board}: ${task.waitFor ?? 'the wait'} is over`,
              words: `Since ${titleOf(task, board, display)}.`,
              reminds: true,
            },
          ]
        : []),
    ];
  });
}

/** What to set, and how long it takes. */
function wordsOf({ task, hands, shared }: Placed, display: LengthDisplay): string {
  const { settings } = task as WorkTask;
  const set = settings.map((s) => `${s.label} ${phraseText([s.value], display)}`).join(', ');
  const minutes = Math.round(hands.reduce((sum, h) => sum + h.to - h.from, 0));
  const rest = lastOf(hands).to > (hands[0]?.to ?? 0) + 1 ? ' It goes on another day.' : '';
  return `${minutes} min${set === '' ? '' : `. ${set}${shared ? ', as it is set already' : ''}`}.${rest}`;
}
