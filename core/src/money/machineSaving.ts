import type { Shop } from '../shop/shop.ts';
import { TOOL_NAMES, type ToolId } from '../shop/tools.ts';
import type { Operation } from '../steps/operation.ts';
import { toolOf } from '../steps/ways.ts';

/** What a machine would save on a board. */
export interface MachineSaving {
  tool: ToolId;
  /** Minutes of hands, all copies together. */
  minutes: number;
  /** Thickness that stays on the board, mm: what the way taken now takes beyond what the other does. */
  thickness: number;
  /** Numbers of the steps. */
  steps: number[];
}

/** What every machine that the shop does not have would save on a board: at each step the way with it against the way that is taken, where it is quicker. */
export function machineSavings(operations: readonly Operation[]): MachineSaving[] {
  const savings = new Map<ToolId, MachineSaving>();
  for (const { ways, machine, number, repeats } of operations) {
    const taken = ways.find((w) => w.name === machine && w.owned) ?? ways.find((w) => w.name === machine);
    if (!taken) continue;
    for (const way of ways) {
      if (way.owned || way.cannot !== null || way.minutes >= taken.minutes) continue;
      const tool = toolOf(way);
      const own = savings.get(tool) ?? { tool, minutes: 0, thickness: 0, steps: [] };
      own.minutes += (taken.minutes - way.minutes) * repeats;
      own.thickness += Math.max(0, taken.extra - way.extra);
      own.steps.push(number);
      savings.set(tool, own);
    }
  }
  return [...savings.values()].sort((a, b) => b.minutes - a.minutes);
}

/** What owning a machine comes to. */
export interface PayBack {
  tool: ToolId;
  name: string;
  price: number | null;
  /** Of an average board. */
  minutesEach: number;
  thicknessEach: number;
  minutesYear: number;
  /** Boards until it is paid for by the minutes it saves; null without a price or a wage, or where it saves nothing. */
  boards: number | null;
  /** The same in years. */
  years: number | null;
}

/**
 * After how many boards a machine is paid for by the work it saves.
 * @param each what it saves on each of some boards; boards on which it saves nothing count, with 0 @param boardsYear boards made in a year
 */
export function payBackOf(
  tool: ToolId,
  each: readonly Pick<MachineSaving, 'minutes' | 'thickness'>[],
  boardsYear: number,
  { wage, wished }: Pick<Shop['prices'], 'wage' | 'wished'>,
): PayBack {
  const mean = (of: (s: Pick<MachineSaving, 'minutes' | 'thickness'>) => number) =>
    each.length === 0 ? 0 : each.reduce((sum, s) => sum + of(s), 0) / each.length;
  const price = wished.find((w) => w.tool === tool)?.price ?? null;
  const minutesEach = mean((s) => s.minutes);
  const worth = wage === null ? 0 : (minutesEach / 60) * wage;
  const boards = price === null || worth <= 0 ? null : Math.ceil(price / worth - 1e-9);
  return {
    tool,
    name: TOOL_NAMES[tool],
    price,
    minutesEach,
    thicknessEach: mean((s) => s.thickness),
    minutesYear: minutesEach * boardsYear,
    boards,
    years: boards === null || boardsYear <= 0 ? null : boards / boardsYear,
  };
}
