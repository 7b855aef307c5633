import { useQuery } from '@tanstack/react-query';
import { useEffect, useMemo, useState } from 'react';
import type { Standing, StandingState } from '#core/checks/standing.ts';
import type { PlanInput } from '#core/saw/planInput.ts';
import { sawStateFor } from '#core/saw/sawBook.ts';
import type { SawBook } from '#core/saw/sawRecords.ts';
import type { ListedBoard } from '#contract/boards.ts';
import { api } from '../../data/api.ts';
import { Length, Say } from '../../quantities/Length.tsx';
import classes from './BoardsPlace.module.css';

interface BoardStandingProps {
  stored: ListedBoard;
  input: Omit<PlanInput, 'board' | 'saw'> & { book: SawBook };
}

const WORDS: Readonly<Record<StandingState, string>> = {
  empty: 'Nothing laid out',
  stopped: 'Needs attention',
  planned: 'Planned',
  promised: 'Wood promised',
  cut: 'All strips cut',
  begun: 'On the bench',
  done: 'Every step done',
};

/** One piece of work while nobody waits for the page. */
function whenIdle(work: () => void): () => void {
  if ('requestIdleCallback' in window) {
    const id = requestIdleCallback(work, { timeout: 2000 });
    return () => cancelIdleCallback(id);
  }
  const id = setTimeout(work, 50);
  return () => clearTimeout(id);
}

/** What a board is now: the sizes it will have, how far it has come and what to do next. Lists hold boards without what is worked into them, so each is fetched whole. */
export function BoardStanding({ stored, input: { book, rack, shop, species } }: BoardStandingProps) {
  const { id, revision, facts } = stored;
  const whole = useQuery({
    queryKey: ['whole board', id, revision],
    queryFn: () => api.board(id),
    staleTime: Infinity,
  });
  const board = whole.data?.board;
  const saw = useMemo(() => sawStateFor(book, id), [book, id]);
  const [standing, setStanding] = useState<Standing | null>(null);
  useEffect(() => {
    if (!board) return undefined;
    let gone = false;
    const planned = import('#core/checks/standing.ts');
    const stop = whenIdle(
      () =>
        void planned.then(({ standingOf }) => {
          if (!gone) setStanding(standingOf({ board, rack, shop, species, saw, facts }));
        }),
    );
    return () => {
      gone = true;
      stop();
    };
  }, [board, rack, shop, species, saw, facts]);
  if (!standing) return <span className={classes.standing}>&nbsp;</span>;
  const { size, state, next } = standing;
  const short =
    size &&
    (Math.abs(size.length - stored.board.length) > 0.05 ||
      Math.abs(size.width - stored.board.width) > 0.05 ||
      Math.abs(size.thickness - stored.board.thickness) > 0.05);
  return (
    <span className={classes.standing} data-state={state}>
      <i>{WORDS[state]}</i>
      {short && (
        <em>
          comes out <Length mm={size.length} bare /> × <Length mm={size.width} bare /> × <Length mm={size.thickness} />
        </em>
      )}
      <span>
        {state === 'stopped' ? '' : 'Next: '}
        <Say phrase={next} />
      </span>
    </span>
  );
}
