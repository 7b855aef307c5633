import { WANTS_BARE_WOOD } from '../shop/finishes.ts';
import { certain, firstOf } from '../lists/there.ts';
import { apart } from '../features/apart.ts';
import type { Cut } from '../features/edgeCuts.ts';
import { thicknessAt, widthAt } from '../stock/shape.ts';
import { stockThing, type Instruction, type InstructionOf, type PlugWood, type Thing } from '../steps/instruction.ts';
import { overlaps, placeOf, type Made, type WorkedPlace } from './bench.ts';
import { FINE, TOLERANCE, type Bench } from './makersBench.ts';

export function onBoards(bench: Bench, i: Instruction & { parts: Thing[] }, act: (board: Made) => void): void {
  for (const thing of i.parts) {
    const board = bench.boards.get(thing.id);
    if (board) act(board);
    else bench.fail('missingPart', i, thing);
  }
}

export function workFeature(bench: Bench, i: InstructionOf<'work'>): void {
  bench.tool(i.tool, i, firstOf(i.parts));
  const onFace = i.place === 'top' || i.place === 'bottom';
  // What comes after the last sanding keeps its depth; what comes before is deeper by what sanding takes.
  const worked = (): WorkedPlace => ({
    feature: i.feature,
    cuts: i.cuts,
    mark: i.what === 'mark',
    depth: i.what === 'mark' && onFace ? certain(i.figures.depth) : null,
  });
  for (const thing of i.parts) {
    const board = bench.boards.get(thing.id);
    if (board) {
      takeOut(bench, i, board, worked());
      continue;
    }
    const strip = bench.things.get(thing.id);
    if (!strip || i.what !== 'mark') bench.fail('missingPart', i, thing);
    else bench.early.push({ strip: thing.id, place: i.place, worked: worked() });
  }
}

/** Wood goes, or is drawn into: a mark that something else cuts is lost, whichever of the two came first. */
function takeOut(bench: Bench, i: Instruction, board: Made, worked: WorkedPlace): void {
  board.features.push(worked.feature);
  const spoilt = board.worked.some(
    (other) => other.feature !== worked.feature && (other.mark || worked.mark) && meet(other.cuts, worked.cuts),
  );
  if (spoilt) bench.fail('markLost', i, board.thing);
  board.worked.push(worked);
}

function meet(one: readonly Cut[], other: readonly Cut[]): boolean {
  return one.some((a) => other.some((b) => overlaps(a, b) && apart(a.outlines, b.outlines) < FINE));
}

/** A mark made on a strip is still there where its edge was never cut. */
export function marksOnStrips(bench: Bench, i: Instruction, board: Made): void {
  for (const { strip, place, worked } of bench.early) {
    const at = board.panel.strips.findIndex((s) => s.wood.thing.id === strip);
    if (at < 0) continue;
    const kept =
      place === 'far'
        ? at === 0 && board.panel.trimmedFar === 0
        : at === board.panel.strips.length - 1 && board.panel.trimmedNear === 0;
    if (kept) takeOut(bench, i, board, { ...worked });
    else bench.fail('markLost', i, board.thing);
  }
}

export function setInlay(bench: Bench, i: InstructionOf<'inlay'>): void {
  bench.tool('router', i, firstOf(i.parts));
  if (i.plug) plugFrom(bench, i, i.plug);
  else bench.fail('missingPart', i, { id: 'plug', label: 'wood for the plug' });
  // Below the face the plug is as deep as it went into its pocket.
  onBoards(bench, i, (b) =>
    takeOut(bench, i, b, { feature: i.feature, cuts: i.cuts, mark: true, depth: certain(i.figures.plugStart) }),
  );
}

/** The wood of a plug is really there: in a piece of the rack, beside all that was cut from it, sound and thick enough. */
function plugFrom(bench: Bench, i: InstructionOf<'inlay'>, plug: PlugWood): void {
  const { part, from, length, across, width, thickness } = plug;
  const [x, y] = [
    { from, to: from + length },
    { from: across, to: across + width },
  ];
  const source = bench.workshop.rack
    .flatMap((piece) => Array.from({ length: piece.count }, (_, unit) => ({ piece, unit })))
    .find(({ piece, unit }) => stockThing(piece, unit).id === part.id);
  if (!source) return bench.fail('missingPart', i, part);
  const { piece, unit } = source;
  const cut = [...bench.things.values()].some(
    (w) =>
      w.thing.id.startsWith('strip ') &&
      w.piece.id === piece.id &&
      w.unit === unit &&
      overlaps(w.x, x) &&
      overlaps(w.y, y),
  );
  const sawnBefore = bench.plugs.some(
    (p) =>
      p.part.id === part.id &&
      overlaps({ from: p.from, to: p.from + p.length }, x) &&
      overlaps({ from: p.across, to: p.across + p.width }, y),
  );
  bench.plugs.push(plug);
  if (
    cut ||
    sawnBefore ||
    x.to > piece.length + FINE ||
    y.to > Math.max(widthAt(piece, x.from), widthAt(piece, x.to)) + FINE
  )
    bench.fail('missingPart', i, part);
  if (piece.defects.some((d) => d.treatment !== 'harmless' && overlaps(placeOf(d).x, x) && overlaps(placeOf(d).y, y)))
    bench.fail('badPlaceInPart', i, part);
  const there = Math.min(thicknessAt(piece, x.from), thicknessAt(piece, x.to));
  if (there < thickness - TOLERANCE) bench.fail('notEnoughThickness', i, part, { is: there, limit: thickness });
}

export function screwFeet(bench: Bench, i: InstructionOf<'feet'>): void {
  onBoards(bench, i, (b) => {
    b.feet += i.count;
    takeOut(bench, i, b, { feature: 'feet', cuts: i.cuts, mark: false, depth: null });
    if (b.thickness < i.depth - TOLERANCE)
      bench.fail('notEnoughThickness', i, b.thing, { is: b.thickness, limit: i.depth });
  });
}

/** Through bores that are there, and not before the last coat. */
export function fitHandles(bench: Bench, i: InstructionOf<'fit'>): void {
  onBoards(bench, i, (b) => {
    if (!b.features.includes(i.feature)) bench.fail('missingPart', i, b.thing);
    b.fitted.push(i.feature);
  });
}

export function sandBoards(bench: Bench, i: InstructionOf<'sand'>): void {
  onBoards(bench, i, (b) => {
    bench.tool(i.tool, i, b.thing);
    if (b.thickness - i.take < i.to - TOLERANCE || b.thickness - i.from > TOLERANCE)
      bench.fail('notEnoughThickness', i, b.thing, { is: b.thickness - i.take, limit: i.to });
    if (
      i.tool === 'drumSander' &&
      bench.workshop.shop.drumSander &&
      b.width > bench.workshop.shop.drumSander.width + FINE
    )
      bench.fail('tooWideForMachine', i, b.thing, { is: b.width, limit: bench.workshop.shop.drumSander.width });
    if (b.coats.length > 0) bench.fail('finishOverFinish', i, b.thing);
    b.thickness -= i.take;
    // Half of it comes off each face.
    for (const mark of b.worked) {
      if (mark.depth === null) continue;
      mark.depth -= i.take / 2;
      if (mark.depth < FINE) bench.fail('markLost', i, b.thing, { is: i.take / 2, limit: i.take / 2 + mark.depth });
    }
    b.sanded = true;
  });
}

export function coatBoards(bench: Bench, i: InstructionOf<'coat'>): void {
  onBoards(bench, i, (b) => {
    if (!b.sanded) bench.fail('finishOverFinish', i, b.thing);
    if (WANTS_BARE_WOOD.has(i.finish) && b.coats.some((c) => c !== i.finish))
      bench.fail('finishOverFinish', i, b.thing);
    b.coats.push(i.finish);
  });
}
