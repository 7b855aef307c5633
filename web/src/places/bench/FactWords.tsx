import type { Board } from '#core/board/board.ts';
import { cutStripsOf } from '#core/board/recipe.ts';
import { isMeasuredLength, type BoardSide } from '#core/facts/fact.ts';
import { thingOf, type HeldFact } from '#core/facts/factsThatHold.ts';
import { Length } from '../../quantities/Length.tsx';
import { MEASURED_WORDS } from './measuredWords.ts';

/** The sides of a board, in words. */
export const SIDE_WORDS: Readonly<Record<BoardSide, string>> = {
  top: 'show side',
  bottom: 'underside',
  far: 'far edge',
  near: 'near edge',
  left: 'left end',
  right: 'right end',
};

const WAY_WORDS = {
  goOn: 'gone on',
  again: 'made again',
  turnOver: 'turned over',
  shift: 'shifted',
  shorten: 'made smaller',
  shallower: 'the groove cut shallower',
  fill: 'filled',
} as const;

/** A fact in words, of a board that lies before us or lay here once. */
export function FactWordsOf({ fact, board }: { fact: HeldFact; board: Pick<Board, 'recipe'> }) {
  const about = thingOf(fact);
  const at = about ? cutStripsOf(board).findIndex((s) => s.id === about.thing) : -1;
  const thing = about === null ? '' : at >= 0 ? `Strip ${at + 1}` : about.copy > 1 ? `Number ${about.copy}` : 'It';
  switch (fact.kind) {
    case 'measured':
      return (
        <>
          {thing} measured, {MEASURED_WORDS[fact.dimension]}:{' '}
          {isMeasuredLength(fact.dimension) ? (
            <Length mm={fact.value} />
          ) : (
            `${fact.value} ${fact.dimension === 'weight' ? 'g' : '%'}`
          )}
        </>
      );
    case 'badPlace':
      if (fact.side !== undefined && fact.depth !== undefined)
        return (
          <>
            {fact.spot.what} in the {SIDE_WORDS[fact.side]}, <Length mm={fact.depth} /> deep
          </>
        );
      return (
        <>
          Bad place: {fact.spot.what}, <Length mm={fact.spot.x} /> from the left end
        </>
      );
    case 'failed':
      return (
        <>
          {fact.what === 'strip' ? thing : fact.what === 'slice' ? 'A slice' : 'A joint'}: {fact.why}
        </>
      );
    case 'usedUp':
      return <>No {fact.what} left</>;
    case 'note':
      return <>{fact.text}</>;
    case 'picture':
      return <>A picture</>;
    case 'decided':
      return <>Decided: {WAY_WORDS[fact.way]}</>;
    case 'done':
      return <>Done</>;
  }
}
