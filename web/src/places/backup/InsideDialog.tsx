import { Button, Modal } from '@mantine/core';
import { useState } from 'react';
import type { Inside, StoreContents } from '#contract/backup.ts';
import { useConfirmed } from '../../confirm/useConfirmed.tsx';
import { backups } from '../../data/backups.ts';
import { whenWords } from '../../quantities/moment.ts';
import classes from './BackupRoom.module.css';

/** What is counted of each, in the order in which makers look for it. */
const COUNTED: readonly [label: string, count: (contents: StoreContents) => number | string][] = [
  ['Shop', ({ shop }) => shop ?? 'none'],
  ['Boards', ({ boards }) => boards],
  ['Removed boards', ({ removedBoards }) => removedBoards],
  ['States of boards', ({ revisions }) => revisions],
  ['Last changed', ({ newest }) => (newest === null ? 'never' : whenWords(newest))],
  ['Pieces in the rack', ({ pieces }) => pieces],
  ['Kept cut plans', ({ plans }) => plans],
  ['Cuts', ({ cuttings }) => cuttings],
  ['Clocks of glue-ups', ({ runs }) => runs],
  ['Facts from the bench', ({ facts }) => facts],
  ['Boards in the log', ({ finished }) => finished],
  ['Shops set aside', ({ shopsAside }) => shopsAside],
];

/** Shows what a backup holds beside what is here, before anything is done with it. */
export function InsideDialog({ called, inside, onClose }: { called: string; inside: Inside; onClose(): void }) {
  const [busy, setBusy] = useState<'restore' | 'bringIn' | null>(null);
  const { confirmed, dialog } = useConfirmed();
  const [wrong, setWrong] = useState<string | null>(null);
  const { token, holds, here, madeAt, checksum } = inside;
  const run = async (what: 'restore' | 'bringIn') => {
    setBusy(what);
    setWrong(null);
    try {
      await confirmed(() => backups[what](token));
      // Everything on the page belongs to what was here: it begins anew.
      window.location.assign('/boards');
    } catch (error) {
      setWrong((error as Error).message);
      setBusy(null);
    }
  };
  return (
    <Modal
      opened
      onClose={onClose}
      title="What is in it"
      size="lg"
      closeOnClickOutside={busy === null}
      closeButtonProps={{ 'aria-label': 'Close' }}
    >
      <p className={classes.what}>
        <b>{called}</b>
        <br />
        {madeAt === null ? 'It does not say when it was made. ' : `Made ${whenWords(madeAt)}. `}
        {checksum
          ? 'Its checksum fits, and all of it can be read.'
          : 'It is from an earlier Cadenza and carries no checksum; all of it can be read.'}
      </p>
      <table className={classes.inside}>
        <thead>
          <tr>
            <th scope="col">
              <span className={classes.hidden}>What</span>
            </th>
            <th scope="col">In the backup</th>
            <th scope="col">Here now</th>
          </tr>
        </thead>
        <tbody>
          {COUNTED.map(([label, count]) => (
            <tr key={label} data-differs={count(holds) !== count(here) || undefined}>
              <th scope="row">{label}</th>
              <td>{count(holds)}</td>
              <td>{count(here)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {wrong !== null && (
        <p role="alert" className={classes.warning}>
          {wrong}
        </p>
      )}
      <div className={classes.ways}>
        <div>
          <p>
            <b>In the place of all that is here.</b> What is here now is kept until the next restore and can be put
            back. Devices and passphrase stay as they are.
          </p>
          <Button loading={busy === 'restore'} disabled={busy !== null} onClick={() => void run('restore')}>
            Replace what is here
          </Button>
        </div>
        <div>
          <p>
            <b>Beside what is here.</b> Its shop comes in with its boards, rack, cuts and log, and is the one in use
            then. Yours is set aside whole and can be taken up again in the Shop. Species you have stay as you have
            them.
          </p>
          <Button
            variant="default"
            loading={busy === 'bringIn'}
            disabled={busy !== null || holds.shop === null}
            onClick={() => void run('bringIn')}
          >
            Bring its shop in
          </Button>
        </div>
      </div>
      <Button variant="subtle" color="gray" disabled={busy !== null} onClick={onClose}>
        Leave everything as it is
      </Button>
      {dialog}
    </Modal>
  );
}
