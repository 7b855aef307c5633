import { Button } from '@mantine/core';
import { IconCalendarDown, IconId } from '@tabler/icons-react';
import { Link } from 'react-router';
import { coatMinutes } from '#core/finish/coats.ts';
import { dueState } from '#core/finish/dates.ts';
import { dueMoment } from '#core/schedule/due.ts';
import { useSettledBoard } from '../../data/openBoard.tsx';
import { zoneOf } from '../../quantities/zone.ts';
import { DueFields } from '../../planning/DueFields.tsx';
import { saveFile } from '../../data/saveFile.ts';
import { showProblem } from '../../shell/notices.tsx';
import classes from './FinishPlace.module.css';
import { useFinishDates } from './useFinishDates.ts';

const DAY = new Intl.DateTimeFormat(undefined, { weekday: 'short', day: 'numeric', month: 'short', year: 'numeric' });
const MINUTE_MS = 60_000;

/** The day of a moment by the calendar on this wall, such as 2026-12-24. */
function dayOf(ms: number): string {
  const day = new Date(ms);
  const two = (n: number) => String(n).padStart(2, '0');
  return `${day.getFullYear()}-${two(day.getMonth() + 1)}-${two(day.getDate())}`;
}

/** When it can be touched, given and used, what a day it is due allows, and the owner's calendar. */
export function FinishDates() {
  const { id, board, plan } = useSettledBoard();
  const dates = useFinishDates();
  const { now, first } = dates;
  const due = board.due === null ? null : dueMoment(board.due, zoneOf(plan.shop)) * MINUTE_MS;
  const state = due === null ? null : dueState(dates, due);
  const day = (ms: number) => (Number.isFinite(ms) ? DAY.format(new Date(ms)) : 'nobody comes to do it');
  const others = plan.shop.finishes.filter(
    (f) =>
      due !== null &&
      first + coatMinutes(f).used * MINUTE_MS <= due &&
      !plan.finish.coatings.some((c) => c.finish.id === f.id),
  );
  const calendar = async () => {
    try {
      const { careCalendar } = await import('#core/templates/careCalendar.ts');
      const last = plan.finish.coatings.at(-1)?.finish;
      const text = careCalendar({
        id,
        board: board.name,
        shop: plan.shop.name,
        used: dates.used > dates.handled ? dayOf(dates.used) : null,
        renewals: dates.renewals.map(dayOf),
        how: last ? `${last.renewWith}.` : '',
        made: now,
      });
      saveFile(new Blob([text], { type: 'text/calendar' }), `${board.name} care`, 'ics');
    } catch (error) {
      showProblem(error);
    }
  };
  return (
    <section>
      <h2>When</h2>
      <dl className={classes.dates}>
        <dt>First coat</dt>
        <dd>{day(first)}</dd>
        <dt>Can be handled and given</dt>
        <dd>{day(dates.handled)}</dd>
        <dt>May be used</dt>
        <dd>{day(dates.used)}</dd>
        {dates.renewals[0] !== undefined && Number.isFinite(dates.renewals[0]) && (
          <>
            <dt>First renewed</dt>
            <dd>{day(dates.renewals[0])}</dd>
          </>
        )}
      </dl>
      <div className={classes.row}>
        <DueFields />
        <Button
          size="sm"
          variant="default"
          leftSection={<IconCalendarDown size={16} />}
          disabled={!Number.isFinite(dates.used)}
          onClick={() => void calendar()}
        >
          Calendar for the owner
        </Button>
        <Button
          size="sm"
          variant="default"
          component={Link}
          to="../care"
          relative="path"
          leftSection={<IconId size={16} />}
        >
          Care card
        </Button>
      </div>
      {state === 'inTime' && due !== null && due >= now && <p>It is ready by then, hardened too.</p>}
      {state === 'uncured' && (
        <p className={classes.bad}>
          It can be given by then, and must not be used before {day(dates.used)}: the care card says so.
        </p>
      )}
      {state === 'late' && (
        <p className={classes.bad}>It is not dry by then: the last coat can be handled on {day(dates.handled)}.</p>
      )}
      {(state === 'uncured' || state === 'late') && (
        <p>
          {others.length > 0
            ? `Hardened by then would be: ${others.map((f) => f.name.toLowerCase()).join(', ')}.`
            : 'No finish of the shop would be hardened by then.'}
        </p>
      )}
    </section>
  );
}
