import { mkdir, readdir, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import type { Knex } from 'knex';
import { COPY_NAME, type Copies, type CopiesChange, type Copy } from '#contract/backup.ts';
import { noteChange } from '../stores/changeStore.ts';
import { dumpToFile, fileTrouble } from './dump.ts';
import { BackupError, type Keeper } from './keeper.ts';
import { canGoBack } from './restore.ts';

const ID = 1;
const HOUR_MS = 3_600_000;
/** A copy is due again a little before a day is over, so that each day has one. */
const DUE_MS = 23 * HOUR_MS;
/** Two days without a good one are too many. */
const OLD_MS = 48 * HOUR_MS;
/** A server that starts has other things to do first, ms. */
const FIRST_LOOK_MS = 30_000;
const LOOK_EVERY_MS = 600_000;
const LONGEST_TROUBLE = 500;

interface KeepingRow {
  id: number;
  daily: number | boolean;
  keep: number;
  last_good_at: Date | null;
  trouble: string | null;
}

/** A copy every day, and two weeks of them, until somebody wishes otherwise. */
const USUAL: KeepingRow = { id: ID, daily: true, keep: 14, last_good_at: null, trouble: null };

const readRow = async (db: Knex): Promise<KeepingRow> =>
  (await db<KeepingRow>('keeping').where({ id: ID }).first()) ?? USUAL;

async function put(db: Knex, change: Partial<KeepingRow>): Promise<void> {
  await db.transaction(async (tx) => {
    await tx('keeping')
      .insert({ ...USUAL, ...change })
      .onConflict('id')
      .merge(change);
    await noteChange(tx, ['keeping'], null, null);
  });
}

/** How it stands with the copies. @throws what the database says */
export async function copiesOf(db: Knex, keeper: Keeper, now: number): Promise<Copies> {
  const { daily, keep, last_good_at, trouble } = await readRow(db);
  return {
    daily: Boolean(daily),
    keep,
    folder: keeper.folder,
    copies: await copiesIn(keeper.folder),
    lastGoodAt: last_good_at?.toISOString() ?? null,
    trouble,
    old: Boolean(daily) && (last_good_at === null ? trouble !== null : now - last_good_at.getTime() > OLD_MS),
    canGoBack: await canGoBack(keeper),
  };
}

export async function changeCopies(db: Knex, change: CopiesChange): Promise<void> {
  await put(db, change);
}

/** The copies in a folder, the newest first: by their names alone is known that Cadenza made them. */
async function copiesIn(folder: string): Promise<Copy[]> {
  const names = await readdir(folder).catch(() => []);
  const found = await Promise.all(
    names
      .filter((name) => COPY_NAME.test(name))
      .map(async (name) => ({ name, size: (await stat(join(folder, name)).catch(() => ({ size: -1 }))).size })),
  );
  return found
    .filter(({ size }) => size >= 0)
    .map(({ name, size }) => ({ name, size, madeAt: timeIn(name).toISOString() }))
    .sort((a, b) => (a.name < b.name ? 1 : -1));
}

const nameAt = (at: Date): string => `cadenza-${at.toISOString().slice(0, 19).replaceAll(':', '')}Z.sql`;

function timeIn(name: string): Date {
  const [day, hours, minutes, seconds] = [
    name.slice(8, 18),
    name.slice(19, 21),
    name.slice(21, 23),
    name.slice(23, 25),
  ];
  const at = new Date(`${day}T${hours}:${minutes}:${seconds}.000Z`);
  return Number.isNaN(at.getTime()) ? new Date(0) : at;
}

/** Somebody else makes one just now. */
class CopyUnderWay extends BackupError {}

/** Takes away what a server that was killed left half made. Whoever calls it is the only one who makes copies. */
async function sweepHalves(folder: string): Promise<void> {
  for (const name of await readdir(folder))
    if (name.endsWith('.part') && COPY_NAME.test(name.slice(0, -'.part'.length))) await rm(join(folder, name));
}

/**
 * Makes a copy now, reads it again, and takes away what is more than is to be kept: never before the new one is good. One server at a time does so.
 * @throws BackupError when it cannot be made; that is kept as what is wrong
 */
export async function makeCopy(db: Knex, keeper: Keeper, now: Date): Promise<void> {
  await db.transaction(async (holder) => {
    const [[lock]] = (await holder.raw("select get_lock(concat('cadenza.copy.', database()), 0) as got")) as [
      [{ got: number | null }],
    ];
    if (lock.got !== 1) throw new CopyUnderWay('A copy is being made just now.');
    try {
      await mkdir(keeper.folder, { recursive: true, mode: 0o700 }).catch((error: unknown) => {
        throw fileTrouble(keeper.folder, error);
      });
      await sweepHalves(keeper.folder);
      await dumpToFile(keeper, join(keeper.folder, nameAt(now)), now);
      await put(db, { last_good_at: now, trouble: null });
      const { keep } = await readRow(db);
      for (const { name } of (await copiesIn(keeper.folder)).slice(keep))
        await rm(join(keeper.folder, name), { force: true });
    } catch (error) {
      // What is no sentence is not for a page, but that it failed is.
      const trouble = error instanceof BackupError ? error.message : 'The last copy could not be made.';
      await put(db, { trouble: trouble.slice(0, LONGEST_TROUBLE) }).catch(() => {});
      throw error;
    } finally {
      await holder.raw("select release_lock(concat('cadenza.copy.', database()))").catch(() => {});
    }
  });
}

/** Makes a copy whenever one is due, for as long as a server runs. */
export class DailyCopies {
  private timer: ReturnType<typeof setTimeout> | undefined;
  private round: Promise<void> = Promise.resolve();

  constructor(
    private readonly db: Knex,
    private readonly keeper: Keeper,
    private readonly tell: (sentence: string) => void,
    private readonly firstLookMs = FIRST_LOOK_MS,
  ) {}

  begin(): void {
    this.next(this.firstLookMs);
  }

  /** Ends it, once a copy that is being made is whole. */
  async stop(): Promise<void> {
    clearTimeout(this.timer);
    this.timer = undefined;
    await this.round;
    clearTimeout(this.timer);
  }

  /** Makes a copy if one is due. Never throws: what is wrong is told, and kept. */
  async look(now: Date): Promise<void> {
    try {
      const { daily, last_good_at } = await readRow(this.db);
      if (!daily || (last_good_at !== null && now.getTime() - last_good_at.getTime() < DUE_MS)) return;
      await makeCopy(this.db, this.keeper, now);
    } catch (error) {
      // Another server on this database is at it.
      if (error instanceof CopyUnderWay) return;
      this.tell(`No copy was made: ${(error as Error).message}`);
    }
  }

  private next(delay: number): void {
    this.timer = setTimeout(() => {
      this.round = this.look(new Date()).then(() => {
        if (this.timer !== undefined) this.next(LOOK_EVERY_MS);
      });
    }, delay).unref();
  }
}
