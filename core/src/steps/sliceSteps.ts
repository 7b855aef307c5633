import { slicingSaw, type Recut } from '../board/recut.ts';
import { hasStop, SAFE_HOLD_MM, TOOL_NAMES } from '../shop/tools.ts';
import { atLeast, capitalised, length, say, type Phrase } from '../units/phrase.ts';
import type { PlanContext } from '../ladders/context.ts';
import { soundEnd } from '../bodies/recutWood.ts';
import { firstOf, nth } from '../lists/there.ts';
import type { StepDraft } from './operation.ts';
import { rowThing, type InstructionOf } from './instruction.ts';
import { panelOf, panelWords } from './panelThings.ts';

/** The slices of each panel, in the order they are sawn. @param contexts of the panels that rows come from in turn */
export function slicings(contexts: readonly PlanContext[], recut: Recut): InstructionOf<'slice'>[] {
  return contexts.flatMap((context) => slicingsOf(context, recut));
}

function slicingsOf(context: PlanContext, recut: Recut): InstructionOf<'slice'>[] {
  const { allowances } = context;
  const saw = slicingSaw(context.shop, context.panelWidth, recut.angle);
  const boards = recut.all.reduce((most, r) => Math.max(most, r.board), 1);
  return allowances.panels.map((panel, k) => {
    const rows = recut.all.filter((r) => r.panel === context.before.panels + k + 1);
    return {
      do: 'slice',
      part: panelOf(context, k + 1),
      saw,
      angle: recut.angle,
      end: soundEnd(context) + recut.slice.first,
      pitch: recut.pitch,
      // Along the panel each slice takes so much, kerf and all.
      takes: (recut.pitch + saw.kerf) / Math.cos((recut.angle * Math.PI) / 180),
      length: panel.length,
      wood: rows.length * recut.pitch,
      kerfs: rows.length * (recut.pitch + saw.kerf),
      leastLeft: SAFE_HOLD_MM,
      slices: rows.map((r) => rowThing(r.number, recut.rows, boards)),
    };
  });
}

/** How many slices are left to saw when the rest of the panel is too short to hold well. */
export function slicesHardToHold({ length: long, end, takes, slices }: InstructionOf<'slice'>): number {
  const after = (n: number) => long - end - n * takes;
  return slices.filter((_, i) => after(i) < SAFE_HOLD_MM).length;
}

/** What is pencilled on the slices: their place among the rows. */
function numberLines({ kinds }: Recut, instructions: readonly InstructionOf<'slice'>[]): Phrase[] {
  const { slices } = firstOf(instructions);
  if (kinds.length === 1)
    return [
      say`Number each slice as it falls, on its first cut face: ${firstOf(slices).label} to ${nth(slices, slices.length - 1).label}${instructions.length > 1 ? ' from the first panel' : ''}`,
    ];
  // Of several panels in turn every second, or every third.
  return [
    say`Number each slice as it falls, on its first cut face, by the row that it will be: rows come from ${kinds.length} panels in turn`,
    ...instructions.map((i) => capitalised(say`${i.part.label}: ${i.slices.map((s) => s.label).join(', ')}`)),
  ];
}

/** From the first panels to slices, one set-up for all of them. */
export function sliceStep(contexts: readonly PlanContext[], recut: Recut): StepDraft {
  const instructions = slicings(contexts, recut);
  const first = firstOf(instructions);
  const { saw, angle, pitch } = first;
  const square = angle === 0;
  const stops = hasStop(saw);
  const many = instructions.length;
  const count = (i: InstructionOf<'slice'>) => i.slices.length;
  const same = instructions.every((i) => count(i) === count(first));
  const hard = Math.max(...instructions.map(slicesHardToHold));
  const lines: Phrase[] = [
    say`Before the first cut two pencil lines along the whole ${many > 1 ? 'of each panel' : 'panel'}, not alike far from the edges: slices that get mixed up find their order and their side again`,
    square
      ? say`One end off square, ${length(first.end)} in, the same true edge to the fence; then ${same ? say`${count(first)} slices` : say`slices`}${many > 1 ? ' of each panel' : ''}, ${stops ? 'the fresh end to the stop' : 'each measured from the fresh end'}`
      : say`Saw at ${Math.abs(angle)}° from a square cut, ${angle > 0 ? 'away from the marked end toward strip 1' : 'toward the marked end toward strip 1'}: one end off so that every strip is whole, ${length(first.end)} in where it lies least far; then ${same ? say`${count(first)} slices` : say`slices`}${many > 1 ? ' of each panel' : ''} parallel to it`,
    ...(same || recut.kinds.length > 1 ? [] : instructions.map((i) => say`${i.part.label}: ${count(i)} slices`)),
    say`${count(first)} slices are ${length(first.wood)} of wood and ${length(first.kerfs)} with kerfs of ${length(saw.kerf)}${square ? '' : ', square to the cut'}`,
    ...numberLines(recut, instructions),
    ...(hard > 0
      ? [
          say`For the last ${hard} less than ${length(SAFE_HOLD_MM)} of the panel is left along the fence: clamp it to the ${saw.tool === 'sled' ? 'sled' : 'table'}, or saw them along the rip fence with the long side against it`,
        ]
      : []),
  ];
  return {
    kind: 'slice',
    title: say`Saw ${recut.all.length} slices`,
    machine: TOOL_NAMES[saw.tool],
    instructions,
    settings: [{ label: stops ? 'Stop' : 'Mark', value: atLeast(pitch) }],
    parts: [
      {
        part: panelWords(many, firstOf(contexts)),
        dimension: 'length',
        before: first.length,
        after: pitch,
        passes: null,
      },
    ],
    lines,
    why: square
      ? say`One stop for all of them: rows that differ by a hair make corners that do not meet.`
      : say`One angle and one stop for all of them: the points of the pattern meet only where slices are alike.`,
  };
}
