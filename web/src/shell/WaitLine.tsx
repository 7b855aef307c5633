import { ActionIcon } from '@mantine/core';
import { IconBell } from '@tabler/icons-react';
import { useQuery } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { Link } from 'react-router';
import type { StoredWait } from '#contract/bench.ts';
import { api } from '../data/api.ts';
import { clockWords } from '../quantities/duration.ts';
import { useClock } from '../quantities/useClock.ts';
import { useLookAgain } from './useLive.ts';
import classes from './WaitLine.module.css';

const LOOK_AGAIN_MS = 15_000;

/** Everything that takes its time by itself, on all boards, on one line at the top of every page; and said aloud by the browser when it is over, where that is wished. */
export function WaitLine() {
  const { data } = useQuery({
    queryKey: ['waits'],
    queryFn: async () => {
      const answer = await api.waits();
      return { ...answer, ahead: Date.parse(answer.now) - Date.now() };
    },
    refetchInterval: useLookAgain(LOOK_AGAIN_MS),
  });
  if (!data || data.waits.length === 0) return null;
  return <Waiting waits={data.waits} ahead={data.ahead} />;
}

function Waiting({ waits, ahead }: { waits: readonly StoredWait[]; ahead: number }) {
  const now = useClock(1000) + ahead;
  const [asked, setAsked] = useState(mayAsk);
  useNotices(waits, now);
  return (
    <div className={classes.line} role="region" aria-label="What is waited for">
      {asked && (
        <ActionIcon
          variant="default"
          size="md"
          title="Tell me when"
          aria-label="Tell me when a wait is over"
          onClick={() => void Notification.requestPermission().finally(() => setAsked(false))}
        >
          <IconBell size={16} />
        </ActionIcon>
      )}
      {waits.map((wait) => {
        const left = (Date.parse(wait.until) - now) / 60_000;
        return (
          <Link
            key={wait.fact}
            className={classes.wait}
            to={`/boards/${wait.board}/bench`}
            data-over={left <= 0 || undefined}
          >
            <b>{wait.name}</b> {wait.for}
            {wait.copy > 1 && `, panel ${wait.copy}`}: {left > 0 ? `${clockWords(left)} to go` : 'ready'}
          </Link>
        );
      })}
    </div>
  );
}

const mayAsk = (): boolean => 'Notification' in window && Notification.permission === 'default';

/** A notice of the browser for each wait that ends while the page is open. */
function useNotices(waits: readonly StoredWait[], now: number): void {
  const open = useRef(new Set<string>());
  useEffect(() => {
    for (const { fact, until, name, for: what } of waits) {
      if (Date.parse(until) > now) open.current.add(fact);
      else if (open.current.delete(fact) && 'Notification' in window && Notification.permission === 'granted') {
        try {
          new Notification(`${name}: ${what}`, { body: 'The wait is over.', tag: fact });
        } catch {
          // Some phones let only their own workers do that; the line says it all the same.
        }
      }
    }
  });
}
