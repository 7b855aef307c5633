import { Button, TextInput } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { storedEntrySchema } from '#contract/log.ts';
import { api, ApiProblem } from '../../data/api.ts';
import { useSettledBoard } from '../../data/openBoard.tsx';
import { queryClient } from '../../data/queryClient.ts';
import { showProblem } from '../../shell/notices.tsx';
import classes from './bench.module.css';

const DAY = new Intl.DateTimeFormat(undefined, { dateStyle: 'long' });

/** Every step is done: the board goes into the log as it is now, once, and nothing that changes later changes it there. */
export function IntoTheLog() {
  const { input, id } = useSettledBoard();
  const navigate = useNavigate();
  const [forWhom, setForWhom] = useState('');
  const [busy, setBusy] = useState(false);
  const known = useQuery({ queryKey: ['log', 'of board', id], queryFn: () => api.log({ board: id }) });
  const open = (entry: string) => {
    void queryClient.invalidateQueries({ queryKey: ['log'] });
    void navigate(`/log/${entry}`);
  };
  const log = async () => {
    setBusy(true);
    try {
      const { entryOf } = await import('#core/log/entryOf.ts');
      open((await api.addLogEntry(entryOf(input, id, new Date().toISOString(), forWhom.trim()))).id);
    } catch (error) {
      // Another device was first: its page is the one.
      if (error instanceof ApiProblem && error.code === 'in-the-log')
        return open(storedEntrySchema.parse(error.current).id);
      showProblem(error);
      setBusy(false);
    }
  };
  const [there] = known.data?.entries ?? [];
  if (there)
    return (
      <section className={classes.inspect} aria-label="Every step is done">
        <h3>Every step is done</h3>
        <p>
          It is in the log since {DAY.format(new Date(there.finishedAt))}.{' '}
          <Link to={`/log/${there.id}`}>Open its page</Link>
        </p>
      </section>
    );
  return (
    <section className={classes.inspect} aria-label="Every step is done">
      <h3>Every step is done</h3>
      <form
        className={classes.other}
        onSubmit={(event) => {
          event.preventDefault();
          void log();
        }}
      >
        <TextInput
          size="lg"
          label="For whom is it?"
          maxLength={80}
          value={forWhom}
          onChange={(event) => setForWhom(event.currentTarget.value)}
        />
        <Button type="submit" size="lg" loading={busy}>
          Take it into the log
        </Button>
      </form>
    </section>
  );
}
