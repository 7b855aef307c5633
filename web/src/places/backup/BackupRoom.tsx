import { Button, Checkbox, FileButton } from '@mantine/core';
import { IconCopy, IconDownload, IconHistory, IconUpload } from '@tabler/icons-react';
import { useQuery } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { copiesChangeSchema, type Copies, type Inside } from '#contract/backup.ts';
import { useConfirmed } from '../../confirm/useConfirmed.tsx';
import { ALL_OF_IT, backups, copiesQuery } from '../../data/backups.ts';
import { trouble } from '../../data/queries.ts';
import { queryClient } from '../../data/queryClient.ts';
import { whenWords } from '../../quantities/moment.ts';
import { NumberField } from '../../quantities/plainFields.tsx';
import { showProblem, showWord } from '../../shell/notices.tsx';
import { useLive } from '../../shell/useLive.ts';
import classes from './BackupRoom.module.css';
import { InsideDialog } from './InsideDialog.tsx';
import { sizeWords } from './sizeWords.ts';

/** Everything that is stored goes out, is copied every day, and comes back. */
export function BackupRoom() {
  const copies = useQuery(copiesQuery);
  const { may } = useLive();
  const problem = trouble(copies);
  if (may === 'look') return <p>This device may look and change nothing, so backups are made on another one.</p>;
  if (copies.data) return <Known copies={copies.data} />;
  if (copies.error)
    return (
      <p role="alert">
        This server makes no backups. Start it with npm start, or make them in a terminal: npm run backup.
      </p>
    );
  return (
    <p role={problem ? 'alert' : undefined}>{problem ? `${problem.message} Cadenza keeps trying.` : 'Loading …'}</p>
  );
}

/** What is being done, so that nothing else is begun meanwhile. */
type Busy = 'take' | 'copy' | 'look' | 'back' | null;

function Known({ copies }: { copies: Copies }) {
  const [busy, setBusy] = useState<Busy>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const { confirmed, dialog } = useConfirmed();
  const [inside, setInside] = useState<{ called: string; inside: Inside } | null>(null);
  const attempt = async (what: Exclude<Busy, null>, work: () => Promise<unknown>) => {
    setBusy(what);
    setWrong(null);
    try {
      await work();
    } catch (error) {
      setWrong((error as Error).message);
      void queryClient.invalidateQueries({ queryKey: copiesQuery.queryKey });
    } finally {
      setBusy(null);
    }
  };
  const take = (now: Copies) => queryClient.setQueryData(copiesQuery.queryKey, now);
  const stop = useRef(new AbortController());
  const look = (called: string, work: (stop: AbortSignal) => Promise<Inside>) =>
    attempt('look', async () => {
      stop.current = new AbortController();
      const { signal } = stop.current;
      setInside({ called, inside: await confirmed(() => work(signal)) });
    });
  const change = async (changed: Partial<Pick<Copies, 'daily' | 'keep'>>) => {
    try {
      take(await backups.change({ daily: copies.daily, keep: copies.keep, ...changed }));
    } catch (error) {
      showProblem(error);
    }
  };
  return (
    <>
      {wrong !== null && (
        <p role="alert" className={classes.warning}>
          {wrong}
        </p>
      )}
      <section className={classes.part} aria-labelledby="take-out">
        <h3 id="take-out">Take everything out</h3>
        <p>
          One file with all that is stored: boards and their history, rack, cuts, what happened at the bench, pictures,
          log, shops set aside. The passphrase and the devices that are let in are not in it.
        </p>
        <Button
          leftSection={<IconDownload size={17} />}
          disabled={busy !== null}
          onClick={() =>
            void attempt('take', async () => {
              await confirmed(() => backups.mayTakeOut());
              window.location.assign(ALL_OF_IT);
            })
          }
        >
          Download all
        </Button>
      </section>

      <section className={classes.part} aria-labelledby="every-day">
        <h3 id="every-day">Copies every day</h3>
        {(copies.old || copies.trouble !== null) && (
          <p role="alert" className={classes.warning}>
            {copies.old && `The last good copy is too old: ${lastWords(copies)}. `}
            {copies.trouble !== null && `The last one could not be made. ${copies.trouble}`}
          </p>
        )}
        <div className={classes.line}>
          <Checkbox
            label="Make a copy every day"
            checked={copies.daily}
            onChange={(e) => void change({ daily: e.currentTarget.checked })}
          />
          <NumberField
            field="Copies kept"
            value={copies.keep}
            schema={copiesChangeSchema.shape.keep}
            onCommit={(keep) => void change({ keep })}
          />
          <Button
            variant="default"
            leftSection={<IconCopy size={17} />}
            loading={busy === 'copy'}
            disabled={busy !== null}
            onClick={() =>
              void attempt('copy', async () => {
                take(await backups.copyNow());
                showWord('The copy is made, and was read again.');
              })
            }
          >
            Copy now
          </Button>
        </div>
        <p>
          They lie in <code>{copies.folder}</code> on the machine that serves Cadenza. Another disk is safer: start
          Cadenza with CADENZA_COPIES and a folder there. Last good copy: {lastWords(copies)}.
        </p>
        {copies.copies.length > 0 && (
          <ul className={classes.copies}>
            {copies.copies.map(({ name, madeAt, size }) => (
              <li key={name}>
                <span>
                  <b>{whenWords(madeAt)}</b>, {sizeWords(size)}
                </span>
                <Button
                  size="compact-sm"
                  variant="default"
                  disabled={busy !== null}
                  aria-label={`Look inside the copy of ${whenWords(madeAt)}`}
                  onClick={() =>
                    void look(`The copy of ${whenWords(madeAt)}`, (signal) => backups.lookAtCopy(name, signal))
                  }
                >
                  Look inside
                </Button>
              </li>
            ))}
          </ul>
        )}
      </section>

      <section className={classes.part} aria-labelledby="bring-back">
        <h3 id="bring-back">Bring back, or bring along</h3>
        <p>
          Open a backup of this Cadenza or of another one. You see what is in it first; then it takes the place of what
          is here, or its shop comes in beside yours.
        </p>
        <div className={classes.line}>
          <FileButton
            accept=".sql,application/sql"
            onChange={(file) => file && void look(file.name, (signal) => backups.look(file, signal))}
          >
            {(props) => (
              <Button
                {...props}
                variant="default"
                leftSection={<IconUpload size={17} />}
                disabled={busy !== null}
                loading={busy === 'look'}
              >
                Open a backup …
              </Button>
            )}
          </FileButton>
          {busy === 'look' && (
            <Button variant="default" onClick={() => stop.current.abort()}>
              Stop reading it
            </Button>
          )}
          {copies.canGoBack && (
            <Button
              variant="default"
              leftSection={<IconHistory size={17} />}
              loading={busy === 'back'}
              disabled={busy !== null}
              onClick={() =>
                void attempt('back', async () => {
                  await confirmed(() => backups.back());
                  window.location.assign('/boards');
                })
              }
            >
              Put back what was here before the last restore
            </Button>
          )}
        </div>
      </section>
      {dialog}
      {inside && <InsideDialog {...inside} onClose={() => setInside(null)} />}
    </>
  );
}

const lastWords = ({ lastGoodAt }: Copies): string => (lastGoodAt === null ? 'none yet' : whenWords(lastGoodAt));
