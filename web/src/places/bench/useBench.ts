import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { measuresOf } from '#core/bench/measures.ts';
import type { MishapWay } from '#core/bench/mishap.ts';
import { progressOf } from '#core/bench/progress.ts';
import type { Operation } from '#core/steps/operation.ts';
import { bareCut } from '#core/saw/rebuildCut.ts';
import { api } from '../../data/api.ts';
import type { Noted } from '../../data/factLine.ts';
import { factLine, factsQuery, useFactState } from '../../data/facts.ts';
import { useSettledBoard } from '../../data/openBoard.tsx';
import { mergeChanges } from '../../data/mergeChanges.ts';
import { takeBook } from '../../data/queries.ts';
import { showProblem, showWord } from '../../shell/notices.tsx';
import { useLookAgain } from '../../shell/useLive.ts';
import { useMishaps } from './useMishaps.ts';

/** What another device noted is here as soon as this where nobody tells, ms. */
const LOOK_AGAIN_MS = 1500;

/** How it stands with the open board at the bench, and how what happens is noted. */
export function useBench() {
  const { id, plan, input, session } = useSettledBoard();
  const lookAgain = useLookAgain(LOOK_AGAIN_MS);
  useQuery({ ...factsQuery(id), refetchInterval: lookAgain });
  const line = factLine(id);
  const state = useFactState(id);
  const facts = input.facts ?? NONE;
  const progress = useMemo(() => progressOf(plan.operations, facts), [plan, facts]);
  const mishaps = useMishaps(input, plan);
  const note = (noted: Noted): boolean => {
    try {
      line.note(noted);
      return true;
    } catch (error) {
      showProblem(error);
      return false;
    }
  };
  /** What is cut once more is promised to the board, so that no other takes its wood. */
  const promiseWood = async () => {
    const open = { ...plan.cutting, blanks: plan.cutting.blanks.filter((b) => !b.done) };
    if (open.blanks.length === 0) return;
    const revision = await session.savedRevision();
    takeBook(id, await api.keepCut([{ id, revision }], bareCut(open)));
    showWord('Its wood is found and promised to this board.');
  };
  return {
    progress,
    mishaps,
    state,
    facts,
    note,
    /** Says that a step is done, with the minutes a clock counted, and begins its wait. */
    done: (step: Operation, copy: number, minutes: number | null) =>
      note({
        kind: 'done',
        step: step.id,
        copy,
        minutes,
        wait: step.waitMinutes === null ? null : { minutes: step.waitMinutes, for: step.waitFor ?? 'the next step' },
        // What is done panel by panel goes on from its own panel.
        ends: step.after.map((id) => ({ step: id, copy: step.repeats > 1 ? copy : null })),
      }),
    takeBack: (ids: readonly string[]) => line.takeBack(ids),
    /** Takes one of the ways out of something that went wrong. */
    decide: (fact: string, { way, board }: MishapWay) => {
      if (!note({ kind: 'decided', about: fact, way })) return;
      const failed = facts.some((f) => f.id === fact && f.kind === 'failed' && f.what === 'strip');
      if (way === 'again' && failed) void promiseWood().catch(showProblem);
      if (board) {
        // What was edited since the way was worked out stays.
        session.edit((newest) => mergeChanges(input.board, board, newest));
        showWord('The board is changed; Undo at the desk takes that back.');
      }
    },
    measures: (step: Operation) => measuresOf(step, plan.operations, input.board, input.shop),
  };
}

const NONE: readonly never[] = [];
export type Bench = ReturnType<typeof useBench>;
