import {
  COMPLETE_HEADER,
  NOW_HEADER,
  calendarAddressSchema,
  scheduleChangeSchema,
  shopWorkQuerySchema,
  shopWorkSchema,
  storedScheduleSchema,
  type ShopWork,
} from '#contract/schedule.ts';
import { certain } from '#core/lists/there.ts';
import { firstSchedule } from '#core/schedule/improve.ts';
import { shopProblem } from '#core/schedule/shopProblem.ts';
import { scheduleEvents } from '#core/templates/scheduleEvents.ts';
import { shopCalendar } from '#core/templates/shopCalendar.ts';
import { queryOf, type Operation } from '../operation.ts';
import { notFound, validated } from '../problem.ts';
import { NOTHING_TO_SAY, reply } from '../reply.ts';
import { closeCalendar, newCalendarSecret, opensCalendar } from '../stores/calendarStore.ts';
import { saveSchedule } from '../stores/scheduleStore.ts';
import { shopWork } from '../stores/workStore.ts';

/** Calendars read no units from anybody. */
const METRIC = { system: 'metric', denominator: 32, metricStep: 0.1 } as const;

/** Whoever opens Today sees what is known within this, ms; and whoever waits for all of it waits no longer than that. */
const AT_ONCE_MS = 200;
const PATIENCE_MS = 10_000;

/** The work of the whole shop. */
export const scheduleOperations: readonly Operation[] = [
  {
    method: 'get',
    path: '/schedule',
    summary: 'All that is to be done in the shop, and the order that was kept',
    ok: [200, 'The work', shopWorkSchema],
    errors: [400],
    query: shopWorkQuerySchema,
    run: async (db, call, { work, gone }) => {
      const now = Date.now();
      const { complete } = queryOf(shopWorkQuerySchema, call);
      const upToDate = await work.settle(now, complete === 'true' ? PATIENCE_MS : AT_ONCE_MS, gone);
      const { tag, write } = await shopWork(db, now, upToDate);
      return {
        status: 200,
        json: null,
        write,
        headers: { ETag: tag, [NOW_HEADER]: new Date(now).toISOString(), [COMPLETE_HEADER]: String(upToDate) },
      };
    },
  },
  {
    method: 'put',
    path: '/schedule',
    touches: ['schedule'],
    summary: 'Keep an order of work, and which boards are taken up or wait',
    ok: [200, 'What is decided', storedScheduleSchema],
    errors: [400, 409],
    input: scheduleChangeSchema,
    run: async (tx, { body }) => {
      const { version, schedule } = validated(scheduleChangeSchema, body);
      return reply(await saveSchedule(tx, version, schedule));
    },
  },
  {
    method: 'post',
    path: '/schedule/calendar',
    touches: ['schedule'],
    summary: 'A new address at which calendars can ask for the work; the one before is closed',
    ok: [200, 'The address', calendarAddressSchema],
    errors: [409],
    secret: true,
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
    inWorker: true,
    run: async (db, { params }, { work: planned }) => {
      const asked = certain(params.secret, 'the secret of the address').replace(/\.ics$/, '');
      // Nobody is told whether there is a calendar at all.
      if (!(await opensCalendar(db, asked))) throw notFound('This calendar');
      const made = Date.now();
      const upToDate = await planned.settle(made, PATIENCE_MS);
      const work = JSON.parse((await shopWork(db, made, upToDate)).write()) as ShopWork;
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
