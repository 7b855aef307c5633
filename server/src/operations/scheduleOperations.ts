import { timingSafeEqual } from 'node:crypto';
import { calendarAddressSchema, scheduleChangeSchema, shopWorkSchema } from '#contract/schedule.ts';
import { certain } from '#core/lists/there.ts';
import { firstSchedule } from '#core/schedule/improve.ts';
import { shopProblem } from '#core/schedule/shopProblem.ts';
import { scheduleEvents } from '#core/templates/scheduleEvents.ts';
import { shopCalendar } from '#core/templates/shopCalendar.ts';
import type { Operation } from '../operation.ts';
import { notFound, validated } from '../problem.ts';
import { NOTHING_TO_SAY, reply } from '../reply.ts';
import { closeCalendar, newCalendarSecret, readSchedule, saveSchedule } from '../stores/scheduleStore.ts';
import { shopWork } from '../stores/workStore.ts';

/** Calendars read no units from anybody. */
const METRIC = { system: 'metric', denominator: 32, metricStep: 0.1 } as const;

/** Takes as long whatever is wrong with it: nobody guesses a secret letter by letter. */
function sameText(a: string, b: string): boolean {
  const [one, other] = [Buffer.from(a), Buffer.from(b)];
  return one.length === other.length && timingSafeEqual(one, other);
}

/** The work of the whole shop. */
export const scheduleOperations: readonly Operation[] = [
  {
    method: 'get',
    path: '/schedule',
    summary: 'All that is to be done in the shop, and the order that was kept',
    ok: [200, 'The work', shopWorkSchema],
    errors: [],
    run: async (db) => reply(await shopWork(db, Date.now())),
  },
  {
    method: 'put',
    path: '/schedule',
    touches: ['schedule'],
    summary: 'Keep an order of work, and which boards are taken up or wait',
    ok: [200, 'The work', shopWorkSchema],
    errors: [400, 409],
    input: scheduleChangeSchema,
    run: async (tx, { body }) => {
      const { version, schedule } = validated(scheduleChangeSchema, body);
      await saveSchedule(tx, version, schedule);
      return reply(await shopWork(tx, Date.now()));
    },
  },
  {
    method: 'post',
    path: '/schedule/calendar',
    touches: ['schedule'],
    summary: 'A new address at which calendars can ask for the work; the one before is closed',
    ok: [200, 'The address', calendarAddressSchema],
    errors: [],
    input: null,
    run: async (tx) => reply({ path: `/api/calendar/${await newCalendarSecret(tx)}.ics` }),
  },
  {
    method: 'post',
    path: '/schedule/calendar/close',
    touches: ['schedule'],
    summary: 'Close the address at which calendars can ask',
    ok: [204, 'Closed'],
    errors: [],
    input: null,
    run: async (tx) => {
      await closeCalendar(tx);
      return NOTHING_TO_SAY;
    },
  },
  {
    method: 'get',
    path: '/calendar/{secret}',
    summary: 'The work of the shop as an iCalendar file, for whoever knows the address',
    ok: [200, 'An iCalendar file'],
    errors: [404],
    run: async (db, { params }) => {
      const asked = certain(params.secret, 'the secret of the address').replace(/\.ics$/, '');
      const { secret } = await readSchedule(db);
      // Nobody is told whether there is a calendar at all.
      if (secret === null || !sameText(secret, asked)) throw notFound('This calendar');
      const work = await shopWork(db, Date.now());
      const made = Date.parse(work.now);
      const boards = work.boards.map((b) => ({ work: b.work, due: b.due }));
      const problem = shopProblem(boards, work.shop, work.zone, made / 60_000);
      const events = scheduleEvents(
        firstSchedule(problem, work.schedule.order),
        work.boards.map((b) => b.work),
        METRIC,
      );
      return {
        status: 200,
        json: shopCalendar(work.shop.name, events, made),
        headers: { 'Content-Type': 'text/calendar; charset=utf-8', 'Cache-Control': 'no-store' },
      };
    },
  },
];
