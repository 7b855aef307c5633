import { Button, NativeSelect, TextInput } from '@mantine/core';
import { IconPrinter } from '@tabler/icons-react';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import type { EntryChange, StoredEntry } from '#contract/log.ts';
import { factsThatHold } from '#core/facts/factsThatHold.ts';
import type { Care } from '#core/log/entry.ts';
import { api, ApiProblem } from '../../data/api.ts';
import { queryClient } from '../../data/queryClient.ts';
import { showProblem, showUndo } from '../../shell/notices.tsx';
import { FactWordsOf } from '../bench/FactWords.tsx';
import { BenchPicture } from '../bench/BenchPicture.tsx';
import { ComesBack } from './ComesBack.tsx';
import classes from './log.module.css';
import { LogFace } from './LogFace.tsx';
import { LogFigures } from './LogFigures.tsx';

const DAY = new Intl.DateTimeFormat(undefined, { dateStyle: 'medium' });
const CARE: Readonly<Record<Care['what'], string>> = {
  oiled: 'Oiled again',
  sanded: 'Sanded again',
  repaired: 'Repaired',
};

/** One finished board, as it was, and what was done to it since. */
export function LogEntryPlace() {
  const { id = '' } = useParams();
  const navigate = useNavigate();
  const { data, error } = useQuery({ queryKey: ['log entry', id], queryFn: () => api.logEntry(id) });
  if (error)
    return (
      <div className={classes.page}>
        <p role="alert">{error.message}</p>
        <Link to="/log">Back to the log</Link>
      </div>
    );
  if (!data) return <div className={classes.page} aria-busy="true" />;
  const { entry } = data;
  const again = async () => {
    try {
      const { id: made } = await api.addBoard({ ...entry.board, versions: [], accepted: [] });
      void navigate(`/boards/${made}/brief`);
    } catch (problem) {
      showProblem(problem);
    }
  };
  const remove = async () => {
    try {
      await api.removeLogEntry(id);
      void queryClient.invalidateQueries({ queryKey: ['log'] });
      showUndo(`${entry.board.name} is out of the log.`, async () => {
        await api.restoreLogEntry(id);
        void queryClient.invalidateQueries({ queryKey: ['log'] });
      });
      void navigate('/log');
    } catch (problem) {
      showProblem(problem);
    }
  };
  const held = factsThatHold(entry.facts);
  const told = held.filter((f) => f.kind !== 'done' && f.kind !== 'picture');
  const pictures = held.flatMap((f) => (f.kind === 'picture' ? [f.picture] : []));
  return (
    <article className={classes.page}>
      <div className={classes.tools}>
        <h1>{entry.board.name}</h1>
        <Button onClick={() => void again()}>Make it again</Button>
        <Button variant="default" leftSection={<IconPrinter size={16} />} onClick={() => window.print()}>
          Print
        </Button>
        <Button variant="default" onClick={() => void remove()}>
          Take it out of the log
        </Button>
        <Link to="/log">All boards of the log</Link>
      </div>
      <div className={classes.entry}>
        <div>
          <LogFace entry={entry} />
          {entry.boardId !== null &&
            pictures.map((picture) => <BenchPicture key={picture} board={entry.boardId ?? ''} picture={picture} />)}
        </div>
        <LogFigures entries={[entry]} />
      </div>
      <section>
        <h2>What happened</h2>
        {told.length === 0 && <p>Nothing was noted but the steps.</p>}
        <ul>
          {told.map((fact) => (
            <li key={fact.id}>
              <FactWordsOf fact={fact} board={entry.board} />
            </li>
          ))}
        </ul>
      </section>
      <Since stored={data} />
      <ComesBack entry={entry} />
    </article>
  );
}

/** Whose it is, and what was done to it since it was handed over. */
function Since({ stored }: { stored: StoredEntry }) {
  const { id, version, entry } = stored;
  const [what, setWhat] = useState<Care['what']>('oiled');
  const [note, setNote] = useState('');
  const [forWhom, setForWhom] = useState(entry.forWhom);
  const change = async (more: Omit<EntryChange, 'version'>) => {
    try {
      queryClient.setQueryData(['log entry', id], await api.changeLogEntry(id, { version, ...more }));
      void queryClient.invalidateQueries({ queryKey: ['log'] });
      return true;
    } catch (problem) {
      if (problem instanceof ApiProblem && problem.code === 'stale')
        void queryClient.invalidateQueries({ queryKey: ['log entry', id] });
      showProblem(problem);
      return false;
    }
  };
  return (
    <section className={classes.since}>
      <h2>Since then</h2>
      <ul>
        {entry.care.map((c) => (
          <li key={c.at}>
            {DAY.format(new Date(c.at))}: {CARE[c.what]}
            {c.note && `, ${c.note}`}
          </li>
        ))}
      </ul>
      <form
        className={classes.row}
        onSubmit={(event) => {
          event.preventDefault();
          void change({ care: { at: new Date().toISOString(), what, note: note.trim() } }).then(
            (ok) => ok && setNote(''),
          );
        }}
      >
        <NativeSelect
          label="It came back and was"
          value={what}
          onChange={(event) => setWhat(event.currentTarget.value as Care['what'])}
          data={Object.entries(CARE).map(([value, label]) => ({ value, label }))}
        />
        <TextInput label="Note" maxLength={300} value={note} onChange={(event) => setNote(event.currentTarget.value)} />
        <Button type="submit" variant="default">
          Add
        </Button>
      </form>
      <form
        className={classes.row}
        onSubmit={(event) => {
          event.preventDefault();
          void change({ forWhom: forWhom.trim() });
        }}
      >
        <TextInput
          label="For whom"
          maxLength={80}
          value={forWhom}
          onChange={(event) => setForWhom(event.currentTarget.value)}
        />
        <Button type="submit" variant="default" disabled={forWhom.trim() === entry.forWhom}>
          Keep
        </Button>
      </form>
    </section>
  );
}
