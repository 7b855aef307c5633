import type { Phrase } from '../units/phrase.ts';
import type { PlanInput } from '../saw/planInput.ts';
import type { OperationKind, StepStation } from '../steps/operation.ts';
import type { Plan } from '../plan/plan.ts';

/** stop: it cannot be made like this. caution: it can go wrong. note: worth knowing. */
export type Severity = 'stop' | 'caution' | 'note';

/** What a rule found. Rules read the plan and never change it. */
export interface Found {
  /** The rule's id. */
  rule: string;
  severity: Severity;
  /** What is wrong, with the numbers. */
  what: Phrase;
  /** Why it matters. */
  why: Phrase;
  /** At least one way out. */
  waysOut: Phrase[];
  /** Strip numbers it concerns, from 1; empty when it concerns the whole board. */
  strips: number[];
  /** What else it is about, by id: a feature, two of them, a step; left out when the rule finds only one such thing on a board. */
  part?: string;
  /** The kind of step at which it matters; left out when it concerns the board before any step. */
  at?: OperationKind;
  /** Where the limit comes from, when it is neither a habit nor a machine's figure. */
  source?: string;
}

/** A finding where it belongs. */
export interface Finding extends Found {
  /** The station of its step; null where it concerns the board before any. */
  station: StepStation | null;
  /** Id of its step; null where the plan has none of its kind, or several. */
  step: string | null;
  /** Why the maker goes on with a stop, in his own words. */
  accepted?: string;
}

/** A rule looks at a plan and what it was made from. */
export type Rule = (plan: Plan, input: PlanInput) => Found[];
