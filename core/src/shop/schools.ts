import { certain } from '../lists/there.ts';
import { z } from 'zod';

/** One way of doing a thing, with the reason that people who do it so give. */
interface School {
  id: string;
  name: string;
  why: string;
}

interface Question {
  asks: string;
  schools: readonly School[];
}

/** A question of the trade with its schools; the first is what a shop begins with. */
function question<const S extends readonly School[]>(asks: string, schools: S) {
  return { asks, schools } satisfies Question;
}

/** Questions on which makers differ, in the order the work meets them (common practice, all of them). */
export const QUESTIONS = {
  straightEdge: question('Straight edge', [
    { id: 'jointer', name: 'Jointer', why: 'Quick, and square to the flat face.' },
    {
      id: 'carrier',
      name: 'Carrier sled on the saw',
      why: 'Straight even where the plank is crooked; needs no jointer.',
    },
    { id: 'stuck', name: 'A straight edge stuck on', why: 'Nothing but a true batten and tape.' },
    { id: 'handPlane', name: 'Hand plane', why: 'Quiet, no least length, the edge ready for glue.' },
    { id: 'offSaw', name: 'Straight off the saw', why: 'A good blade leaves an edge that closes; one set-up less.' },
  ]),
  rip: question('Ripping', [
    { id: 'once', name: 'Once, to size', why: 'Least wood and one set-up.' },
    {
      id: 'fat',
      name: 'Fat, rest, mill again',
      why: 'A ripped strip may spring; what is milled after it has rested stays true.',
    },
  ]),
  thin: question('Thin strips', [
    { id: 'bandSaw', name: 'Resaw, then plane', why: 'Less kerf and safer; the blade wanders, so a spare is cut.' },
    {
      id: 'thinRip',
      name: 'Rip against a stop outside the blade',
      why: 'No band saw needed; the thin strip falls free beside the blade.',
    },
    {
      id: 'fat',
      name: 'Leave fat, flush after glue-up',
      why: 'No thin strip goes through the planer: it stands proud and is made flush with the panel.',
    },
  ]),
  edgeMarks: question('Joints that stay flat', [
    {
      id: 'alternate',
      name: 'Faces in and out',
      why: 'Alternate faces to the fence: what one edge leans, the next leans back.',
    },
    { id: 'fold', name: 'Fold like a book', why: 'Two neighbours planed together: their angles add up to flat.' },
  ]),
  measuring: question('Measuring', [
    { id: 'numbers', name: 'Tape and numbers', why: 'Anyone can repeat it tomorrow.' },
    { id: 'relative', name: 'Marks from piece to piece', why: 'Fewer errors: the finished strip sets the fence.' },
  ]),
  level: question('Keeping strips level', [
    { id: 'cauls', name: 'Cauls', why: 'Taped battens across, above and below, pull every strip to one height.' },
    { id: 'bed', name: 'Straight pipes or rails as a bed', why: 'The bed is the reference; nothing to clamp across.' },
    { id: 'weight', name: 'Weights or a post', why: 'Quick for short panels.' },
    {
      id: 'keys',
      name: 'Dowels, loose tenons or biscuits',
      why: 'Strips cannot slide; always cut from the same face.',
    },
  ]),
  squeezeOut: question('Squeezed-out glue', [
    {
      id: 'scrape',
      name: 'Scrape when it has skinned',
      why: 'It comes off in strings and nothing is smeared into the pores.',
    },
    { id: 'wipe', name: 'Wipe at once', why: 'Nothing to scrape; a wet rag raises the grain and thins the glue.' },
    {
      id: 'leave',
      name: 'Leave it, scrape hard and plane',
      why: 'No hurry; dry beads dull the knives, so they go first.',
    },
  ]),
  endCoat: question('Glue on sawn ends', [
    {
      id: 'sized',
      name: 'A thin coat first',
      why: 'End grain drinks: the first coat fills it, the second makes the joint.',
    },
    {
      id: 'full',
      name: 'One full coat',
      why: 'Quicker where the glue stands little time; ends that lean far drink less.',
    },
  ]),
  flatten: question('Flattening the panel', [
    { id: 'planer', name: 'Planer', why: 'Quickest where the panel fits.' },
    { id: 'drum', name: 'Drum sander', why: 'No tear-out; slow, light passes.' },
    { id: 'routerSled', name: 'Router sled', why: 'Any width; its marks are sanded off.' },
    { id: 'beltSander', name: 'Belt sander', why: 'No set-up; easily dished, so keep it moving.' },
    { id: 'handPlanes', name: 'Hand planes', why: 'Quiet and exact; the work of an evening.' },
    { id: 'orbital', name: 'Orbital sander only', why: 'The only tool at hand; honest hours.' },
  ]),
  snipe: question('Snipe', [
    { id: 'trim', name: 'Cut long and trim', why: 'Sure; costs its length at both ends.' },
    { id: 'runners', name: 'Runners longer than the board', why: 'Two waste strips take the snipe.' },
    { id: 'tuned', name: 'A planer that does not snipe', why: 'Tables and rollers were set.' },
  ]),
  edge: question('Edges', [
    { id: 'chamfer', name: 'Chamfer', why: 'Crisp, quick, hard to burn.' },
    { id: 'roundOver', name: 'Round-over', why: 'Kind to hands.' },
    { id: 'underBevel', name: 'Under-bevel', why: 'Fingers get beneath; the board looks thinner.' },
    { id: 'blockPlane', name: 'A few strokes of a block plane', why: 'No tear-out at the corner.' },
  ]),
  grooveOrder: question('Juice groove', [
    { id: 'before', name: 'Before the edges', why: 'The board still has square edges for the jig to lie against.' },
    { id: 'after', name: 'After the edges', why: 'What the edges turned out to be decides where the groove may run.' },
  ]),
  engraving: question('Engraving', [
    { id: 'beforeGrain', name: 'Before the grain is raised', why: 'Burn and fuzz go with the last grit.' },
    {
      id: 'outerStrip',
      name: 'On an outer strip, before glue-up',
      why: 'A bad burn goes to the inside, and another strip takes its place.',
    },
    {
      id: 'last',
      name: 'Last',
      why: 'On the finished board: what is spoiled then is spoiled late, but nothing wears it down.',
    },
  ]),
  endGrain: question('End grain through a planer, for boards that show it', [
    { id: 'never', name: 'Never', why: 'Knives split fibres off the far edge, and a block can shatter.' },
    {
      id: 'guarded',
      name: 'Only with strips glued on, a helical head and light passes',
      why: 'Sacrificial strips back up the edge; 0.5 mm a pass or less.',
    },
  ]),
  lastGrit: question('Last grit', [
    { id: '220', name: '220', why: 'Many stop here: finer is not felt after oil.' },
    { id: '150', name: '150', why: 'Enough where knives will scar it.' },
    { id: '320', name: '320', why: 'Smoother after the grain is raised.' },
    { id: '400', name: '400', why: 'For dense species.' },
    { id: '600', name: '600', why: 'For show.' },
  ]),
  raiseGrain: question('Raising the grain', [
    { id: 'once', name: 'Once, before the last grit', why: 'What stands up is cut off once; it hardly comes again.' },
    { id: 'every', name: 'After every grit', why: 'Smoothest after the first wash.' },
  ]),
  oil: question('Oil', [
    { id: 'flood', name: 'Flood and wipe', why: 'Five minutes, then overnight; no bath to fill.' },
    { id: 'bath', name: 'Bath', why: '20 minutes a side, then it drips overnight; the oil is kept.' },
    { id: 'coats', name: 'Two to three coats', why: 'Rubbed back between; the driest places drink again.' },
    { id: 'none', name: 'No oil', why: 'Wax alone, or a top coat that wants bare wood.' },
  ]),
  topCoat: question('Top coat', [
    { id: 'wax', name: 'Wax and oil blend', why: 'Buffed next day; easily renewed.' },
    { id: 'none', name: 'None', why: 'Oil alone is renewed with oil.' },
    { id: 'hardWax', name: 'Hard-wax oil', why: 'Hardest; days to cure. Its rags can ignite.' },
  ]),
  feet: question('Feet', [
    { id: 'none', name: 'None', why: 'Both sides can be used.' },
    { id: 'feet', name: 'Feet', why: 'The underside stays dry and the board does not slide.' },
  ]),
} as const satisfies Record<string, Question>;

export type QuestionId = keyof typeof QUESTIONS;
export type Schools = { [Q in QuestionId]: (typeof QUESTIONS)[Q]['schools'][number]['id'] };
export const QUESTION_IDS = Object.keys(QUESTIONS) as QuestionId[];

const choice = (q: QuestionId) => {
  const ids = QUESTIONS[q].schools.map((s) => s.id);
  return z.enum(ids as [string, ...string[]], { error: `must be one of ${ids.join(', ')}` });
};

export const schoolsSchema = z.strictObject(
  Object.fromEntries(QUESTION_IDS.map((q) => [q, choice(q)])),
) as unknown as z.ZodType<Schools>;
/** Some of them, for a board that differs from its shop. */
export const someSchoolsSchema = z.strictObject(
  Object.fromEntries(QUESTION_IDS.map((q) => [q, choice(q).optional()])),
) as unknown as z.ZodType<Partial<Schools>>;

/** What a shop begins with: the first school of each question. */
export const USUAL_SCHOOLS = Object.fromEntries(QUESTION_IDS.map((q) => [q, QUESTIONS[q].schools[0].id])) as Schools;

/** The school chosen on a question. */
export function schoolOf(schools: Schools, q: QuestionId): School {
  return certain((QUESTIONS[q].schools as readonly School[]).find((s) => s.id === schools[q]));
}
