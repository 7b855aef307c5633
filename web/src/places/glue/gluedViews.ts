import { nth } from '#core/lists/there.ts';
import type { Inset } from '#core/board/inset.ts';
import { AS_IT_LIES, cutStripsOf, flatRecipe, stripsOf, type Strip } from '#core/board/recipe.ts';
import { flatPart } from '#core/board/accents.ts';
import type { GluePlan, GlueUp } from '#core/gluing/glueUps.ts';
import type { Recut } from '#core/board/recut.ts';
import { glueOrder } from '#core/plan/blocks.ts';
import type { OpenBoard } from '../../data/openBoard.tsx';

/** The first panel of a board that is more than that, as a board of its own: what is said of a panel of strips holds for it. */
export function panelView(open: OpenBoard): OpenBoard {
  const made = open.plan.again ?? open.plan.frame ?? open.plan.back;
  if (!made) return open;
  // What is glued on later is none of the panel's.
  const board = { ...made.board, recipe: flatPart(made.board.recipe) };
  return { ...open, board, plan: { ...open.plan, trim: made.trim, ladders: made.ladders } };
}

/** Another of the panels that rows come from in turn, as a board of its own. @param k which, from 0 of those beside the first */
export function otherPanelView(open: OpenBoard, k: number): OpenBoard {
  const { again, recut } = open.plan;
  const other = again?.otherPanels[k];
  if (!other || !again || !recut) return open;
  const { before } = other;
  const rows = { ...recut, ...recut.kinds[k + 1], board: other.board, trim: other.trim };
  // Counted from its own first strip, as strips of any board are.
  const own = (g: GlueUp): GlueUp => ({
    ...g,
    firstStrip: g.firstStrip - before.strips,
    lastStrip: g.lastStrip - before.strips,
  });
  return {
    ...open,
    board: other.board,
    numbersFrom: before.strips,
    plan: {
      ...open.plan,
      again: rows,
      recut: rows,
      gluing: { ...other.gluing, glueUps: other.gluing.glueUps.map(own) },
      trim: other.trim,
      allowances: other.allowances,
      panelWidth: other.trim.width,
      bodies: other.bodies,
    },
  };
}

/** The rows or parts of one board as if they were strips of a panel: glued alike, in time and under clamps. */
export function blockView(open: OpenBoard): OpenBoard {
  const { again } = open.plan;
  if (!again) return open;
  const made = again.how === 'rows' ? rowsAsStrips(open, again) : partsAsStrips(open, again);
  return piecesView(open, made, again.gluing, again.block.height);
}

/** Two strips of a frame and what is between them, as if they were strips of a panel. @param n which pair, from 0 */
export function frameView(open: OpenBoard, n: number): OpenBoard {
  const { frame } = open.plan;
  const pair = frame?.pairs[n];
  if (!frame || !pair) return open;
  const [one, other] = pair.strips;
  const ring = frame.rings[pair.ring];
  if (!one || !other || !ring) return open;
  const inside = one.side === 'far' ? ring.inner.width : ring.inner.length;
  const piece = (id: string, species: string, width: number) => ({ ...AS_IT_LIES, id: `piece-${id}`, species, width });
  const pieces = [
    piece(one.strip.id, one.strip.species, one.width),
    piece(ring.operation.id, speciesOfPanel(open), inside),
    piece(other.strip.id, other.strip.species, other.width),
  ];
  return piecesView(open, { pieces, length: one.covers }, pair.gluing, frame.fields.thickness);
}

/** The strips of a back, as a board of its own. */
export function backPanelView(open: OpenBoard): OpenBoard {
  const { back } = open.plan;
  if (!back) return open;
  const { panel } = back;
  const from = panel.before.strips;
  const own = (g: GlueUp): GlueUp => ({ ...g, firstStrip: g.firstStrip - from, lastStrip: g.lastStrip - from });
  return {
    ...open,
    board: panel.board,
    numbersFrom: from,
    plan: {
      ...open.plan,
      again: null,
      recut: null,
      gluing: { ...panel.gluing, glueUps: panel.gluing.glueUps.map(own) },
      allowances: panel.allowances,
      panelWidth: panel.panelWidth,
    },
  };
}

/** A board and the back under it, one on the other. */
export function backView(open: OpenBoard): OpenBoard {
  const { back } = open.plan;
  if (!back?.gluing) return open;
  const piece = (id: string, species: string, width: number) => ({ ...AS_IT_LIES, id: `piece-${id}`, species, width });
  const pieces = [
    piece('top', speciesOfPanel(open), back.tops.thickness),
    piece('back', back.strips[0]?.strip.species ?? '', back.thickness),
  ];
  return piecesView(open, { pieces, length: back.inside.length }, back.gluing, back.inside.width);
}

/** The bits of a stack, end to end, as if they were strips of a panel. @param k which stack, from 0 */
export function stackView(open: OpenBoard, k: number): OpenBoard {
  const known = open.plan.stacks[k];
  if (!known) return open;
  const { stack, gluing } = known;
  const pieces = stack.bits.map((bit, i) => ({
    ...AS_IT_LIES,
    id: `bit-${i + 1}`,
    species: nth(stack.sticks, bit.stick).strip.species,
    width: bit.length,
  }));
  return piecesView(open, { pieces, length: stack.depth }, gluing, open.plan.allowances.glueThickness);
}

/** What is glued of pieces that are no strips of a panel. @param height of its joints, mm */
function piecesView(open: OpenBoard, { pieces, length }: Pieces, gluing: GluePlan, height: number): OpenBoard {
  const { board, plan } = open;
  return {
    ...open,
    board: { ...board, recipe: flatRecipe(pieces) },
    plan: {
      ...plan,
      gluing,
      panelWidth: pieces.reduce((sum, p) => sum + p.width, 0),
      allowances: {
        ...plan.allowances,
        glueThickness: height,
        panels: Array.from({ length: board.count }, () => ({ boards: 1, length })),
      },
    },
  };
}

/** What is glued, each with the wood that decides about it, and how long the joints are, mm. */
interface Pieces {
  pieces: Strip[];
  length: number;
}

/** What holds every strip of a panel: one that is oily makes all of it so. */
function speciesOfPanel({ board, input }: OpenBoard): string {
  const strips = stripsOf(board);
  const oily = new Set(input.species.filter((s) => s.oily).map((s) => s.code));
  return (strips.find((s) => oily.has(s.species)) ?? strips[0])?.species ?? '';
}

function rowsAsStrips(open: OpenBoard, recut: Recut): Pieces {
  const species = speciesOfPanel(open);
  return {
    pieces: recut.all
      .filter((r) => r.board === 1)
      .map((r) => ({ ...AS_IT_LIES, id: `row-${r.number}`, species, width: recut.row })),
    length: recut.trueWidth / Math.cos((recut.angle * Math.PI) / 180),
  };
}

function partsAsStrips(open: OpenBoard, inset: Inset): Pieces {
  const species = speciesOfPanel(open);
  const known = new Map(cutStripsOf(open.board).map((s) => [s.id, s.species]));
  return {
    pieces: glueOrder(inset).map(({ id, along }) => ({
      ...AS_IT_LIES,
      id: `piece-${id}`,
      species: known.get(id) ?? species,
      width: along,
    })),
    length: Math.max(...inset.inserts.map((i) => i.length)),
  };
}
