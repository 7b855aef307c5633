import type { Knex } from 'knex';
import { Problem } from '../problem.ts';
import { forgetFailures, noteFailure, waitBeforeNext } from '../stores/attemptStore.ts';
import { isPassphrase } from '../stores/passphraseStore.ts';

/** More people than that do not sign in at one moment. */
const MOST_WAITING = 20;

/** What came of a guess: it was right, it was wrong, or it was not looked at, for so many seconds more. */
export type Guessed = 'right' | 'wrong' | number;

/** Passphrases that are tried, wherever they are asked for: one after the other, and ever more slowly. */
export class Guesses {
  private waiting = 0;
  private line: Promise<unknown> = Promise.resolve();

  constructor(private readonly db: Knex) {}

  /** @throws Problem 503 when too many try at once */
  tried(address: string, passphrase: string): Promise<Guessed> {
    if (this.waiting >= MOST_WAITING)
      throw new Problem(503, 'busy', 'Many are signing in just now. Try again in a moment.');
    this.waiting += 1;
    const done = this.line
      .then(() => this.look(address, passphrase))
      .finally(() => {
        this.waiting -= 1;
      });
    this.line = done.catch(() => {});
    return done;
  }

  private async look(address: string, passphrase: string): Promise<Guessed> {
    const wait = await waitBeforeNext(this.db, address);
    if (wait > 0) return wait;
    await noteFailure(this.db, address);
    if (!(await isPassphrase(this.db, passphrase))) return 'wrong';
    await forgetFailures(this.db, address);
    return 'right';
  }
}

/** What is said to somebody whose guess was not looked at. */
export const waitSentence = (seconds: number): string =>
  `That was not it too often. Try again in ${seconds < 90 ? `${seconds} seconds` : `${Math.ceil(seconds / 60)} minutes`}.`;
export const WRONG = 'That is not the passphrase.';
