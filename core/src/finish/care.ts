import type { FinishKind } from '../shop/finishes.ts';
import type { FinishPlan } from './finishPlan.ts';
import type { Resanding } from './resanding.ts';

/** What an owner is told of a board, on a card: a heading and its sentences. */
export interface CareLine {
  heading: string;
  text: string;
}

/** How a finish is renewed, by its kind (common practice). */
const RENEW: Readonly<Record<FinishKind, string>> = {
  mineralOil: 'Flood it on both faces, leave it overnight, wipe off what stands.',
  waxOil: 'Rub it in thin on both faces, leave it overnight, buff.',
  hardWaxOil: 'Sand lightly with fine paper, one thin coat on both faces, days to harden.',
  dryingOil: 'One thin coat on both faces, wiped dry, days to harden.',
  film: 'Where knives have cut it, it is sanded off and put on anew.',
};

interface CareOf {
  finish: Pick<FinishPlan, 'coatings' | 'surfaces'>;
  resanding: Resanding;
  /** What to know of its woods where they meet food; empty for nothing. */
  woodNotes: readonly string[];
  /** Until when it still cures, in the maker's words; null where it has. */
  curesUntil: string | null;
  /** What the shop itself tells owners; empty for nothing. */
  careWords: string;
}

/** More often than that nobody brings a board back. */
const OFTEN = 12;

/** More than half of a face that is end grain drinks as such. */
const MOSTLY = 0.5;

const every = (weeks: number): string =>
  weeks === 1
    ? 'every week'
    : weeks < 9
      ? `every ${weeks} weeks`
      : weeks < 78
        ? `every ${Math.round(weeks / 4.35)} months`
        : `every ${Math.round(weeks / 52)} years`;

/** Lines of the shop's own words that take the place of what the card would say: `Wash: only cold water.` */
function ownWords(careWords: string): { instead: Map<string, string>; behind: string } {
  const instead = new Map<string, string>();
  const behind: string[] = [];
  for (const line of careWords.split('\n')) {
    const [, heading, text] = /^\s*(Not yet|Wash|Dry|Renew|Scars|Its wood)\s*:\s*(.*)$/i.exec(line) ?? [];
    if (heading === undefined || text === undefined) behind.push(line);
    else instead.set(heading.toLowerCase(), text.trim());
  }
  return { instead, behind: behind.join('\n').trim() };
}

/** The sentences of a care card: what follows from finish, construction and thickness, and the shop's own words last (common practice). */
export function careLines({
  finish: { coatings, surfaces },
  resanding,
  woodNotes,
  curesUntil,
  careWords,
}: CareOf): CareLine[] {
  const last = coatings.at(-1)?.finish;
  const endGrain = surfaces.some((s) => s.side === 'top' && s.endGrain > MOSTLY);
  const { times, grits } = resanding;
  const { instead, behind } = ownWords(careWords);
  const lines = [
    ...(curesUntil === null
      ? []
      : [{ heading: 'Not yet', text: `The finish still hardens: no food and no water on it before ${curesUntil}.` }]),
    {
      heading: 'Wash',
      text: 'By hand, warm water and a little soap, both faces, soon after use. Never in a dishwasher, never left to soak.',
    },
    {
      heading: 'Dry',
      text: 'Wipe it, then let it stand on its edge with air on both faces; not on a stove or in the sun.',
    },
    last
      ? {
          heading: 'Renew',
          text: `When it looks dull or water no longer beads, about ${every(endGrain ? Math.max(1, Math.round(last.renewWeeks / 2)) : last.renewWeeks)}: ${last.renewWith}. ${RENEW[last.kind]}${endGrain ? ' Its face is end grain and drinks: until it takes no more.' : ''}`,
        }
      : { heading: 'Renew', text: 'It is bare wood: a little food-grade oil now and then keeps it from drying out.' },
    {
      heading: 'Scars',
      text:
        times > 0
          ? `Sand them out along the grain with ${grits.join(', ')}, then renew the finish; it can be done ${times === 1 ? 'once' : times > OFTEN ? 'many times' : `about ${times} times`}.`
          : 'It is too thin to be sanded out: use the other face, or bring it back.',
    },
    ...(woodNotes.length > 0 ? [{ heading: 'Its wood', text: woodNotes.join(' ') }] : []),
  ];
  return [
    // One that is left empty is left out.
    ...lines
      .map((line) => ({ ...line, text: instead.get(line.heading.toLowerCase()) ?? line.text }))
      .filter((line) => line.text !== ''),
    ...(behind === '' ? [] : [{ heading: 'From the shop', text: behind }]),
  ];
}
