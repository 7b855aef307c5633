import type { OperationKind } from '../steps/operation.ts';
import { length, say, type Phrase } from '../units/phrase.ts';

/** One thing to look at, how, and what is still good. */
export interface Look {
  what: Phrase;
  how: Phrase;
  /** What can be noted where it is not good; null where it is only put right. */
  finding: 'badPlace' | 'strip' | 'glueLine' | 'slice' | null;
}

const FLAT: Look = {
  what: say`Flat: no corner rocks`,
  how: say`On the saw table, press all four corners in turn; a sheet of paper must not slip under an edge (${length(0.1)})`,
  finding: null,
};
const JOINTS: Look = {
  what: say`Every joint closed, ends too`,
  how: say`Hold it before a light, and run a fingernail across: nothing shines through, nothing catches`,
  finding: 'glueLine',
};
const TEAR_OUT: Look = {
  what: say`No tear-out, no snipe`,
  how: say`Light from the side over both faces; fingertips over the last ${length(60)} at both ends`,
  finding: 'badPlace',
};
const CORNERS: Look = {
  what: say`Square at four corners`,
  how: say`A square at each; both diagonals alike within ${length(0.5)}`,
  finding: null,
};
const STRIPS: Look = {
  what: say`Strips alike and whole`,
  how: say`Stand them side by side on edge: none rocks, none is ${length(0.2)} lower; no knot, no check on the show side`,
  finding: 'strip',
};
const GLUED: Look = {
  what: say`Strips level, none has crept`,
  how: say`Fingertips across the joints and a straightedge across the panel: steps under ${length(0.5)}; look beneath too`,
  finding: null,
};
const SCRATCHES: Look = {
  what: say`No scratch, no burn, no glue`,
  how: say`Wipe with a damp cloth and look against the light: glue and scratches show pale; a nylon stocking drawn over it must not catch`,
  finding: 'badPlace',
};
const OILED: Look = {
  what: say`No dry spot, no puddle`,
  how: say`Look along the face against the light: dull places still drink, shiny ones are wiped off`,
  finding: null,
};
const SLICES: Look = {
  what: say`Slices of one height, faces square`,
  how: say`Side by side on the saw table: none stands ${length(0.2)} higher; a square against both faces`,
  finding: 'slice',
};
const FURRY: Look = {
  what: say`Smooth when it is dry again`,
  how: say`The palm of the hand over both faces: stubble means sand once more with the last grit`,
  finding: null,
};

/** What to look at after a step; kinds that are not here leave nothing that could be seen. */
const LOOKS: Partial<Record<OperationKind, readonly Look[]>> = {
  flatten: [
    {
      what: say`Faces flat and parallel`,
      how: say`A straightedge along, across and over both diagonals: no light under it; the caliper the same at four corners within ${length(0.2)}`,
      finding: null,
    },
    TEAR_OUT,
  ],
  jointEdge: [
    {
      what: say`Edge straight and square to the face`,
      how: say`A straightedge along it, a square against it at three places: no light`,
      finding: null,
    },
  ],
  rip: [STRIPS],
  resaw: [STRIPS],
  planeStrips: [STRIPS, TEAR_OUT],
  remill: [STRIPS],
  jointStrips: [STRIPS],
  slice: [SLICES],
  layOut: [
    {
      what: say`The picture is the one you want`,
      how: say`Step back and look long; then draw the triangle across all strips`,
      finding: 'strip',
    },
  ],
  dryRun: [JOINTS],
  glue: [GLUED, JOINTS],
  join: [GLUED, JOINTS],
  flattenSections: [FLAT],
  flattenPanel: [FLAT, JOINTS, TEAR_OUT],
  flushFrame: [FLAT, JOINTS],
  trimEdges: [
    {
      what: say`Edges straight, parallel, clean of glue`,
      how: say`Width at both ends and in the middle, alike within ${length(0.2)}`,
      finding: 'badPlace',
    },
  ],
  trimEnds: [CORNERS, TEAR_OUT],
  groove: [
    {
      what: say`Groove even all round`,
      how: say`A rule in it at each corner: as deep everywhere within ${length(0.2)}; no burn`,
      finding: 'badPlace',
    },
  ],
  edges: [
    {
      what: say`Edges even, nothing torn out`,
      how: say`A fingertip round all of them; look hardest at the end grain`,
      finding: 'badPlace',
    },
  ],
  sand: [SCRATCHES, FLAT],
  raiseGrain: [FURRY],
  oil: [OILED],
  topCoat: [OILED],
  fit: [
    {
      what: say`Nothing turns or rattles`,
      how: say`Lift the board by each of them, loaded with as much as it will carry`,
      finding: null,
    },
  ],
  feet: [{ what: say`All feet stand`, how: say`On the saw table: no corner rocks`, finding: null }],
};

/** What to look at once a step of a kind is done: a short list with the tolerance and how to see it (common practice). */
export function looksAfter(kind: OperationKind): readonly Look[] {
  return LOOKS[kind] ?? [];
}
