import type { Knex } from 'knex';
import { nanoid } from 'nanoid';
import type { RunChange, StoredRun } from '#contract/glueRuns.ts';
import { GREATEST_RUN_MINUTES, runDocumentSchema, type RunDocument } from '#core/gluing/glueRun.ts';
import { notFound, Problem } from '../problem.ts';
import { readDocument } from './document.ts';

interface RunRow {
  id: string;
  board_id: string;
  glue_up: string;
  copy: number;
  version: number;
  started_at: Date;
  ended_at: Date | null;
  document: unknown;
}

function toStored(row: RunRow): StoredRun {
  return {
    id: row.id,
    boardId: row.board_id,
    glueUp: row.glue_up,
    copy: row.copy,
    version: row.version,
    startedAt: row.started_at.toISOString(),
    endedAt: row.ended_at?.toISOString() ?? null,
    run: readDocument(runDocumentSchema, row.document),
  };
}

const rows = (db: Knex) =>
  db('glue_runs').select<RunRow[]>(
    'id',
    'board_id',
    'glue_up',
    'copy',
    'version',
    'started_at',
    'ended_at',
    'document',
  );

/** All runs of a board, the newest first. */
export async function runsOf(db: Knex, boardId: string): Promise<StoredRun[]> {
  return (
    await rows(db)
      .where({ board_id: boardId })
      .orderBy([{ column: 'started_at', order: 'desc' }, { column: 'id' }])
  ).map(toStored);
}

/** No clock runs longer than that, days. */
const LONGEST_DAYS = 14;

/** Glue-ups of all boards whose clock runs: since when, and until when they stay in their clamps, minutes since 1970. @param now milliseconds since 1970 */
export async function runningGlueUps(
  db: Knex,
  now: number,
): Promise<{ board: string; glueUp: string; copy: number; from: number; until: number }[]> {
  const running = await rows(db)
    .whereNull('ended_at')
    .where('started_at', '>', new Date(now - LONGEST_DAYS * 86_400_000))
    .orderBy([{ column: 'started_at' }, { column: 'id' }]);
  return running.map(toStored).map(({ boardId, glueUp, copy, startedAt, run }) => {
    const from = Date.parse(startedAt) / 60_000;
    return { board: boardId, glueUp, copy, from, until: from + run.due.outOfClamps };
  });
}

/** Starts the clock of a glue-up. @throws Problem 404 for no such board, 409 running when it runs already, here or on another device */
export async function startRun(
  tx: Knex.Transaction,
  boardId: string,
  glueUp: string,
  copy: number,
  run: RunDocument,
): Promise<StoredRun> {
  if (!(await tx('boards').where({ id: boardId }).whereNull('removed_at').forUpdate().first('id')))
    throw notFound('This board');
  const [running] = await rows(tx).where({ board_id: boardId, glue_up: glueUp, copy }).whereNull('ended_at');
  if (running)
    throw new Problem(
      409,
      'running',
      `The clock of "${run.title}" runs already, started at another place or a moment ago. It goes on here with the same time.`,
      [],
      { current: toStored(running) },
    );
  const id = nanoid();
  await tx('glue_runs').insert({
    id,
    board_id: boardId,
    glue_up: glueUp,
    copy,
    version: 1,
    started_at: new Date(),
    ended_at: null,
    document: JSON.stringify(run),
  });
  return readRun(tx, id);
}

async function readRun(db: Knex, id: string): Promise<StoredRun> {
  const [row] = await rows(db).where({ id });
  if (!row) throw notFound('This glue-up');
  return toStored(row);
}

/** Notes what happened, at the server's time. @throws Problem 404, 409 stale with the stored run, 409 too-old when it is long over */
export async function changeRun(
  tx: Knex.Transaction,
  id: string,
  version: number,
  change: RunChange,
): Promise<StoredRun> {
  const [locked] = await rows(tx).where({ id }).forUpdate();
  if (!locked) throw notFound('This glue-up');
  const stored = toStored(locked);
  if (stored.version !== version)
    throw new Problem(409, 'stale', 'Another device noted something meanwhile.', [], { current: stored });
  const now = new Date();
  const minutes = Math.max(0, (now.getTime() - locked.started_at.getTime()) / 60_000);
  if (change.mark && minutes > GREATEST_RUN_MINUTES) {
    throw new Problem(
      409,
      'too-old',
      `This clock was started ${Math.round(minutes / 1440)} days ago: nothing more can be noted on it. End it, and start a new one.`,
      [],
      { current: stored },
    );
  }
  const others = stored.run.marks.filter((m) => m.event !== change.mark && m.event !== change.unmark);
  const run: RunDocument = {
    ...stored.run,
    marks: change.mark ? [...others, { event: change.mark, minutes }] : others,
    note: change.note ?? stored.run.note,
  };
  await tx('glue_runs')
    .where({ id })
    .update({ version: version + 1, document: JSON.stringify(run), ended_at: change.end ? now : locked.ended_at });
  return readRun(tx, id);
}
