import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fillScratch } from './fillScratch.ts';
import { withConnection } from './scratch.ts';

/** Fills an empty database from a dump, as a backup is read. */
export async function fillFrom(url: string, sql: Buffer | string): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'cadenza-dump-'));
  try {
    writeFileSync(join(folder, 'dump.sql'), sql);
    await withConnection(url, (c) => fillScratch(c, join(folder, 'dump.sql'), new AbortController().signal));
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
