import type { Instruction, InstructionOf } from '../steps/instruction.ts';
import { coatBoards, onBoards, fitHandles, sandBoards, screwFeet, setInlay, workFeature } from './boardWork.ts';
import { glueBack, isOfBack, layBack } from './backWork.ts';
import { flushEnds, glueFrame, isOfFrame, layFrame } from './frameWork.ts';
import { Bench, type Followed, type ToldStep, type Workshop } from './makersBench.ts';
import { clampsThere, cutBoards, flush, glueUp, guard, layOut, scrape, trimEdge, wipe } from './panelWork.ts';
import { glueParts, isOfParts, layParts, sawApart } from './partWork.ts';
import { cutBits, cutStack, glueBits, isOfBits, layBits } from './stackWork.ts';
import { glueRows, isOfRows, layRows, slicePanel, turnSlices } from './rowWork.ts';
import { crosscut, flatten, joint, remill, resaw, ripParts, splitRough, straighten, toThickness } from './woodWork.ts';

/**
 * Does instructions one after the other on solid wood and says where he fails: he carries on after a failure as well as he can, so that one slip is told once.
 *
 * @example follow(plan.operations, { rack, shop, species, bench: [] }).failures
 */
export function follow(steps: readonly ToldStep[], workshop: Workshop): Followed {
  const bench = new Bench(workshop);
  for (const step of steps) {
    bench.step = step;
    for (const instruction of step.instructions) carryOut(bench, instruction);
  }
  return bench.result(steps.length);
}

/** How a glue-up is done, told by what is glued. */
function gluingOf(bench: Bench, i: InstructionOf<'glue'>): (bench: Bench, i: InstructionOf<'glue'>) => void {
  if (isOfBack(bench, i)) return glueBack;
  if (isOfBits(bench, i)) return glueBits;
  if (isOfFrame(bench, i)) return glueFrame;
  if (isOfParts(bench, i)) return glueParts;
  return isOfRows(bench, i) ? glueRows : glueUp;
}

function carryOut(bench: Bench, i: Instruction): void {
  switch (i.do) {
    case 'crosscut':
      return crosscut(bench, i);
    case 'split':
      return splitRough(bench, i);
    case 'flatten':
      return flatten(bench, i);
    case 'straighten':
      return straighten(bench, i);
    case 'rip':
      return ripParts(bench, i);
    case 'remill':
      return remill(bench, i);
    case 'resaw':
      return resaw(bench, i);
    case 'thickness':
      return toThickness(bench, i);
    case 'joint':
      return joint(bench, i);
    case 'cutBits':
      return cutBits(bench, i);
    case 'layBits':
      return layBits(bench, i);
    case 'cutStack':
      return cutStack(bench, i);
    case 'layOut':
      return layOut(bench, i);
    case 'slice':
      return slicePanel(bench, i);
    case 'turn':
      return turnSlices(bench, i);
    case 'layRows':
      return layRows(bench, i);
    case 'sawApart':
      return sawApart(bench, i);
    case 'layParts':
      return layParts(bench, i);
    case 'layFrame':
      return layFrame(bench, i);
    case 'layBack':
      return layBack(bench, i);
    case 'flushEnds':
      return flushEnds(bench, i);
    case 'keys':
      return i.parts.forEach((p) => bench.keyed.add(p.id));
    case 'rehearse':
      return clampsThere(bench, i, i.clamps);
    case 'wipe':
      return i.parts.forEach((p) => wipe(bench, p));
    case 'glue':
      return gluingOf(bench, i)(bench, i);
    case 'scrape':
      return i.parts.forEach((p) => scrape(bench, i, p));
    case 'guard':
      return guard(bench, i);
    case 'flush':
      return flush(bench, i);
    case 'trimEdge':
      return trimEdge(bench, i);
    case 'crosscutPanel':
      return cutBoards(bench, i);
    case 'work':
      return workFeature(bench, i);
    case 'inlay':
      return setInlay(bench, i);
    case 'sand':
      return sandBoards(bench, i);
    case 'resand':
      return onBoards(bench, i, (b) => {
        if (!b.wetted) bench.fail('stillWet', i, b.thing);
      });
    case 'wet':
      return onBoards(bench, i, (b) => {
        b.wetted = true;
        if (b.coats.length > 0) bench.fail('finishOverFinish', i, b.thing);
      });
    case 'coat':
      return coatBoards(bench, i);
    case 'fit':
      return fitHandles(bench, i);
    case 'feet':
      return screwFeet(bench, i);
    case 'wait':
    case 'fat':
    case 'sneak':
    case 'lanes':
      return undefined;
  }
}
