import { useEffect, useRef } from 'react';
import { readLine, takeReading, type Awaited, type Taken } from '#core/bench/reading.ts';
import { api } from './api.ts';

const LOOK_AGAIN_MS = 600;

/** Hands every reading that instruments send, from now on, to the field that waits for it. @param onReading a figure in mm, percent or g, or why it is not taken */
export function useReadings(awaited: Awaited | null, onReading: (taken: Taken) => void): void {
  const latest = useRef(onReading);
  useEffect(() => {
    latest.current = onReading;
  });
  useEffect(() => {
    if (awaited === null) return undefined;
    let after: number | undefined;
    let timer: ReturnType<typeof setTimeout>;
    let gone = false;
    const look = async () => {
      const answer = await api.readings(after).catch(() => null);
      if (gone) return;
      if (answer) {
        after = answer.last;
        // Of an instrument that never stops the last figure counts.
        const last = answer.readings.at(-1);
        if (last) latest.current(takeReading(last, awaited));
      }
      timer = setTimeout(() => void look(), LOOK_AGAIN_MS);
    };
    void look();
    return () => {
      gone = true;
      clearTimeout(timer);
    };
  }, [awaited]);
}

/** What of Web Serial is used here: browsers that have it know more. */
interface SerialPort {
  open(options: { baudRate: number }): Promise<void>;
  readable: ReadableStream<Uint8Array> | null;
}

/** Whether this browser can read instruments over a wire. */
export const hasSerial = (): boolean => 'serial' in navigator;

/**
 * Asks for a wired instrument and hands on what it sends, a line a reading, until it is unplugged.
 * @throws Error with a sentence when none is chosen or it cannot be opened
 */
export async function readSerial(awaited: () => Awaited, onReading: (taken: Taken) => void): Promise<void> {
  const { serial } = navigator as unknown as { serial: { requestPort(): Promise<SerialPort> } };
  const port = await serial.requestPort().catch(() => {
    throw new Error('No instrument was chosen.');
  });
  await port.open({ baudRate: 9600 }).catch(() => {
    throw new Error('The instrument cannot be opened: another program may have it.');
  });
  const reader = port.readable?.getReader();
  if (!reader) return;
  const text = new TextDecoder();
  let rest = '';
  for (;;) {
    const { value, done } = await reader.read();
    if (done) return;
    rest += text.decode(value, { stream: true });
    const lines = rest.split(/[\r\n]+/);
    rest = (lines.pop() ?? '').slice(-200);
    const kind = awaited() === 'weight' ? 'scale' : awaited() === 'moisture' ? 'moistureMeter' : 'caliper';
    for (const line of lines) {
      const reading = readLine(line, kind);
      if (reading) onReading(takeReading(reading, awaited()));
    }
  }
}
