import type { Placed } from './task.ts';
import type { WorkTask } from './work.ts';

/** Steps that can be begun, one machine and one setting at a time: what one setting serves is together. */
export interface SetUp {
  machine: string | null;
  /** The setting that they share; null for steps that share none. */
  setting: WorkTask['settings'][number] | null;
  steps: Placed[];
}

/** Settings are the same when they are told alike, mm. */
const SAME_MM = 0.1;

const settingKeys = ({
  machines,
  settings,
}: WorkTask): { key: string; machine: string; setting: SetUp['setting'] }[] => {
  const [machine] = machines;
  return machine === undefined
    ? []
    : settings.map((setting) => ({
        key: `${machine}\n${setting.label}\n${Math.round(setting.value.mm / SAME_MM)}`,
        machine,
        setting,
      }));
};

/**
 * Groups steps by the settings that several boards share, the largest groups first taken, each step in one group; groups and their steps in the order that is scheduled.
 * @param ready steps in the order they are scheduled in
 */
export function setUpsOf(ready: readonly Placed[]): SetUp[] {
  const sharing = new Map<string, { machine: string; setting: SetUp['setting']; steps: Placed[] }>();
  for (const placed of ready)
    for (const { key, machine, setting } of settingKeys(placed.task as WorkTask)) {
      const known = sharing.get(key) ?? { machine, setting, steps: [] };
      known.steps.push(placed);
      sharing.set(key, known);
    }
  const boardsOf = (steps: readonly Placed[]) => new Set(steps.map((s) => s.task.board)).size;
  const groups: SetUp[] = [];
  const taken = new Set<Placed>();
  for (const { machine, setting, steps } of [...sharing.values()].sort(
    (a, b) => boardsOf(b.steps) - boardsOf(a.steps),
  )) {
    const own = steps.filter((s) => !taken.has(s));
    if (boardsOf(own) < 2) continue;
    own.forEach((s) => taken.add(s));
    groups.push({ machine, setting, steps: own });
  }
  for (const placed of ready)
    if (!taken.has(placed)) groups.push({ machine: placed.task.machines[0] ?? null, setting: null, steps: [placed] });
  const place = new Map(ready.map((p, i) => [p, i]));
  const first = ({ steps }: SetUp) => Math.min(...steps.map((s) => place.get(s) ?? Infinity));
  return groups.sort((a, b) => first(a) - first(b));
}
