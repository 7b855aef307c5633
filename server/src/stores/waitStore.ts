import type { Knex } from 'knex';
import type { StoredWait } from '#contract/bench.ts';
import { waitsOf } from '#core/bench/waits.ts';
import { factSchema, type Fact } from '#core/facts/fact.ts';
import { readDocument } from './document.ts';

/** No wait is longer than that, days; and one that is over is told of for so long, hours. */
const LONGEST_DAYS = 75;
const TOLD_HOURS = 12;

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
  const boards = new Map<string, { name: string; facts: Fact[] }>();
  for (const { board, document, name } of rows) {
    const known = boards.get(board) ?? { name, facts: [] };
    known.facts.push(readDocument(factSchema, document));
    boards.set(board, known);
  }
  return [...boards]
    .flatMap(([board, { name, facts }]) =>
      waitsOf(facts, now - TOLD_HOURS * 3_600_000).map((wait): StoredWait => ({
        board,
        name,
        fact: wait.fact,
        step: wait.step,
        copy: wait.copy,
        for: wait.for,
        from: new Date(wait.from).toISOString(),
        until: new Date(wait.until).toISOString(),
      })),
    )
    .sort((a, b) => (a.until < b.until ? -1 : a.until > b.until ? 1 : 0));
}
