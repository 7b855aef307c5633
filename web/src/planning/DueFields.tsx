import { Checkbox, TextInput } from '@mantine/core';
import { useState } from 'react';
import { dueMoment } from '#core/schedule/due.ts';
import { useOpenBoard } from '../data/openBoard.tsx';
import { useClock } from '../quantities/useClock.ts';
import { zoneOf } from '../quantities/zone.ts';
import classes from './DueFields.module.css';

const MINUTE_MS = 60_000;
const TIME = /^([01]\d|2[0-3]):[0-5]\d$/;

/** When a board is wanted: a day, a time if it matters, and whether it shall be hardened by then. */
export function DueFields() {
  const { board, session, input } = useOpenBoard();
  const now = useClock(MINUTE_MS);
  const [problem, setProblem] = useState<string | null>(null);
  const { due } = board;
  const setDay = (day: string) => {
    if (day === '') {
      setProblem(null);
      return session.edit((b) => ({ ...b, due: null }));
    }
    if (!/^\d{4}-\d{2}-\d{2}$/.test(day) || Number.isNaN(Date.parse(day)))
      return setProblem('The day it is due must be a day such as 2026-12-24.');
    setProblem(null);
    session.edit((b) => ({ ...b, due: { time: null, cured: true, ...b.due, day } }));
  };
  const isPast = due !== null && dueMoment(due, zoneOf(input.shop)) * MINUTE_MS < now;
  return (
    <div className={classes.fields} role="group" aria-label="When it is wanted">
      <TextInput
        size="sm"
        type="date"
        label="It is due"
        value={due?.day ?? ''}
        error={problem ?? (isPast ? 'That day is past.' : null)}
        onChange={(event) => setDay(event.currentTarget.value)}
      />
      {due && (
        <>
          <TextInput
            size="sm"
            type="time"
            label="By"
            value={due.time ?? ''}
            onChange={(event) => {
              const { value } = event.currentTarget;
              session.edit((b) => ({ ...b, due: b.due && { ...b.due, time: TIME.test(value) ? value : null } }));
            }}
          />
          <Checkbox
            label="Hardened by then, to be used"
            checked={due.cured}
            onChange={(event) => {
              const { checked } = event.currentTarget;
              session.edit((b) => ({ ...b, due: b.due && { ...b.due, cured: checked } }));
            }}
          />
        </>
      )}
    </div>
  );
}
