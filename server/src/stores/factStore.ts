import type { Knex } from 'knex';
import type { BoardFacts } from '#contract/facts.ts';
import { factSchema, MOST_FACTS, type Fact } from '#core/facts/fact.ts';
import { BOARD_FILE_VERSION } from '#core/format/boardFile.ts';
import { notFound, Problem } from '../problem.ts';
import { readDocument } from './document.ts';

interface FactRow {
  board_id: string;
  id: string;
  document: string;
  by_person: string | null;
}

/** What happened to some boards, in the order it arrived. Boards to which nothing did are left out. */
export async function factsOfBoards(db: Knex, boards: readonly string[]): Promise<Map<string, Fact[]>> {
  const facts = new Map<string, Fact[]>();
  if (boards.length === 0) return facts;
  const rows = await db<FactRow>('facts')
    .whereIn('board_id', [...boards])
    .orderBy([{ column: 'board_id' }, { column: 'place' }])
    .select('board_id', 'document');
  for (const { board_id, document } of rows) {
    const fact = readDocument(factSchema, document);
    const list = facts.get(board_id);
    if (list) list.push(fact);
    else facts.set(board_id, [fact]);
  }
  return facts;
}

/** What happened to a board, in the order it arrived. */
export async function factsOf(db: Knex, board: string): Promise<Fact[]> {
  return (await factsOfBoards(db, [board])).get(board) ?? [];
}

/** What happened to a board, and who noted it, by the fact's id, as far as a device said whose it is. */
export async function notedFacts(db: Knex, board: string): Promise<BoardFacts> {
  const rows = await db<FactRow>('facts')
    .where({ board_id: board })
    .orderBy('place')
    .select('id', 'document', 'by_person');
  return {
    facts: rows.map((row) => readDocument(factSchema, row.document)),
    by: Object.fromEntries(rows.flatMap(({ id, by_person }) => (by_person === null ? [] : [[id, by_person]]))),
  };
}

/**
 * Adds to what happened to a board. A fact that is there already, word for word, is taken as done: it may be sent as often as its answer gets lost.
 * @param person whose device it comes from; null where none says so
 * @throws Problem 404 for no such board, 409 `another-fact` where an id stands for something else, 409 `too-many-facts`
 */
export async function addFacts(
  tx: Knex.Transaction,
  board: string,
  facts: readonly Fact[],
  person: string | null = null,
): Promise<void> {
  if (facts.length === 0) return;
  const locked = await tx<{ id: string; facts: number; removed_at: Date | null }>('boards')
    .where({ id: board })
    .whereNull('removed_at')
    .forUpdate()
    .first('facts');
  if (!locked) throw notFound('This board');
  const there = new Map(
    (
      await tx<FactRow>('facts')
        .where({ board_id: board })
        .whereIn(
          'id',
          facts.map((f) => f.id),
        )
        .select('id', 'document')
    ).map(({ id, document }) => [id, JSON.stringify(readDocument(factSchema, document))]),
  );
  const news = facts.filter((fact) => {
    const known = there.get(fact.id);
    if (known !== undefined && known !== JSON.stringify(fact))
      throw new Problem(
        409,
        'another-fact',
        `The id ${fact.id} stands for something else that happened to this board; every fact needs one of its own.`,
        [],
        { current: JSON.parse(known) as Fact },
      );
    return known === undefined;
  });
  const count = locked.facts + news.length;
  if (count > MOST_FACTS)
    throw new Problem(
      409,
      'too-many-facts',
      `More than ${MOST_FACTS} things cannot have happened to one board; nothing was added.`,
    );
  if (news.length === 0) return;
  await tx('facts').insert(
    news.map((fact, i) => ({
      board_id: board,
      id: fact.id,
      place: locked.facts + i + 1,
      format_version: BOARD_FILE_VERSION,
      document: JSON.stringify(fact),
      arrived_at: new Date(),
      by_person: person,
    })),
  );
  await tx('boards').where({ id: board }).update({ facts: count });
}
