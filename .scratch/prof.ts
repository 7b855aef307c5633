import { plainBoard } from '../core/src/plan/planArbitrary.ts';
import { firstSchedule } from '../core/src/schedule/improve.ts';
import { shopProblem } from '../core/src/schedule/shopProblem.ts';
import { latestStarts } from '../core/src/schedule/bound.ts';
const B = 'http://127.0.0.1:4300/api';
const n = ((await (await fetch(B + '/schedule')).json()) as any).boards.length;
for (let i = n; i < 34; i++) await fetch(B + '/boards', { method: 'POST', headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(plainBoard({ name: `Board ${i}`, length: 300 + i, width: 180, thickness: 30, due: { day: '2030-01-01', time: null, cured: true } } as any, [45, 45, 45, 45, 45])) });
let t = performance.now();
await (await fetch(B + '/schedule')).text();
console.log('first', (performance.now() - t).toFixed(0));
for (let k = 0; k < 3; k++) {
  t = performance.now();
  const text = await (await fetch(B + '/schedule')).text();
  const a = performance.now() - t;
  t = performance.now();
  const work = JSON.parse(text);
  const b = performance.now() - t;
  t = performance.now();
  const p = shopProblem(work.boards.map((x: any) => ({ work: x.work, due: x.due })), work.shop, work.zone, Math.floor(Date.parse(work.now) / 60000));
  const c = performance.now() - t;
  t = performance.now();
  const s = firstSchedule(p, work.schedule.order);
  const d = performance.now() - t;
  t = performance.now();
  latestStarts(p);
  console.log('fetch', a.toFixed(0), 'size', text.length, 'parse', b.toFixed(0), 'problem', c.toFixed(0), 'days', p.people[0]!.open.length, 'schedule', d.toFixed(0), 'latest', (performance.now() - t).toFixed(0), work.boards.length, p.tasks.length, s.placed.size, 'kept', work.schedule.order.length);
}
