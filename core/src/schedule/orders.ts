import { entryOf } from '../lists/there.ts';
import type { ScheduleProblem, Task } from './task.ts';

/** What is still to do after a task until its board is dry, itself included: hands and waits, minutes. */
export function tailsOf(tasks: readonly Task[]): Map<string, number> {
  const tails = new Map<string, number>();
  const after = new Map<string, number>();
  for (let i = tasks.length - 1; i >= 0; i -= 1) {
    const task = tasks[i] as Task;
    const tail = task.minutes + task.wait + (after.get(task.id) ?? 0);
    tails.set(task.id, tail);
    for (const id of task.after) after.set(id, Math.max(after.get(id) ?? 0, tail));
  }
  return tails;
}

/** How urgent tasks are, the smallest number first. */
export type Rule = (task: Task) => number;

/** Rules of thumb that orders begin with (common practice in project scheduling: latest start, longest tail, earliest due date board by board, and as they come). */
export function rulesFor(problem: ScheduleProblem): Rule[] {
  const tails = tailsOf(problem.tasks);
  const place = new Map(problem.tasks.map((t, i) => [t.id, i]));
  const dueOf = (task: Task): number => {
    const due = problem.dues.get(task.board);
    return due ? due.at - (due.cured ? task.cure : 0) : Infinity;
  };
  const last = problem.from + 60 * 24 * 365;
  const boards = [...new Set(problem.tasks.map((t) => t.board))];
  const byDue = new Map(
    boards
      .map((board, i) => ({ board, i, due: problem.dues.get(board)?.at ?? Infinity }))
      .sort((a, b) => a.due - b.due || a.i - b.i)
      .map(({ board }, i) => [board, i]),
  );
  return [
    (t) => Math.min(dueOf(t), last) - entryOf(tails, t.id),
    (t) => -entryOf(tails, t.id),
    (t) => entryOf(byDue, t.board) * 1e6 + entryOf(place, t.id),
    (t) => entryOf(place, t.id),
  ];
}

/** An order by a rule in which each task comes after those it depends on. Ties as tasks are given. */
export function orderBy({ tasks }: Pick<ScheduleProblem, 'tasks'>, rule: Rule): string[] {
  const place = new Map(tasks.map((t, i) => [t.id, i]));
  const rank = new Map(tasks.map((t) => [t.id, rule(t)]));
  const waitsFor = new Map(tasks.map((t) => [t.id, t.after.length]));
  const followers = new Map<string, Task[]>();
  for (const task of tasks) for (const id of task.after) followers.set(id, [...(followers.get(id) ?? []), task]);
  const ready = tasks.filter((t) => t.after.length === 0);
  const order: string[] = [];
  while (ready.length > 0) {
    let best = 0;
    for (let i = 1; i < ready.length; i += 1) {
      const [a, b] = [ready[i] as Task, ready[best] as Task];
      const differs = entryOf(rank, a.id) - entryOf(rank, b.id);
      if (differs < 0 || (differs === 0 && entryOf(place, a.id) < entryOf(place, b.id))) best = i;
    }
    const [task] = ready.splice(best, 1) as [Task];
    order.push(task.id);
    for (const next of followers.get(task.id) ?? []) {
      const left = entryOf(waitsFor, next.id) - 1;
      waitsFor.set(next.id, left);
      if (left === 0) ready.push(next);
    }
  }
  return order;
}

/** An order from before, made fit for the tasks that there are now: what is new comes where its rule puts it among them. */
export function orderLike(problem: ScheduleProblem, before: readonly string[], rule: Rule): string[] {
  const place = new Map(before.map((id, i) => [id, i]));
  const known = problem.tasks.filter((t) => place.has(t.id));
  if (known.length === 0) return orderBy(problem, rule);
  // A new task goes right before the first known one that is less urgent.
  const ranked = known.map((t) => ({ at: entryOf(place, t.id), rank: rule(t) })).sort((a, b) => a.at - b.at);
  return orderBy(problem, (task) => {
    const own = place.get(task.id);
    if (own !== undefined) return own;
    const next = ranked.find((r) => r.rank > rule(task));
    return next ? next.at - 0.5 : before.length;
  });
}
