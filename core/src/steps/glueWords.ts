import { scrapeWindow } from '../gluing/glueRun.ts';
import type { GluePlan, GlueUp } from '../gluing/glueUps.ts';
import { schoolOf } from '../shop/schools.ts';
import { say, type Phrase } from '../units/phrase.ts';
import type { PlanContext } from '../ladders/context.ts';
import { groupThing, type ClampUse, type InstructionOf, type Thing } from './instruction.ts';

/** What keeps strips level, with the cauls that really stand between the clamps. */
export function levelWords(shop: PlanContext['shop'], cauls: number): string {
  if (shop.schools.level === 'cauls')
    return cauls > 0
      ? `${cauls} ${cauls === 1 ? 'pair' : 'pairs'} of cauls`
      : 'a straight edge and a mallet (no caul fits between the clamps)';
  return schoolOf(shop.schools, 'level').name.toLowerCase();
}

export function clampUses({ clamps }: GlueUp): ClampUse[] {
  const counts = new Map<string, number>();
  for (const { kind } of clamps.placed) counts.set(kind, (counts.get(kind) ?? 0) + 1);
  return [...counts].map(([kind, count]) => ({ kind, count }));
}

const CLAMP_WORDS: Readonly<Record<string, string>> = { pipe: 'pipe', bar: 'bar', parallel: 'parallel', f: 'F' };

/** Clamps by their kind: 4 pipe clamps, 2 bar clamps. */
export function clampWords(uses: readonly ClampUse[]): string {
  return uses
    .map(({ kind, count }) => `${count} ${CLAMP_WORDS[kind] ?? kind} ${count === 1 ? 'clamp' : 'clamps'}`)
    .join(', ');
}

export function schoolPhrase(shop: PlanContext['shop'], q: 'level'): Phrase {
  return say`${schoolOf(shop.schools, q).why}`;
}

/** What lies side by side in a glue-up: groups that were glued before, and single strips. */
export function partsOf(
  glueUp: GlueUp,
  { glueUps }: GluePlan,
  copy: number,
  single: (number: number) => Thing,
): Thing[] {
  const parts: Thing[] = [];
  for (let n = glueUp.firstStrip; n <= glueUp.lastStrip;) {
    const group = glueUps.find((g) => glueUp.joins.includes(g.id) && g.firstStrip === n);
    parts.push(group ? groupThing(group, copy) : single(n));
    n = group ? group.lastStrip + 1 : n + 1;
  }
  return parts;
}

/** Squeezed-out glue: wiped wet, scraped when it has skinned; or left until it is hard, in a step of its own. */
export function scrapeOf(shop: PlanContext['shop'], parts: Thing[]): InstructionOf<'scrape'>[] {
  if (shop.schools.squeezeOut === 'leave') return [];
  if (shop.schools.squeezeOut === 'wipe') return [{ do: 'scrape', parts, when: 'wet', from: 0, to: 0 }];
  const { from, to } = scrapeWindow(shop);
  return [{ do: 'scrape', parts, when: 'skinned', from, to }];
}

export function squeezeLine(shop: PlanContext['shop']): Phrase {
  if (shop.schools.squeezeOut === 'wipe') return say`Wipe squeezed-out glue at once with a wet rag, rinsed often`;
  if (shop.schools.squeezeOut === 'leave') return say`Leave the squeezed-out glue; it is scraped off when hard`;
  const { from, to } = scrapeWindow(shop);
  return say`Scrape the squeezed-out glue ${Math.round(from)} to ${Math.round(to)} min after it was spread, when it has skinned`;
}

export function minutesWords(value: number): string {
  return `${Math.round(value * 10) / 10} min`;
}
