import { useCallback, useEffect, useRef, useState } from 'react';
import type { ProposeAnswer, ProposeRequest } from './proposeWorker.ts';

interface Proposing<A> {
  answer: A | null;
  running: boolean;
  start(request: ProposeRequest): void;
  /** Ends the search; what was found last stays. */
  stop(): void;
}

/** A search for proposals beside the page, one at a time: starting another ends the one before. @param kind of the answers wanted */
export function useProposing<K extends ProposeAnswer['kind']>(kind: K): Proposing<Extract<ProposeAnswer, { kind: K }>> {
  type Answer = Extract<ProposeAnswer, { kind: K }>;
  const worker = useRef<Worker | null>(null);
  const [answer, setAnswer] = useState<Answer | null>(null);
  const [running, setRunning] = useState(false);
  const end = useCallback(() => {
    worker.current?.terminate();
    worker.current = null;
  }, []);
  const stop = useCallback(() => {
    end();
    setRunning(false);
  }, [end]);
  const start = useCallback(
    (request: ProposeRequest) => {
      end();
      const next = new Worker(new URL('./proposeWorker.ts', import.meta.url), { type: 'module' });
      worker.current = next;
      setRunning(true);
      next.onmessage = ({ data }: MessageEvent<ProposeAnswer>) => {
        if (data.kind !== kind) return;
        setAnswer(data as Answer);
        if (data.done) stop();
      };
      next.onerror = stop;
      next.postMessage(request);
    },
    [end, kind, stop],
  );
  useEffect(() => end, [end]);
  return { answer, running, start, stop };
}
