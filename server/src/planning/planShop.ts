import type { Knex } from 'knex';
import { LRUCache } from 'lru-cache';
import type { Board } from '#core/board/board.ts';
import { grouped } from '#core/lists/grouped.ts';
import { entryOf } from '#core/lists/there.ts';
import { workOfPlan } from '#core/plan/boardWork.ts';
import { makePlan } from '#core/plan/plan.ts';
import { asPlanned, speciesLookedAt, woodTaken } from '#core/plan/woodTaken.ts';
import type { PlanInput, SawState } from '#core/saw/planInput.ts';
import { promisedToOthers, sawStateFor } from '#core/saw/sawBook.ts';
import type { Shop } from '#core/shop/shop.ts';
import type { Piece } from '#core/stock/piece.ts';
import type { Species } from '#core/wood/species.ts';
import { boardsNewest } from '../stores/boardStore.ts';
import { factsOfBoards } from '../stores/factStore.ts';
import { runningGlueUps } from '../stores/glueRunStore.ts';
import { piecesInRack } from '../stores/rackStore.ts';
import { allPromises, cutForBoards, sawBook } from '../stores/sawStore.ts';
import { sha256 } from '../stores/sha256.ts';
import { readShop } from '../stores/shopStore.ts';
import { allSpecies } from '../stores/speciesStore.ts';
import { forgetOtherWork, keepWork, knownWork, type FreshWork } from '../stores/workStore.ts';

/** Boards whose saw book is kept in memory between two runs. */
const MOST_KNOWN = 400;
/** What is worked out is stored so many boards at a time, so that whoever waits sees it grow. */
const PORTION = 8;

/** What is the same for all boards of a run, with its hash. */
interface Common {
  shop: Shop;
  species: readonly Species[];
  rack: readonly Piece[];
  /** Of shop and species. */
  state: string;
  /** Of the rack by species, and of all of it. */
  ofSpecies: ReadonlyMap<string, string>;
  ofRack: string;
}

/**
 * Keeps what is to be done on every board up to date, in the thread that it is called in. What is remembered between two runs saves time and decides nothing.
 */
export class ShopPlanner {
  /** The same shop and species as before are the same objects: what the core remembers of them stays good. */
  private kept: { text: string; shop: Shop; species: readonly Species[] } | null = null;
  private readonly saws = new LRUCache<string, { state: string; saw: Omit<SawState, 'promised'> }>({ max: MOST_KNOWN });

  constructor(private readonly db: Knex) {}

  /**
   * Works out what is not known any more: a board whose strips could come from another piece now gets its cuts planned, and only where those are others its whole plan.
   * @param stopped whether nobody waits any more: what was worked out by then is kept
   * @returns how many boards had their wood looked at, and how many were planned
   */
  async bringUpToDate(now: number, stopped: () => boolean): Promise<{ looked: number; planned: number }> {
    const boards = await boardsNewest(this.db);
    const [common, running, promises, cut, known, counts] = await Promise.all([
      this.readCommon(),
      runningGlueUps(this.db, now),
      allPromises(this.db),
      cutForBoards(this.db),
      knownWork(this.db),
      this.db('boards').whereNull('removed_at').select<{ id: string; facts: number }[]>('id', 'facts'),
    ]);
    const facts = new Map(counts.map((c) => [c.id, c.facts]));
    const promised = hashOf(promises.map(({ pieceId, unit, from, to, boards: of }) => [pieceId, unit, from, to, of]));
    const ofBoard = grouped(running, (run) => run.board);
    const stale = boards.flatMap(({ id, revision, board }) => {
      const runs = ofBoard.get(id) ?? [];
      const saw = cut.get(id) ?? '';
      const own = hashOf([revision, facts.get(id) ?? 0, saw, runs, common.state]);
      const state = hashOf([own, promised, rackFor(board, common)]);
      const before = known.get(id);
      return before?.state === state ? [] : [{ id, revision, board, runs, saw, own, state, before: before?.wood }];
    });
    const done = { looked: 0, planned: 0 };
    for (let at = 0; at < stale.length && !stopped(); at += PORTION) {
      const portion = stale.slice(at, at + PORTION);
      const ids = portion.map((s) => s.id);
      const [happened, saws] = await Promise.all([
        factsOfBoards(
          this.db,
          ids.filter((id) => (facts.get(id) ?? 0) > 0),
        ),
        this.sawsOf(portion),
      ]);
      const fresh: FreshWork[] = [];
      for (const { id, revision, board, runs, own, state, before } of portion) {
        // Where this runs in the server's own thread, others get their answers in between.
        await new Promise(setImmediate);
        const { shop, species, rack } = common;
        const saw = { ...saws(id), promised: promisedToOthers({ promises }, [id]) };
        const input: PlanInput = { board, rack, shop, species, saw, facts: happened.get(id) ?? [] };
        const wood = hashOf([own, woodTaken(input)]);
        const work = wood === before ? null : workOfPlan(id, input, makePlan(input), runs);
        done.looked += 1;
        if (work) done.planned += 1;
        fresh.push({ id, state, wood, planned: work && { id, revision, due: board.due, pins: board.pins, work } });
      }
      await keepWork(this.db, fresh);
    }
    if (!stopped())
      await forgetOtherWork(
        this.db,
        boards.map((b) => b.id),
      );
    return done;
  }

  private async readCommon(): Promise<Common> {
    const [{ shop }, species, stored] = await Promise.all([
      readShop(this.db),
      allSpecies(this.db),
      piecesInRack(this.db),
    ]);
    const text = JSON.stringify([shop, species]);
    if (this.kept?.text !== text) this.kept = { text, shop, species };
    const rack = stored.map((p) => p.piece);
    const ofSpecies = new Map(
      [...grouped(rack, (p) => p.species)].map(([code, list]) => [code, hashOf(list.map(asPlanned))]),
    );
    return { ...this.kept, rack, state: hashOf(text), ofSpecies, ofRack: hashOf([...ofSpecies]) };
  }

  /** What was kept and cut for some boards, read anew only where it is another than before. */
  private async sawsOf(
    boards: readonly { id: string; saw: string }[],
  ): Promise<(id: string) => Omit<SawState, 'promised'>> {
    const missing = boards.filter(({ id, saw }) => this.saws.get(id)?.state !== saw);
    const book = await sawBook(
      this.db,
      missing.filter((m) => m.saw !== '').map((m) => m.id),
    );
    const fresh = new Map(missing.map(({ id }) => [id, sawStateFor(book, id)]));
    const found = new Map(boards.map(({ id }) => [id, fresh.get(id) ?? this.saws.get(id)?.saw]));
    for (const { id, saw } of missing) this.saws.set(id, { state: saw, saw: entryOf(fresh, id) });
    return (id) => entryOf(found, id);
  }
}

/** Of all pieces that a board's strips could come from. */
function rackFor(board: Board, { ofSpecies, ofRack }: Common): readonly string[] {
  const looked = speciesLookedAt(board);
  return looked === null ? [ofRack] : [...looked].sort().map((code) => ofSpecies.get(code) ?? '');
}

const hashOf = (value: unknown): string => sha256(typeof value === 'string' ? value : JSON.stringify(value));
