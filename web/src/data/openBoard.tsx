import { useQuery } from '@tanstack/react-query';
import { createContext, use, useEffect, useMemo, useState, useSyncExternalStore, type ReactNode } from 'react';
import type { Finding } from '#core/checks/finding.ts';
import type { Fact } from '#core/facts/fact.ts';
import type { CutPlan } from '#core/cutting/cutPlan.ts';
import type { PlanInput } from '#core/saw/planInput.ts';
import { sawStateFor } from '#core/saw/sawBook.ts';
import type { SawBook } from '#core/saw/sawRecords.ts';
import type { Plan } from '#core/plan/plan.ts';
import type { StoredBoard } from '#contract/boards.ts';
import { api } from './api.ts';
import { BoardSession, type SessionState } from './boardSession.ts';
import { factLine, factsQuery } from './facts.ts';
import { onBoardStored } from './live.ts';
import { usePlanned } from './usePlanned.ts';
import { trouble, useRack, useSawBook, useShop, useSpecies } from './queries.ts';
import { keys, queryClient } from './queryClient.ts';

/** A board open in this tab, with the plan that follows from it. */
export interface OpenBoard extends SessionState {
  id: string;
  session: BoardSession;
  input: PlanInput;
  /** While hands move, the plan of a moment ago: it may know fewer or other strips than `board`. */
  plan: Plan;
  findings: Finding[];
  book: SawBook;
  /** What happened to it, with what this device noted a moment ago. */
  facts: readonly Fact[];
  /** Puts an improved cut plan in the place of the kept one for this tab; null goes back. */
  setDraft(draft: CutPlan | null): void;
  draft: CutPlan | null;
  /** Strips that are numbered before those of this board: where one of several panels is shown as a board of its own. */
  numbersFrom?: number;
  /** Which of several panels that is, from 0: `board` is as that one sees it. */
  panel?: number;
}

const OpenBoardContext = createContext<OpenBoard | null>(null);
const SettledBoardContext = createContext<OpenBoard | null>(null);

/** The open board. @throws when used outside `OpenBoardProvider` */
export function useOpenBoard(): OpenBoard {
  const open = use(OpenBoardContext);
  if (!open) throw new Error('useOpenBoard belongs inside OpenBoardProvider');
  return open;
}

/**
 * The open board as it was a moment ago while hands move on the drawing, its plan always that of its strips. For everything beside the drawing:
 * React renders it in slices between two frames, so that a drag stays smooth however much hangs on the plan.
 */
export function useSettledBoard(): OpenBoard {
  const open = use(SettledBoardContext);
  if (!open) throw new Error('useSettledBoard belongs inside OpenBoardProvider');
  return open;
}

interface ProviderProps {
  id: string;
  loading: ReactNode;
  failed(message: string): ReactNode;
  children: ReactNode;
}

/** Loads a board and all that its plan needs, then shows the children. */
export function OpenBoardProvider({ id, loading, failed, children }: ProviderProps) {
  // Loaded once for this tab: from then on the session is the truth, and it watches for changes itself.
  const board = useQuery({
    queryKey: ['board', id],
    queryFn: () => api.board(id),
    staleTime: 0,
    gcTime: 0,
    refetchOnWindowFocus: false,
    refetchOnReconnect: false,
  });
  const rack = useRack();
  const shop = useShop();
  const species = useSpecies();
  const ids = useMemo(() => [id], [id]);
  const book = useSawBook(ids);
  const facts = useQuery(factsQuery(id));
  const error = trouble(board, rack, shop, species, book, facts);
  if (board.data && rack.data && shop.data && species.data && book.data && facts.data) {
    const rest = {
      pieces: rack.data,
      shop: shop.data.shop,
      species: species.data,
      book: book.data,
      facts: facts.data,
    };
    return (
      <WithSession key={id} id={id} loaded={board.data} {...rest}>
        {children}
      </WithSession>
    );
  }
  return error ? failed(error.message) : loading;
}

interface WithSessionProps {
  id: string;
  loaded: StoredBoard;
  pieces: { piece: PlanInput['rack'][number] }[];
  shop: PlanInput['shop'];
  species: PlanInput['species'];
  book: SawBook;
  facts: readonly Fact[];
  children: ReactNode;
}

function WithSession({ id, loaded, pieces, shop, species, book, facts, children }: WithSessionProps) {
  const [session] = useState(() => new BoardSession(id, loaded));
  const state = useSyncExternalStore(session.subscribe, session.snapshot);
  const rack = useMemo(() => pieces.map((p) => p.piece), [pieces]);

  useEffect(() => {
    const onVisible = () => {
      if (document.visibilityState === 'visible') void session.refresh();
      else {
        void session.flush(true);
        void factLine(id).flush();
      }
    };
    const onUnload = (event: BeforeUnloadEvent) => {
      if (session.unsaved) event.preventDefault();
    };
    document.addEventListener('visibilitychange', onVisible);
    window.addEventListener('beforeunload', onUnload);
    window.addEventListener('focus', onVisible);
    const deaf = onBoardStored((board) => {
      if (board === null || board === id) void session.refresh();
    });
    return () => {
      deaf();
      document.removeEventListener('visibilitychange', onVisible);
      window.removeEventListener('beforeunload', onUnload);
      window.removeEventListener('focus', onVisible);
      void session.flush(true).then(() => queryClient.invalidateQueries({ queryKey: keys.boards }));
    };
  }, [id, session]);

  const [draft, setDraft] = useState<CutPlan | null>(null);
  const saw = useMemo(() => {
    const kept = sawStateFor(book, id);
    return draft ? { ...kept, chosen: draft } : kept;
  }, [book, id, draft]);
  const rest = useMemo(() => ({ rack, shop, species, saw, facts }), [rack, shop, species, saw, facts]);
  const planned = usePlanned(state, rest, book);
  const open = useMemo<OpenBoard>(
    () => ({ id, session, ...planned, ...state, facts, draft, setDraft }),
    [id, session, state, planned, facts, draft],
  );
  const settled = useMemo<OpenBoard>(
    () => ({ id, session, ...planned, facts: planned.input.facts ?? facts, draft, setDraft }),
    [id, session, planned, facts, draft],
  );
  return (
    <OpenBoardContext value={open}>
      <SettledBoardContext value={settled}>{children}</SettledBoardContext>
    </OpenBoardContext>
  );
}

/** The same where hands change it: both what they hold and what stands beside it. */
export function LiveAs({ open, settled, children }: { open: OpenBoard; settled: OpenBoard; children: ReactNode }) {
  return (
    <OpenBoardContext value={open}>
      <SettledBoardContext value={settled}>{children}</SettledBoardContext>
    </OpenBoardContext>
  );
}

/** Shows a part of the page another board than the open one, such as the first panel of a board that is cut again, as if it were a board of its own. */
export function ShownAs({ open, children }: { open: OpenBoard; children: ReactNode }) {
  return <SettledBoardContext value={open}>{children}</SettledBoardContext>;
}
