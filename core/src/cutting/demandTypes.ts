import { firstOf } from '../lists/there.ts';
import type { StripDemand, Way } from './cutPlan.ts';

/**
 * Strips that any plan may exchange for one another, or a group of neighbours that must come side by side from one blank. `members` has
 * one entry for each strip or group still wanted: the strips of it, in order.
 */
export interface DemandType {
  length: number;
  /** Ways the section may lie; for a group, the one way of each of its strips. */
  ways: readonly (readonly Way[])[];
  /** Thickness each way needs. */
  thickness: readonly number[];
  from: ReadonlySet<string> | null;
  members: StripDemand[][];
  /** Strips in each member. */
  size: number;
}

/** Groups demands of one species into types. */
export function demandTypes(demands: readonly StripDemand[]): DemandType[] {
  const groups = new Map<string, StripDemand[]>();
  for (const demand of demands) {
    // A spare replaces any strip like it; it belongs to no group.
    const key =
      demand.together === null || demand.spare > 0 ? null : `${demand.board}/${demand.copy}/${demand.together}`;
    groups.set(key ?? `${demand.board}/${demand.copy}/${demand.strip}/${demand.spare}`, [
      ...(key === null ? [] : (groups.get(key) ?? [])),
      demand,
    ]);
  }
  const types = new Map<string, DemandType>();
  for (const group of groups.values()) {
    const members = group.sort((a, b) => a.strip - b.strip);
    const first = firstOf(members);
    const ways: Way[][] = members.length === 1 ? first.ways.map((way) => [way]) : [members.map((m) => firstOf(m.ways))];
    const from = commonPieces(members);
    const key = [
      first.length,
      ways.map((w) => w.map(({ shows, rip, thickness }) => `${shows}${rip}/${thickness}`).join('+')).join(' or '),
      from ? [...from].sort().join(',') : '*',
    ].join('|');
    const type = types.get(key) ?? {
      length: first.length,
      ways,
      thickness: ways.map((w) => Math.max(...w.map((way) => way.thickness))),
      from,
      members: [],
      size: members.length,
    };
    type.members.push(members);
    types.set(key, type);
  }
  // What stays missing of a kind is its spares first.
  for (const type of types.values()) type.members.sort((a, b) => Number(isSpare(a)) - Number(isSpare(b)));
  return [...types.values()];
}

/** Whether a member is only wished for, in case another one fails. */
export function isSpare(members: readonly StripDemand[]): boolean {
  return firstOf(members).spare > 0;
}

/** Pieces that all of a group may come from; null when nothing is said. */
function commonPieces(members: readonly StripDemand[]): Set<string> | null {
  let common: Set<string> | null = null;
  for (const { from } of members) {
    if (from === null) continue;
    common = new Set(from.filter((id) => common === null || common.has(id)));
  }
  return common;
}
