import type { OperationKind } from '../steps/operation.ts';

/** What a beginner wants told at a step: how to see that it is right, and what goes wrong, each with what it looks like. */
export interface Lesson {
  right: string;
  mistakes: readonly { mistake: string; looks: string }[];
}

const sawn: Lesson = {
  right: 'The cut is square to the edge and the face, and the part is as long as the stop says.',
  mistakes: [
    {
      mistake: 'Measured from the checked end.',
      looks: 'A fine dark line at the end of the part that opens when it is bent.',
    },
    { mistake: 'The off-cut was caught between blade and stop.', looks: 'A burnt, dug-in end, and a fright.' },
  ],
};
const flattened: Lesson = {
  right: 'It lies on the saw table without rocking, and the caliper says the same at all four corners.',
  mistakes: [
    { mistake: 'Pressed flat while it was planed.', looks: 'Straight in the machine, bowed again a minute later.' },
    { mistake: 'Fed against the grain.', looks: 'Small torn pits, all leaning one way.' },
  ],
};
const ripped: Lesson = {
  right: 'Edges are parallel, clean and square; strips stood side by side are of one height.',
  mistakes: [
    {
      mistake: 'No straight edge against the fence.',
      looks: 'A strip that is wide at one end and narrow at the other.',
    },
    { mistake: 'Stood still in the cut.', looks: 'A brown burn on the edge that glue does not hold on.' },
  ],
};
const jointed: Lesson = {
  right: 'Two edges held together close along their whole length, with no light between them.',
  mistakes: [
    {
      mistake: 'The fence is not at right angles.',
      looks: 'The joint closes above and gapes beneath; a panel of such strips is bowed.',
    },
    {
      mistake: 'Too much pressure at the ends.',
      looks: 'The edge is hollow or round: light in the middle, or at both ends.',
    },
  ],
};
const laid: Lesson = {
  right: 'You have looked long, from above and from the side, and a triangle is drawn across all of it.',
  mistakes: [
    { mistake: 'No mark was drawn.', looks: 'With glue on both hands nobody knows which strip was the third.' },
    { mistake: 'Grain runs both ways.', looks: 'Whichever way it is planed, some strips tear out.' },
  ],
};
const glued: Lesson = {
  right: 'Small even beads stand along every joint, above and below; strips are level.',
  mistakes: [
    {
      mistake: 'Too little glue, or it had skinned.',
      looks: 'No beads in places; later a hairline that drinks water.',
    },
    {
      mistake: 'All clamps at once, hard.',
      looks: 'Strips ride up or slide along each other; the panel bows towards the bars.',
    },
  ],
};
const rehearsed: Lesson = {
  right: 'Every clamp has found its place, nothing is in the way of anything, and you know your order by heart.',
  mistakes: [
    { mistake: 'Skipped, because it looked simple.', looks: 'A caul under a clamp, found while the glue sets.' },
    { mistake: 'A gap pressed shut by force.', looks: 'It closes only where the clamp is: plane that edge again.' },
  ],
};
const scraped: Lesson = {
  right: 'No bead is left that a fingertip can feel.',
  mistakes: [
    {
      mistake: 'Wiped while it was wet.',
      looks: 'Pale smears in the pores that show as soon as there is oil on them.',
    },
    { mistake: 'Chiselled off when it was hard.', looks: 'Splinters of wood that came off with it.' },
  ],
};
const trimmed: Lesson = {
  right: 'All four corners take a square, and both diagonals are alike.',
  mistakes: [
    {
      mistake: 'Another edge against the fence for the second cut.',
      looks: 'A board that is a little out of square: diagonals differ.',
    },
    { mistake: 'Nothing behind the cut.', looks: 'The last fibres torn out at the far corner.' },
  ],
};
const shaped: Lesson = {
  right: 'It looks the same all round, and fingertips find no step where passes meet.',
  mistakes: [
    { mistake: 'The router stood still.', looks: 'A burn that takes ages to sand out of end grain.' },
    { mistake: 'All of it in one pass.', looks: 'Torn-out corners, and a bit that wanders.' },
  ],
};
const sanded: Lesson = {
  right: 'The pencil lines of this grit are gone everywhere, and a nylon stocking does not catch.',
  mistakes: [
    { mistake: 'On to the next grit too soon.', looks: 'Deep scratches that only show when the oil is on.' },
    { mistake: 'Pressed into one spot.', looks: 'A hollow: water stands in it.' },
  ],
};
const wetted: Lesson = {
  right: 'Dry again, it feels like stubble; after the last grit it is smooth, and stays so when it gets wet.',
  mistakes: [{ mistake: 'Left out.', looks: 'The board feels furry after its first wash.' }],
};
const oiled: Lesson = {
  right: 'It drinks no more, and has the same sheen everywhere, edges and ends too.',
  mistakes: [
    { mistake: 'One face first, the other tomorrow.', looks: 'The board cups towards the dry side.' },
    { mistake: 'What it did not drink was left on.', looks: 'Sticky patches that collect dust.' },
  ],
};
const splined: Lesson = {
  right: 'Grooves lie across the joint at one depth, and each key slides in by hand.',
  mistakes: [{ mistake: 'Keys forced in dry.', looks: 'The joint stands open by a hair once the glue is on.' }],
};
const footed: Lesson = {
  right: 'It stands on all of its feet, and no screw comes near the face.',
  mistakes: [{ mistake: 'Drilled without a stop.', looks: 'A small bump on the face, or a hole in it.' }],
};
const fitted: Lesson = {
  right: 'Nothing turns or rattles, and the wood under the washers is not crushed.',
  mistakes: [
    { mistake: 'Tightened with a machine.', looks: 'A ring pressed into the face, or a crack from the bore.' },
  ],
};
const sliced: Lesson = {
  right: 'Slices stand side by side at one height, and their order is still known by the lines across the panel.',
  mistakes: [
    { mistake: 'No lines were drawn before.', looks: 'Slices that fit nobody knows where.' },
    { mistake: 'The panel lifted off its fence.', looks: 'A slice that is a wedge: its row will gape.' },
  ],
};

/** Every kind of step: a new kind is one more line. */
const LESSONS: Readonly<Record<OperationKind, Lesson>> = {
  crosscut: sawn,
  split: ripped,
  flatten: flattened,
  jointEdge: jointed,
  rip: ripped,
  resaw: ripped,
  remill: ripped,
  planeStrips: flattened,
  jointStrips: jointed,
  slice: sliced,
  layRows: laid,
  sawApart: sawn,
  layParts: laid,
  layFrame: laid,
  flushEnds: trimmed,
  flushFrame: flattened,
  layBack: laid,
  cutBits: sawn,
  layBits: laid,
  flattenStack: flattened,
  cutStack: sawn,
  layOut: laid,
  keys: splined,
  dryRun: rehearsed,
  glue: glued,
  flattenSections: flattened,
  join: glued,
  scrape: scraped,
  flattenPanel: flattened,
  cutApart: sawn,
  trimEdges: trimmed,
  trimEnds: trimmed,
  inlay: shaped,
  corners: shaped,
  groove: shaped,
  edges: shaped,
  holds: shaped,
  handles: shaped,
  bores: footed,
  sand: sanded,
  engrave: shaped,
  raiseGrain: wetted,
  oil: oiled,
  topCoat: oiled,
  feet: footed,
  fit: fitted,
};

/** What a kind of step teaches (common practice). */
export function lessonOf(kind: OperationKind): Lesson {
  return LESSONS[kind];
}
