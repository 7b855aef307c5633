import type { Finding } from '../checks/finding.ts';
import type { Operation } from '../steps/operation.ts';
import { DEFAULT_DISPLAY, type LengthDisplay } from '../units/formatLength.ts';
import { phraseText, type Phrase } from '../units/phrase.ts';
import type { Plan } from '../plan/plan.ts';

const DISPLAYS: Readonly<Record<'mm' | 'in', LengthDisplay>> = {
  mm: DEFAULT_DISPLAY,
  in: { ...DEFAULT_DISPLAY, system: 'inch' },
};

/** A plan as a maker would see it, section by section: what must stay the same when only the code changes. */
export const SECTIONS = ['ladders', 'cuts', 'steps', 'glue', 'findings', 'hands', 'materials', 'board'] as const;
export type Section = (typeof SECTIONS)[number];

export function planText(plan: Plan, findings: readonly Finding[]): Record<Section, string> {
  const { ladders, cutting, operations, gluing, handsMinutes, materials, worked, movement, strips } = plan;
  return {
    ladders: told(ladders),
    cuts: told(cutting),
    steps: operations.map(stepText).join('\n\n'),
    glue: told(gluing),
    findings: findings.map(findingText).join('\n'),
    hands: told(handsMinutes),
    materials: told({ materials, movement, moisture: plan.moisture, flattening: plan.flattening }),
    board: told({ worked, strips }),
  };
}

/** Sentences as they are read in either unit; one line where both read alike. */
function both(phrase: Phrase): string {
  const [mm, inch] = [phraseText(phrase, DISPLAYS.mm), phraseText(phrase, DISPLAYS.in)];
  return mm === inch ? mm : `${mm}\n      | ${inch}`;
}

function stepText({
  number,
  kind,
  title,
  settings,
  lines,
  parts,
  cautions,
  why,
  minutes,
  repeats,
  waitMinutes,
  machine,
  instructions,
  ways,
}: Operation): string {
  return [
    `${number}. ${both(title)} [${kind}] ${machine ?? 'hands'}, ${rounded(minutes)} min${repeats > 1 ? ` x ${repeats}` : ''}${waitMinutes === null ? '' : `, wait ${rounded(waitMinutes)} min`}`,
    ...settings.map((s) => `  set ${s.label}: ${both([s.value])}`),
    ...lines.map((l) => `  - ${both(l)}`),
    ...parts.map((p) => `  part ${told(p)}`),
    ...cautions.map((c) => `  ! ${both(c)}`),
    `  why ${both(why)}`,
    ...ways.map((w) => `  way ${told(w)}`),
    ...instructions.map((i) => `  do ${told(i)}`),
  ].join('\n');
}

function findingText({ rule, severity, what, why, waysOut, strips, at }: Finding): string {
  return [
    `${severity} ${rule}${at ? ` at ${at}` : ''} [${strips.join(' ')}]: ${both(what)}`,
    `  ${both(why)}`,
    ...waysOut.map((w) => `  > ${both(w)}`),
  ].join('\n');
}

/** Figures to a thousandth: what floating point leaves beyond is nobody's meaning. */
function rounded(value: number): number {
  return Number(value.toFixed(3)) + 0;
}

function told(value: unknown): string {
  return JSON.stringify(value, (_, v: unknown) =>
    typeof v === 'number' && Number.isFinite(v)
      ? rounded(v)
      : v instanceof Map
        ? [...(v as Map<unknown, unknown>)]
        : v instanceof Set
          ? [...(v as Set<unknown>)]
          : v,
  );
}
