import type { Knex } from 'knex';
import { Problem } from '../problem.ts';
import { forgetFailures, noteFailure, waitBeforeNext } from '../stores/attemptStore.ts';
import { isPassphrase } from '../stores/passphraseStore.ts';

/** More people than that do not sign in at one moment. */
const MOST_WAITING = 20;

/** What came of a guess: it was right, it was wrong, or it was not looked at, for so many seconds more. */
export type Guessed = 'right' | 'wrong' | number;

/** Who guesses: a device that is known, or somebody at an address. */
export type Guesser = { device: string } | { address: string };

/** Guesses of one kind of guesser, looked at one after the other. */
interface Line {
  waiting: number;
  last: Promise<unknown>;
}

/**
 * Passphrases that are tried, wherever they are asked for: one after the other, and ever more slowly. A device that is known has a line and a count of its own, so that no
 * stranger makes it wait.
 */
export class Guesses {
  private readonly known: Line = { waiting: 0, last: Promise.resolve() };
  private readonly strangers: Line = { waiting: 0, last: Promise.resolve() };

  constructor(private readonly db: Knex) {}

  /** @throws Problem 503 when too many try at once */
  tried(guesser: Guesser, passphrase: string): Promise<Guessed> {
    const line = 'device' in guesser ? this.known : this.strangers;
    if (line.waiting >= MOST_WAITING)
      throw new Problem(503, 'busy', 'Many are signing in just now. Try again in a moment.');
    line.waiting += 1;
    const done = line.last
      .then(() => this.look(guesser, passphrase))
      .finally(() => {
        line.waiting -= 1;
      });
    line.last = done.catch(() => {});
    return done;
  }

  private async look(guesser: Guesser, passphrase: string): Promise<Guessed> {
    const isKnown = 'device' in guesser;
    const counted = isKnown ? `device ${guesser.device}` : guesser.address;
    const wait = await waitBeforeNext(this.db, counted, !isKnown);
    if (wait > 0) return wait;
    await noteFailure(this.db, counted);
    if (!(await isPassphrase(this.db, passphrase))) return 'wrong';
    await forgetFailures(this.db, counted);
    return 'right';
  }
}

/** What is said to somebody whose guess was not looked at. */
export const waitSentence = (seconds: number): string =>
  `That was not it too often. Try again in ${seconds < 90 ? `${seconds} seconds` : `${Math.ceil(seconds / 60)} minutes`}.`;
export const WRONG = 'That is not the passphrase.';
