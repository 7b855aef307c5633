import type { Again } from '../board/again.ts';
import { stripsOf } from '../board/recipe.ts';
import { ofKind } from '../board/recut.ts';
import { firstOf } from '../lists/there.ts';
import { say } from '../units/phrase.ts';
import { glueSteps } from './glueSteps.ts';
import { joined } from './millingWords.ts';
import type { StripBody } from '../bodies/stripBody.ts';
import type { PlannedStrip } from '../bodies/strips.ts';
import type { Dimension, Ladder } from '../ladders/ladder.ts';
import type { Workpiece } from '../recipe/workpiece.ts';
import { blockEnds } from './blockSteps.ts';
import { backSteps, type BackKnown } from './backSteps.ts';
import { frameSteps, type FrameKnown } from './frameSteps.ts';
import type { Operation, StepDraft } from './operation.ts';
import { boardSteps, numbered, type LastKnown } from './operations.ts';
import { flattenStep, panelFlatteningWays, panelSteps, scrapeStep } from './panelSteps.ts';
import { partSteps, sawApartStep } from './partSteps.ts';
import { recipeSteps, type Known } from './recipeSteps.ts';
import { rowSteps } from './rowSteps.ts';
import { sliceStep } from './sliceSteps.ts';
import { trimStep } from './trimSteps.ts';
import { toolOf, wayTaken } from './ways.ts';

/** What is planned of the panels that are glued of strips, as if each were a board of its own. */
export interface FirstPanels extends Known {
  ladders: Record<Dimension, Ladder>;
  outdated: boolean;
  bodies: StripBody[];
  wood: { panel: Workpiece; board: Workpiece } | null;
  strips: PlannedStrip[];
}

/**
 * The ordered steps of a board that is more than one panel: its first panels up to true faces and edges, slices and rows or parts and strips, blocks, the frame, and from there what is done to any board.
 * @param firsts one, or those that rows come from in turn @param field what is known from the block on, as far as the frame; its glue-ups are those of the blocks @param top from there on as far as the back @param last from there on
 * @returns an empty list while there are no strips
 */
export function againOperations(
  firsts: readonly FirstPanels[],
  field: Known,
  top: Omit<Known, 'gluing' | 'stacks'>,
  last: LastKnown,
  again: Again | null,
  frame: FrameKnown | null,
  back: BackKnown | null,
): Operation[] {
  const { context } = last;
  const first = firstOf(firsts);
  if (stripsOf(context.board).length === 0) return [];
  const made = recipeSteps(first);
  const sections = made.some((s) => s.kind === 'flattenSections');
  const flattened = toolOf(
    wayTaken(panelFlatteningWays(field.context, again === null && sections), context.shop.schools.flatten),
  );
  return numbered(
    [
      ...made,
      ...(again ? blockSteps(firsts, field, again, sections) : panelSteps(first.context, first.ladders, sections)),
      ...(frame
        ? [
            ...frameSteps(top.context, first.context, frame),
            ...trimStep(top.context, top.ladders.width.reached),
            ...blockEnds(top.context, frame.frame.block.length, top.ladders.width.reached),
          ]
        : []),
      ...(back
        ? [
            ...backSteps(context, back),
            ...trimStep(context, last.ladders.width.reached),
            ...blockEnds(context, back.size.length, last.ladders.width.reached),
          ]
        : []),
      ...boardSteps(last, flattened),
    ],
    context,
  );
}

/** From first panels to blocks of rows or parts, cut to size. */
function blockSteps(
  firsts: readonly FirstPanels[],
  { context, ladders, gluing }: Known,
  again: Again,
  sections: boolean,
): StepDraft[] {
  const first = firstOf(firsts);
  return [
    ...scrapeStep(first.context),
    flattenStep(first.context, sections),
    ...trimStep(first.context, again.trueWidth),
    ...firsts.slice(1).flatMap((other, k) => otherPanelSteps(other, again, k + 1)),
    ...(again.how === 'rows'
      ? [
          sliceStep(
            firsts.map((f) => f.context),
            again,
          ),
          ...rowSteps(context, again, gluing),
        ]
      : [sawApartStep(first.context, again), ...partSteps(context, first.context, again, gluing)]),
    ...scrapeStep(context),
    flattenStep(context, false),
    ...trimStep(context, ladders.width.reached),
    ...blockEnds(context, again.block.length, ladders.width.reached),
  ];
}

/** Another of the panels that rows come from in turn, glued and made true like the first: its strips were milled with those. */
function otherPanelSteps({ context, gluing }: FirstPanels, again: Again, kind: number): StepDraft[] {
  const glued = glueSteps(context, gluing);
  const trueWidth = again.how === 'rows' ? ofKind(again, kind).trueWidth : again.trueWidth;
  const steps = [
    ...glued,
    ...scrapeStep(context),
    flattenStep(
      context,
      glued.some((s) => s.kind === 'flattenSections'),
    ),
    ...trimStep(context, trueWidth),
  ];
  const of = `panel ${context.before.panels + 1}`;
  return steps.map((step) => ({
    ...step,
    about: step.about ?? of,
    title: joined(step.title, say`, ${of}`),
  }));
}
