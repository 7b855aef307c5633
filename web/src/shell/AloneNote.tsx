import { Button } from '@mantine/core';
import { IconCloudOff, IconEye } from '@tabler/icons-react';
import { useSyncExternalStore } from 'react';
import { waitingFacts } from '../data/factLine.ts';
import { newerIsHere, onNewer, takeNewer } from '../offline/application.ts';
import { keptDrafts } from '../offline/drafts.ts';
import { useClock } from '../quantities/useClock.ts';
import classes from './AloneNote.module.css';
import { useLive } from './useLive.ts';

const TIME = new Intl.DateTimeFormat(undefined, { hour: '2-digit', minute: '2-digit', hourCycle: 'h23' });
const DAY_TIME = new Intl.DateTimeFormat(undefined, { dateStyle: 'medium', timeStyle: 'short' });
const DAY_MS = 86_400_000;
/** A server that starts anew is back sooner: nobody need be told. */
const WORTH_TELLING_MS = 3000;
const LOOK_AGAIN_MS = 1000;

/** Says since when nothing is heard of the server and what waits to be sent, that a device may only look, and that a newer Cadenza is here. */
export function AloneNote() {
  const { aloneSince, may } = useLive();
  const newer = useSyncExternalStore(onNewer, newerIsHere);
  if (may === 'work' && aloneSince === null && !newer) return null;
  return (
    <span role="status" className={classes.note}>
      {may === 'look' && (
        <>
          <IconEye size={15} /> This device may look and change nothing.
        </>
      )}
      {aloneSince !== null && <Alone since={aloneSince} />}
      {newer && (
        <Button size="compact-xs" variant="default" onClick={takeNewer}>
          A newer Cadenza is here: take it
        </Button>
      )}
    </span>
  );
}

function Alone({ since }: { since: number }) {
  const now = useClock(LOOK_AGAIN_MS);
  if (now - since < WORTH_TELLING_MS) return null;
  const waiting = [
    some(keptDrafts(), 'change', 'changes'),
    some(waitingFacts(), 'fact from the bench', 'facts from the bench'),
  ].filter((words) => words !== null);
  return (
    <>
      <IconCloudOff size={15} /> Alone since {(now - since < DAY_MS ? TIME : DAY_TIME).format(new Date(since))}.{' '}
      {waiting.length === 0 ? 'What is shown is as it was then.' : `Waiting to be sent: ${waiting.join(', ')}.`}
    </>
  );
}

const some = (count: number, one: string, many: string): string | null =>
  count === 0 ? null : `${count} ${count === 1 ? one : many}`;
