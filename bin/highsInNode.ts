import loadHighs from 'highs';
import { highsSolver } from '#core/cutting/highsSolver.ts';
import type { MipSolver } from '#core/cutting/mipSolver.ts';

/** The solver for the command line; its WebAssembly lies beside the package. */
export async function highsInNode(): Promise<MipSolver> {
  return highsSolver(await loadHighs());
}
