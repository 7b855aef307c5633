import { entryOf } from '../lists/there.ts';

/** A task of a network: how long it takes and what must be over before it. */
export interface NetworkTask {
  id: string;
  minutes: number;
  after: readonly string[];
}

/** Where a task lies between everything before and after it, minutes from the beginning. */
export interface NetworkTimes {
  earliest: number;
  latest: number;
  /** How long it may be late without making everything late. */
  slack: number;
}

/**
 * Earliest and latest starts by the critical path method (forward and backward pass). Tasks must come after what they depend on.
 * @throws Error when a task depends on one that does not come before it
 */
export function criticalPath(tasks: readonly NetworkTask[]): Map<string, NetworkTimes> {
  const byId = new Map(tasks.map((t) => [t.id, t]));
  const followers = new Map<string, NetworkTask[]>();
  for (const task of tasks) for (const id of task.after) followers.set(id, [...(followers.get(id) ?? []), task]);
  const earliest = new Map<string, number>();
  for (const task of tasks) {
    earliest.set(
      task.id,
      Math.max(
        0,
        ...task.after.map((id) => {
          const before = byId.get(id);
          const start = earliest.get(id);
          if (!before || start === undefined) throw new Error(`${task.id} comes before ${id}, on which it depends.`);
          return start + before.minutes;
        }),
      ),
    );
  }
  const end = Math.max(0, ...tasks.map((t) => entryOf(earliest, t.id) + t.minutes));
  const latest = new Map<string, number>();
  for (const task of [...tasks].reverse()) {
    latest.set(
      task.id,
      Math.min(end, ...(followers.get(task.id) ?? []).map((t) => entryOf(latest, t.id))) - task.minutes,
    );
  }
  return new Map(
    tasks.map((t) => [
      t.id,
      {
        earliest: entryOf(earliest, t.id),
        latest: entryOf(latest, t.id),
        slack: entryOf(latest, t.id) - entryOf(earliest, t.id),
      },
    ]),
  );
}
