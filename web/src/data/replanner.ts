import type { Finding } from '#core/checks/finding.ts';
import type { Plan } from '#core/plan/plan.ts';
import type { SawBook } from '#core/saw/sawRecords.ts';
import type { PlanInput } from '#core/saw/planInput.ts';
import type { SessionState } from './boardSession.ts';

/** A state of the board with what follows from it. */
export interface Planned extends SessionState {
  /** What is kept at the saw: it changes in one with the plan that follows from it. */
  book: SawBook;
  input: PlanInput;
  plan: Plan;
  findings: Finding[];
}

/** A state that is to be planned. */
export interface Wanted {
  state: SessionState;
  /** Rack, shop, species, what was sawn and what happened. */
  rest: Omit<PlanInput, 'board'>;
  book: SawBook;
}

/** While something is dragged the plan is made anew this often, ms: fast enough to be read, seldom enough to leave the frames to the drawing. */
export const PLAN_EVERY_MS = 500;

export interface ReplannerOptions {
  plan(input: PlanInput): Plan;
  check(plan: Plan, input: PlanInput): Finding[];
  /** Shows what was planned. */
  publish(planned: Planned): void;
  /** Shows what went wrong in a task of its own. */
  fail(error: unknown): void;
}

/**
 * Plans a board a moment after the hands: at once when they have rested, then at its own pace while the board keeps changing, and always to the last. Plan and
 * checks are two tasks, so that a drag stays smooth however much hangs on the plan.
 */
export class Replanner {
  /** What was planned to begin with. */
  readonly first: Planned;
  private made: Planned;
  private last = -Infinity;
  private timer: ReturnType<typeof setTimeout> | undefined;

  constructor(
    first: Wanted,
    private readonly options: ReplannerOptions,
  ) {
    this.first = this.planned(first);
    this.made = this.first;
  }

  /** What was planned last. */
  get current(): Planned {
    return this.made;
  }

  /** Has a state planned. One that waits, or that is between plan and checks, gives way to it. */
  want(wanted: Wanted): void {
    this.stop();
    const { state, rest, book } = wanted;
    const { input: before, ...was } = this.made;
    const planIsSame =
      before.board === state.board &&
      before.rack === rest.rack &&
      before.shop === rest.shop &&
      before.species === rest.species &&
      before.facts === rest.facts &&
      before.saw === rest.saw;
    if (planIsSame) {
      const told = { ...state, book };
      if (Object.entries(told).some(([key, value]) => was[key as keyof typeof was] !== value))
        this.show({ ...this.made, ...told });
      return;
    }
    this.timer = setTimeout(
      () =>
        this.task(() => {
          this.last = performance.now();
          const input = { ...rest, board: state.board };
          const plan = this.options.plan(input);
          this.timer = setTimeout(() =>
            this.task(() => this.show({ ...state, book, input, plan, findings: this.options.check(plan, input) })),
          );
        }),
      Math.max(0, this.last + PLAN_EVERY_MS - performance.now()),
    );
  }

  /** Nothing more is planned. */
  stop(): void {
    clearTimeout(this.timer);
  }

  private planned({ state, rest, book }: Wanted): Planned {
    const input = { ...rest, board: state.board };
    const plan = this.options.plan(input);
    return { ...state, book, input, plan, findings: this.options.check(plan, input) };
  }

  private show(planned: Planned): void {
    this.made = planned;
    this.options.publish(planned);
  }

  private task(work: () => void): void {
    try {
      work();
    } catch (error) {
      this.options.fail(error);
    }
  }
}
