import { Button, TextInput } from '@mantine/core';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { api } from '../../data/api.ts';
import { useSettledBoard } from '../../data/openBoard.tsx';
import { queryClient } from '../../data/queryClient.ts';
import { showProblem } from '../../shell/notices.tsx';
import classes from './bench.module.css';

/** Every step is done: the board goes into the log as it is now, and nothing that changes later changes it there. */
export function IntoTheLog() {
  const { input, id } = useSettledBoard();
  const navigate = useNavigate();
  const [forWhom, setForWhom] = useState('');
  const [busy, setBusy] = useState(false);
  const log = async () => {
    setBusy(true);
    try {
      const { entryOf } = await import('#core/log/entryOf.ts');
      const stored = await api.addLogEntry(entryOf(input, id, new Date().toISOString(), forWhom.trim()));
      void queryClient.invalidateQueries({ queryKey: ['log'] });
      void navigate(`/log/${stored.id}`);
    } catch (error) {
      showProblem(error);
      setBusy(false);
    }
  };
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
