import type { PlanContext } from '../ladders/context.ts';
import {
  backedThing,
  topThing,
  blockThing,
  boardThing,
  fieldThing,
  framedThing,
  panelThing,
  stripThing,
  type Thing,
} from './instruction.ts';

/** What comes out of the clamps, a thing each: panels of strips, blocks of rows or parts, or boards with their frame. */
export const panelsOf = ({
  allowances,
  again,
  frame,
  back,
  before,
}: Pick<PlanContext, 'allowances' | 'again' | 'frame' | 'back' | 'before'>): Thing[] => {
  const many = allowances.panels.length;
  return allowances.panels.map((_, k) =>
    back
      ? backedThing(k + 1, many)
      : frame
        ? framedThing(k + 1, many)
        : again
          ? blockThing(k + 1, many)
          : panelOf({ before }, k + 1),
  );
};

export const panelWords = (many: number, context: Pick<PlanContext, 'again' | 'frame' | 'back'>): string => {
  const word = wholeWord(context);
  return many > 1 ? `${many} ${word}s` : `the ${word}`;
};

/** What a panel is called once more than strips went into it. */
export const wholeWord = ({ again, frame, back }: Pick<PlanContext, 'again' | 'frame' | 'back'>): string =>
  back ? 'backed board' : frame ? 'framed board' : again ? 'block' : 'panel';

/** What is cut out of the panels: boards, what a frame goes round, or what a back is glued under. @param number over the whole batch, from 1 */
export const cutThing = ({ field, board }: Pick<PlanContext, 'field' | 'board'>, number: number): Thing =>
  field === 'frame'
    ? fieldThing(number, board.count)
    : field === 'back'
      ? topThing(number, board.count)
      : boardThing(number);

/** A strip that is asked of the rack, with the panel or the board that it is for. */
export const demandThing = (
  demand: { strip: number; stripId: string; copy: number; spare: number },
  { allowances }: Pick<PlanContext, 'allowances'>,
): Thing => {
  const own = allowances.loose[demand.stripId]?.own;
  return own ? stripThing(demand, own.count, own) : stripThing(demand, allowances.panels.length);
};

/** A strip of a panel, by its number on the board. @param copy which of the panels alike, from 1 */
export const stripOfPanel = (
  { allowances, before }: Pick<PlanContext, 'allowances' | 'before'>,
  strip: number,
  copy: number,
): Thing => stripThing({ strip, copy, spare: 0 }, allowances.panels.length, { of: 'panel', before: before.panels });

/** A panel of strips. @param copy which of those alike, from 1 */
export const panelOf = ({ before }: Pick<PlanContext, 'before'>, copy: number): Thing =>
  panelThing(before.panels + copy);
