import type { Instruction, InstructionOf, Thing } from '../steps/instruction.ts';
import type { Made } from './bench.ts';
import { FINE, TOLERANCE, type Bench } from './makersBench.ts';

export function onBoards(bench: Bench, i: Instruction & { parts: Thing[] }, act: (board: Made) => void): void {
  for (const thing of i.parts) {
    const board = bench.boards.get(thing.id);
    if (board) act(board);
    else bench.fail('missingPart', i, thing);
  }
}

export function workFeature(bench: Bench, i: InstructionOf<'work'>): void {
  bench.tool(i.tool, i, i.parts[0]!);
  for (const thing of i.parts) {
    const board = bench.boards.get(thing.id);
    if (board) {
      // What comes after the last sanding keeps its depth; what comes before is deeper by what sanding takes.
      board.features.push(i.feature);
      if (i.what === 'mark' && (i.place === 'top' || i.place === 'bottom')) board.drawn.push({ feature: i.feature, depth: i.figures.depth! });
      continue;
    }
    const strip = bench.things.get(thing.id);
    if (!strip || i.what !== 'mark') bench.fail('missingPart', i, thing);
    else bench.early.push({ strip: thing.id, feature: i.feature, place: i.place });
  }
}

export function setInlay(bench: Bench, i: InstructionOf<'inlay'>): void {
  bench.tool('router', i, i.parts[0]!);
  onBoards(bench, i, (b) => {
    b.features.push(i.feature);
    // Below the face the plug is as deep as it went into its pocket.
    b.drawn.push({ feature: i.feature, depth: i.figures.plugStart! });
  });
}

export function sandBoards(bench: Bench, i: InstructionOf<'sand'>): void {
  onBoards(bench, i, (b) => {
    bench.tool(i.tool, i, b.thing);
    if (b.thickness - i.take < i.to - TOLERANCE || b.thickness - i.from > TOLERANCE) bench.fail('notEnoughThickness', i, b.thing, { is: b.thickness - i.take, limit: i.to });
    if (i.tool === 'drumSander' && bench.workshop.shop.drumSander && b.width > bench.workshop.shop.drumSander.width + FINE) bench.fail('tooWideForMachine', i, b.thing, { is: b.width, limit: bench.workshop.shop.drumSander.width });
    if (b.coats.length > 0) bench.fail('finishOverFinish', i, b.thing);
    b.thickness -= i.take;
    // Half of it comes off each face.
    for (const mark of b.drawn) {
      mark.depth -= i.take / 2;
      if (mark.depth < FINE) bench.fail('markLost', i, b.thing, { is: i.take / 2, limit: i.take / 2 + mark.depth });
    }
    b.sanded = true;
    // A mark made on a strip is still there where its edge was never cut.
    for (const { strip, feature, place } of bench.early) {
      const at = b.panel.strips.findIndex((s) => s.wood.thing.id === strip);
      if (at < 0) continue;
      const kept = place === 'far' ? at === 0 && b.panel.trimmedFar === 0 : at === b.panel.strips.length - 1 && b.panel.trimmedNear === 0;
      if (!kept) bench.fail('markLost', i, b.thing);
      else if (!b.features.includes(feature)) b.features.push(feature);
    }
  });
}

export function coatBoards(bench: Bench, i: InstructionOf<'coat'>): void {
  onBoards(bench, i, (b) => {
    if (!b.sanded) bench.fail('finishOverFinish', i, b.thing);
    if (i.finish === 'hardWaxOil' && b.coats.length > 0) bench.fail('finishOverFinish', i, b.thing);
    b.coats.push(i.finish);
  });
}
