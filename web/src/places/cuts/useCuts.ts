import { useQueries, type UseQueryResult } from '@tanstack/react-query';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import type { Board } from '#core/board/board.ts';
import type { Fact } from '#core/facts/fact.ts';
import type { CutPlan } from '#core/cutting/cutPlan.ts';
import { cutProblemFor } from '#core/saw/cutForBoard.ts';
import { bareCut } from '#core/saw/rebuildCut.ts';
import { doneFor, promisedToOthers } from '#core/saw/sawBook.ts';
import type { KeptPlan, SawBook } from '#core/saw/sawRecords.ts';
import { CutSearch } from '../../cutting/cutSearch.ts';
import type { ListedBoard } from '#contract/boards.ts';
import { api } from '../../data/api.ts';
import { useSettledBoard } from '../../data/openBoard.tsx';
import { boardQuery, takeBook, useSawBook } from '../../data/queries.ts';
import { keys, queryClient } from '../../data/queryClient.ts';
import { showProblem, showWord } from '../../shell/notices.tsx';

/** Time the search may take before it stops by itself; it stops sooner when the plan is proven. */
const SEARCH_SECONDS = 30;
/** Edits follow one another; the search waits until the hands rest. */
const SEARCH_DELAY_MS = 250;

const ALONE: { key: string; board: Board; facts: readonly Fact[] }[] = [];

/** Boards that have been fetched; those that are still on their way are not cut with the others yet. */
function loadedOf(results: UseQueryResult<ListedBoard>[]): ListedBoard[] {
  return results.flatMap(({ data }) => data ?? []);
}

/** The cut plan on the page: what it is, what the search does, and what can be done with it. */
export interface Cuts {
  /** Of all boards that are cut together. */
  plan: CutPlan;
  kept: KeptPlan | null;
  /** The kept plan is the one shown. */
  showsKept: boolean;
  /** Every strip is on the bench. */
  allCut: boolean;
  running: boolean;
  /** Ids of the boards cut together; this one first. */
  together: string[];
  setTogether(ids: string[]): void;
  improve(): void;
  stop(): void;
  keep(): Promise<void>;
  release(): Promise<void>;
  busy: boolean;
  /** Says what a wish is about to change, so that its price can be told. */
  announce(words: string): void;
  /** Puts a plan that was changed by hand in the place of this one. */
  rearrange(plan: CutPlan, words: string): void;
  /** What the last wish cost, once the search has answered. */
  price: { words: string; more: number; sure: boolean } | null;
}

export function useCuts(): Cuts {
  const { id, board, input, plan, book: own, draft, setDraft, session } = useSettledBoard();
  const kept = own.plans.find((p) => p.boards.includes(id)) ?? null;
  const [others, setOthers] = useState<string[]>(() => kept?.boards.filter((b) => b !== id) ?? []);
  const all = useMemo(() => [id, ...others], [id, others]);
  const joint = useSawBook(all);
  const book = others.length === 0 ? own : (joint.data ?? own);
  const stored = useQueries({ queries: others.map(boardQuery), combine: loadedOf });
  const [running, setRunning] = useState(false);
  const [busy, setBusy] = useState(false);
  const [price, setPrice] = useState<Cuts['price']>(null);
  const search = useRef<CutSearch | null>(null);
  const wish = useRef<{ words: string; before: number } | null>(null);
  const [wishing, setWishing] = useState(false);

  const { rack, shop, species, facts } = input;
  // The same empty list while there are none: another board's save is no reason to search again.
  const otherBoards = useMemo(
    () => (stored.length === 0 ? ALONE : stored.map((s) => ({ key: s.id, board: s.board, facts: s.facts }))),
    [stored],
  );
  const problem = useMemo(() => {
    const together = [{ key: id, board, facts }, ...otherBoards];
    const ids = together.map((t) => t.key);
    return cutProblemFor(
      together.map((t) => ({ ...t, done: doneFor(book, t.key) })),
      { rack, shop, species, promised: promisedToOthers(book, ids) },
    );
  }, [id, board, facts, otherBoards, book, rack, shop, species]);

  const stop = useCallback(() => {
    search.current?.stop();
    search.current = null;
    setRunning(false);
  }, []);
  const improve = useCallback(() => {
    search.current?.stop();
    setRunning(true);
    search.current = new CutSearch(problem, SEARCH_SECONDS, (better, done) => {
      setDraft(better);
      if (wish.current)
        setPrice({ words: wish.current.words, more: better.score.total - wish.current.before, sure: done });
      if (!done) return;
      setRunning(false);
      wish.current = null;
      setWishing(false);
    });
  }, [problem, setDraft]);

  // What is kept and still fits stays as it is until somebody asks for better; anything else is searched at once.
  const keptHolds = kept !== null && plan.cutting.method === 'kept' && draft === null;
  const settled = keptHolds && !wishing;
  const tried = useRef<typeof problem | null>(null);
  // What was kept or released is planned a moment later: a search that began until then, because the rack changed, would know nothing of it.
  const awaited = useRef(false);
  useEffect(() => {
    if (settled || problem.demands.length === 0 || tried.current === problem) return;
    const timer = setTimeout(() => {
      if (awaited.current) return;
      tried.current = problem;
      improve();
    }, SEARCH_DELAY_MS);
    return () => clearTimeout(timer);
  }, [settled, problem, improve]);
  useEffect(() => () => search.current?.stop(), []);
  useEffect(() => {
    if (!awaited.current) return;
    awaited.current = false;
    stop();
    setDraft(null);
  }, [own, stop, setDraft]);

  const finish = async (work: () => Promise<SawBook>, said: string) => {
    setBusy(true);
    try {
      const changed = await work();
      stop();
      setDraft(null);
      setPrice(null);
      wish.current = null;
      setWishing(false);
      awaited.current = true;
      takeBook(id, changed);
      showWord(said);
    } catch (error) {
      showProblem(error);
      void queryClient.invalidateQueries({ queryKey: keys.saw });
      void queryClient.invalidateQueries({ queryKey: keys.rack });
    } finally {
      setBusy(false);
    }
  };
  const open = useMemo(() => ({ ...plan.cutting, blanks: plan.cutting.blanks.filter((b) => !b.done) }), [plan.cutting]);
  const current = draft ?? (keptHolds ? kept.plan : open);
  return {
    plan: current,
    kept,
    showsKept: keptHolds,
    allCut: problem.demands.every((d) => d.spare > 0) && current.blanks.length === 0,
    running,
    busy,
    together: [id, ...others],
    price,
    setTogether: (ids) => setOthers(ids.filter((b) => b !== id)),
    improve,
    stop,
    keep: () =>
      finish(async () => {
        const revision = await session.savedRevision();
        const rest = stored.map((s) => ({ id: s.id, revision: s.revision }));
        return api.keepCut([{ id, revision }, ...rest], bareCut(current));
      }, 'Kept. Its wood is promised to the board.'),
    release: () => finish(() => api.releaseCut([id]), 'Released. Its wood is free for other boards.'),
    announce: (words) => {
      wish.current = { words, before: current.score.total };
      setWishing(true);
      setPrice(null);
    },
    rearrange: (plan, words) => {
      stop();
      setDraft(plan);
      setPrice({ words, more: plan.score.total - current.score.total, sure: true });
    },
  };
}
