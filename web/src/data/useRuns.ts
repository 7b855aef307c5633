import { useMutation, useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import type { RunChange, StoredRun } from '#contract/glueRuns.ts';
import { api, ApiProblem } from './api.ts';
import { queryClient } from './queryClient.ts';
import { showProblem, showWord } from '../shell/notices.tsx';
import { useLookAgain } from '../shell/useLive.ts';

/** Clocks on other devices are here as soon as this where nobody tells, ms. */
const REFETCH_MS = 5000;

interface Runs {
  now: string;
  runs: StoredRun[];
  /** By how much the server's clock is ahead of this device's, ms. */
  ahead: number;
}

/** Clocks of a board's glue-ups: kept by the server, so that a reload, a locked screen or another device change nothing. */
export function useRuns(boardId: string) {
  const key = ['runs', boardId];
  const query = useQuery({
    queryKey: key,
    refetchInterval: useLookAgain(REFETCH_MS),
    queryFn: async (): Promise<Runs> => {
      const answer = await api.runs(boardId);
      return { ...answer, ahead: new Date(answer.now).getTime() - Date.now() };
    },
  });
  const put = (run: StoredRun) =>
    queryClient.setQueryData<Runs>(
      key,
      (old) => old && { ...old, runs: [run, ...old.runs.filter((r) => r.id !== run.id)] },
    );
  // Started twice, or changed on another device: what is stored is shown, and said.
  const failed = (error: Error) => {
    if (error instanceof ApiProblem && (error.code === 'running' || error.code === 'stale')) {
      put(error.current as StoredRun);
      showWord(error.message);
    } else showProblem(error);
  };
  const start = useMutation({
    mutationFn: (begin: Parameters<typeof api.startRun>[1]) => api.startRun(boardId, begin),
    onSuccess: put,
    onError: failed,
  });
  const change = useMutation({
    scope: { id: `runs ${boardId}` },
    mutationFn: ({ run, change: what }: { run: StoredRun; change: RunChange }) => {
      // What was stored a moment ago is what this is based on, not what the button was drawn with.
      const newest = queryClient.getQueryData<Runs>(key)?.runs.find((r) => r.id === run.id) ?? run;
      return api.changeRun(newest.id, newest.version, what);
    },
    onSuccess: put,
    onError: failed,
  });
  return { query, start, change };
}

/** This moment by the server's clock, four times a second while something runs. */
export function useNow(running: boolean, ahead: number): number {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    if (!running) return;
    const tick = setInterval(() => setNow(Date.now()), 250);
    return () => clearInterval(tick);
  }, [running]);
  return now + ahead;
}

/** Keeps the screen of a phone on while a clock runs, where the device allows it. */
export function useScreenOn(running: boolean): void {
  useEffect(() => {
    if (!running || !('wakeLock' in navigator)) return;
    let lock: { release(): Promise<void> } | undefined;
    const ask = () => {
      if (document.visibilityState === 'visible')
        void navigator.wakeLock
          .request('screen')
          .then((got) => (lock = got))
          .catch(() => {});
    };
    ask();
    document.addEventListener('visibilitychange', ask);
    return () => {
      document.removeEventListener('visibilitychange', ask);
      void lock?.release().catch(() => {});
    };
  }, [running]);
}
