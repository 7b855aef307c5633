import { createHash } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import fc from 'fast-check';
import { ROOT } from './root.ts';

/**
 * Random tests meet other boards with every change of the core, and the same ones wherever the same state of it is tested: what passes in one clone passes in the next.
 * CADENZA_SEED draws others.
 */
function seedOfCore(): number {
  const core = join(ROOT, 'core', 'src');
  const files = readdirSync(core, { recursive: true, encoding: 'utf8' })
    .filter((name) => name.endsWith('.ts'))
    .sort();
  const hash = createHash('sha256');
  for (const file of files) hash.update(file).update(readFileSync(join(core, file)));
  return hash.digest().readInt32LE(0);
}

fc.configureGlobal({ seed: process.env.CADENZA_SEED ? Number(process.env.CADENZA_SEED) : seedOfCore() });
