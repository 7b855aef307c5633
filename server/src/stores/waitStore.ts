import type { Knex } from 'knex';
import type { StoredWait } from '#contract/bench.ts';
import { waitsOf } from '#core/bench/waits.ts';
import { grouped } from '#core/lists/grouped.ts';
import { firstOf } from '#core/lists/there.ts';
import { factSchema, type Fact } from '#core/facts/fact.ts';
import { runDocumentSchema } from '#core/gluing/glueRun.ts';
import { readDocument } from './document.ts';

/** No wait is longer than that, days; and one that is over is told of for so long, hours. */
const LONGEST_DAYS = 75;
const TOLD_HOURS = 12;
/** So many facts are read before others get their turn. */
const READ_AT_ONCE = 50;

/** Everything that takes its time by itself on all boards, the one that is over first before the others. @param now milliseconds since 1970 */
export async function waitsOfBoards(db: Knex, now: number): Promise<StoredWait[]> {
  const rows: { board: string; document: string; name: string }[] = await db('facts')
    .join('boards', 'boards.id', 'facts.board_id')
    .join('revisions', function () {
      this.on('revisions.board_id', 'boards.id').andOn('revisions.number', 'boards.revision');
    })
    .whereNull('boards.removed_at')
    .where('facts.arrived_at', '>', new Date(now - LONGEST_DAYS * 86_400_000))
    .whereRaw(`json_value(facts.document, '$.kind') in ('done', 'takenBack')`)
    .orderBy([{ column: 'facts.board_id' }, { column: 'facts.place' }])
    .select(
      'facts.board_id as board',
      'facts.document as document',
      db.raw(`json_value(revisions.document, '$.name') as name`),
    );
  const told: StoredWait[] = [];
  for (const [board, own] of grouped(rows, (row) => row.board)) {
    const facts: Fact[] = [];
    for (const [i, { document }] of own.entries()) {
      // Others get their answers in between: a year's steps with all that they ended take a while to read.
      if (i % READ_AT_ONCE === 0) await new Promise(setImmediate);
      facts.push(readDocument(factSchema, document));
    }
    const { name } = firstOf(own);
    for (const { from, until, ...wait } of waitsOf(facts, now - TOLD_HOURS * 3_600_000))
      told.push({ board, name, ...wait, from: new Date(from).toISOString(), until: new Date(until).toISOString() });
  }
  // The clock of a glue-up that nobody has said is done yet.
  const clocks = (await clocksRunning(db, now)).filter(
    (c) => !told.some((w) => w.board === c.board && w.copy === c.copy && w.step.endsWith(`:${c.step}`)),
  );
  return [...told, ...clocks].sort((a, b) => (a.until < b.until ? -1 : a.until > b.until ? 1 : 0));
}

/** Glue-ups in their clamps by the glue clock: until when they stay there. */
async function clocksRunning(db: Knex, now: number): Promise<StoredWait[]> {
  const rows: {
    id: string;
    board: string;
    glue_up: string;
    copy: number;
    started: Date;
    document: unknown;
    name: string;
  }[] = await db('glue_runs')
    .join('boards', 'boards.id', 'glue_runs.board_id')
    .join('revisions', function () {
      this.on('revisions.board_id', 'boards.id').andOn('revisions.number', 'boards.revision');
    })
    .whereNull('boards.removed_at')
    .whereNull('glue_runs.ended_at')
    .where('glue_runs.started_at', '>', new Date(now - LONGEST_DAYS * 86_400_000))
    .select(
      'glue_runs.id as id',
      'glue_runs.board_id as board',
      'glue_runs.glue_up as glue_up',
      'glue_runs.copy as copy',
      'glue_runs.started_at as started',
      'glue_runs.document as document',
      db.raw(`json_value(revisions.document, '$.name') as name`),
    );
  return rows.flatMap(({ id, board, glue_up, copy, started, document, name }): StoredWait[] => {
    const { due, title } = readDocument(runDocumentSchema, document);
    const until = started.getTime() + due.outOfClamps * 60_000;
    if (until < now - TOLD_HOURS * 3_600_000) return [];
    return [
      {
        board,
        name,
        fact: id,
        step: glue_up,
        copy,
        for: `the glue of ${title.toLowerCase()}`,
        from: started.toISOString(),
        until: new Date(until).toISOString(),
      },
    ];
  });
}
