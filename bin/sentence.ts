/** An error meant for the person at the terminal: one sentence with the way out, no stack. */
export class Sentence extends Error {}

/** Prints what is being done; progress never goes to standard output, which belongs to results. */
export function tell(line: string): void {
  process.stderr.write(`${line}\n`);
}

/** Runs a command's main function; a `Sentence` ends it with its text and exit code 1, anything else is a bug and shows its stack. */
export async function runCommand(main: () => Promise<void>): Promise<void> {
  try {
    await main();
  } catch (error) {
    if (error instanceof Sentence) tell(error.message);
    else console.error(error);
    process.exit(1);
  }
}
