import { measuresOf } from '#core/bench/measures.ts';
import type { Fact } from '#core/facts/fact.ts';
import { makePlan } from '#core/plan/plan.ts';
import { HANDBOOK_SPECIES } from '#core/wood/handbookSpecies.ts';
import { tramShedHalfDone, tramShedRack, tramShedShop } from './tramShed.ts';

/** So much thinner than planned the panel came out of the flattening, mm. */
const TOO_THIN_MM = 1.2;
const MINUTE_MS = 60_000;

/**
 * What happened so far to the board that is half done: everything up to the flat panel, which came out too thin.
 * @param now milliseconds since 1970: it was worked on until a quarter of an hour ago
 */
export function halfDoneFacts(now: number): Fact[] {
  const plan = makePlan({
    board: tramShedHalfDone,
    rack: tramShedRack,
    shop: tramShedShop,
    species: [...HANDBOOK_SPECIES],
  });
  const last = plan.operations.findIndex((o) => o.kind === 'flattenPanel');
  const steps = plan.operations.slice(0, last + 1);
  const whole = steps.reduce((sum, o) => sum + o.minutes + (o.waitMinutes ?? 0), 0);
  let at = now - (whole + 15) * MINUTE_MS;
  const facts = steps.flatMap((step): Fact[] => {
    at += step.minutes * MINUTE_MS;
    const done: Fact = {
      kind: 'done',
      id: `step-${step.number}`,
      at: new Date(at).toISOString(),
      step: step.id,
      copy: 1,
      // Hands are a little slower than the plan thinks.
      minutes: Math.round(step.minutes * 1.15 * 10) / 10,
      wait: step.waitMinutes === null ? null : { minutes: step.waitMinutes, for: step.waitFor ?? 'the next step' },
      ends: step.after.map((id) => ({ step: id, copy: null })),
    };
    at += (step.waitMinutes ?? 0) * MINUTE_MS;
    return [done];
  });
  const flat = plan.operations[last];
  const [measure] = flat ? measuresOf(flat, plan.operations, tramShedHalfDone, tramShedShop) : [];
  if (!flat || measure?.expected === undefined || measure.expected === null) return facts;
  const { thing, copy, stage, dimension, expected } = measure;
  return [
    ...facts,
    {
      kind: 'measured',
      id: 'too-thin',
      at: new Date(at + MINUTE_MS).toISOString(),
      thing,
      copy,
      stage,
      dimension,
      value: Math.round((expected - TOO_THIN_MM) * 10) / 10,
      step: flat.id,
    },
  ];
}
