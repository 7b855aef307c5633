import { firstOf, nth } from '../lists/there.ts';
import { showsOf } from '../board/board.ts';
import { length, say, type Phrase } from '../units/phrase.ts';
import type { PlanContext } from '../ladders/context.ts';
import { turnedOver } from '../bodies/stripBody.ts';
import { joined } from './millingWords.ts';
import { stripList } from './numberList.ts';
import type { InstructionOf } from './instruction.ts';
import { panelOf, stripOfPanel } from './panelThings.ts';
import { stripsOf } from '../board/recipe.ts';

/** Which side of the stock each strip shows as it was cut; nothing for one that the rack does not give. */
export function howCut({ blanks }: Pick<PlanContext['cutting'], 'blanks'>) {
  const shown = new Map(
    blanks.flatMap((b) =>
      b.strips.filter((s) => s.demand.spare === 0).map((s) => [`${s.demand.stripId}/${s.demand.copy}`, s.way.shows]),
    ),
  );
  return (strip: string, copy: number) => shown.get(`${strip}/${copy}`);
}

export function layOuts(context: PlanContext): InstructionOf<'layOut'>[] {
  const { board, allowances, cutting, turnedOver: over, ahead, before } = context;
  const shown = howCut(cutting);
  return allowances.panels.map((_, k) => ({
    do: 'layOut',
    panel: panelOf(context, k + 1),
    strips: turnedOver(stripsOf(board), over[k]).map((strip, i) => ({
      part: stripOfPanel(context, before.strips + i + 1, k + 1),
      up: shown(strip.id, k + 1) ?? showsOf(board.construction, strip),
      turned: strip.turned,
      endForEnd: strip.endForEnd,
      ...(ahead ? { ahead: nth(ahead, i) } : {}),
    })),
  }));
}

/** Strips that lie otherwise than they came from the saw; panel by panel where they are turned in different ways. @param before strips that are numbered before theirs */
export function turnedLines(laid: readonly InstructionOf<'layOut'>[], before: number): Phrase[] {
  const numbers = (one: InstructionOf<'layOut'>, of: (s: InstructionOf<'layOut'>['strips'][number]) => boolean) =>
    one.strips.flatMap((s, i) => (of(s) ? [before + i + 1] : []));
  const lines = (one: InstructionOf<'layOut'>, panel: string): Phrase[] => {
    const [over, round] = [numbers(one, (s) => s.turned), numbers(one, (s) => s.endForEnd)];
    return [
      ...(over.length > 0 ? [say`${panel}Turned over: ${stripList(over)}`] : []),
      ...(round.length > 0 ? [say`${panel}End for end: ${stripList(round)}`] : []),
    ];
  };
  const alike = laid.every((one) => one.strips.every((s, i) => s.turned === nth(firstOf(laid).strips, i).turned));
  return alike ? lines(firstOf(laid), '') : laid.flatMap((one) => lines(one, `${one.panel.label}: `));
}

/** How strips are staggered, so that a slanted cut meets the end of each. */
export function aheadLines(laid: readonly InstructionOf<'layOut'>[], before: number): Phrase[] {
  const ahead = firstOf(laid).strips.map((s) => s.ahead ?? 0);
  if (ahead.every((by) => by === 0)) return [];
  const by = ahead.flatMap((mm, i): Phrase[] => [say`${before + i + 1} by ${length(mm)}`]);
  return [
    joined(
      say`Staggered, each so much further along than the one that lies least far: `,
      ...by.map((one, i) => say`${i > 0 ? ', ' : ''}${one}`),
    ),
    say`Strike that line across a board of scrap and set the ends to it: every clamp beside its own strip ends`,
  ];
}

/** How strips stand or lie in the panel, those apart that lie the other way. */
export function howTheyLie(context: PlanContext): Phrase[] {
  const { construction } = context.board;
  const rolled = firstOf(layOuts(context)).strips.flatMap((s, i) =>
    s.up !== construction ? [context.before.strips + i + 1] : [],
  );
  const stand = {
    edge: say`Each strip stands on edge: its planed faces meet its neighbours`,
    face: say`Each strip lies flat: its jointed edges meet its neighbours`,
  };
  const other = {
    edge: say`Rolled: ${stripList(rolled)} with the broad face up`,
    face: say`Rolled: ${stripList(rolled)} with the edge up`,
  };
  return rolled.length > 0 ? [stand[construction], other[construction]] : [stand[construction]];
}
