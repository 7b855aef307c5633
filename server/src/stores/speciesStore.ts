import { isDeepStrictEqual } from 'node:util';
import type { Knex } from 'knex';
import type { Board } from '#core/board/board.ts';
import type { FieldProblem } from '#core/format/fieldProblems.ts';
import type { Species } from '#core/wood/species.ts';
import { isFromBooks } from '#core/wood/handbookSpecies.ts';
import { invalid, notFound, Problem } from '../problem.ts';
import { poolOf } from './documentCache.ts';

type Named = 'lineColour' | 'sapColour' | 'foodNote' | 'movementSource' | 'cautionSource';
type SpeciesRow = Omit<Species, Named | 'oily' | 'bleeds'> & {
  line_colour: string;
  sap_colour: string;
  food_note: string;
  movement_source: string;
  caution_source: string;
  oily: number;
  bleeds: number;
};

export async function allSpecies(db: Knex): Promise<Species[]> {
  // The column compares letter for letter; people read names by the alphabet.
  const rows = await db<SpeciesRow>('species').select().orderByRaw('name collate utf8mb4_unicode_ci, code');
  return rows.map(toSpecies);
}

function toSpecies({
  line_colour,
  sap_colour,
  food_note,
  movement_source,
  caution_source,
  oily,
  bleeds,
  ...rest
}: SpeciesRow): Species {
  return {
    ...rest,
    oily: oily === 1,
    bleeds: bleeds === 1,
    lineColour: line_colour,
    sapColour: sap_colour,
    foodNote: food_note,
    movementSource: movement_source,
    cautionSource: caution_source,
  };
}

function toRow({ lineColour, sapColour, foodNote, movementSource, cautionSource, ...rest }: Species) {
  return {
    ...rest,
    line_colour: lineColour,
    sap_colour: sapColour,
    food_note: foodNote,
    movement_source: movementSource,
    caution_source: cautionSource,
  };
}

/**
 * Changes the figures of a species that was added by hand. Pieces and boards name it by its code, which stays.
 * @param before as whoever changes it saw it
 * @throws Problem 404 unknown, 409 from-books for one that comes with Cadenza, 409 stale when it was changed meanwhile, 409 name-taken
 */
export async function changeSpecies(tx: Knex.Transaction, before: Species, species: Species): Promise<void> {
  const { code } = species;
  const row = await tx<SpeciesRow>('species').where({ code }).forUpdate().first();
  if (!row) throw notFound('This species');
  const current = toSpecies(row);
  if (isFromBooks(current))
    throw new Problem(
      409,
      'from-books',
      `${current.name} comes with Cadenza and keeps the figures of its sources. Add one like it, and change that.`,
    );
  if (!isDeepStrictEqual(current, before))
    throw new Problem(409, 'stale', `${current.name} was changed meanwhile. Look at it again.`, [], { current });
  await refuseTwinName(tx, species);
  await tx('species').where({ code }).update(toRow(species));
}

/** Two species of one name could not be told apart in any list. @throws Problem 409 `name-taken` */
async function refuseTwinName(tx: Knex.Transaction, { code, name }: Species): Promise<void> {
  const others = await tx<SpeciesRow>('species').whereNot({ code }).select('name');
  const twin = others.find((other) => other.name.trim().toLowerCase() === name.trim().toLowerCase());
  if (!twin) return;
  const message = `Name: another species is called ${twin.name} already.`;
  throw new Problem(409, 'name-taken', message, [{ path: 'species.name', message }]);
}

/** Adds a species by hand; one that is known stays as it is. @throws Problem 409 name-taken when another has its name */
export async function addSpecies(tx: Knex.Transaction, species: Species): Promise<void> {
  const known = await tx<SpeciesRow>('species').where({ code: species.code }).first('code');
  if (known) return;
  await refuseTwinName(tx, species);
  await addMissingSpecies(tx, [species]);
}

/** Adds species that are not known yet; known ones stay as they are. */
export async function addMissingSpecies(tx: Knex.Transaction, species: readonly Species[]): Promise<void> {
  if (species.length === 0) return;
  added.add(tx);
  await tx('species').insert(species.map(toRow)).onConflict('code').ignore();
}

/** Codes that were seen, by pool: no species ever goes away. */
const seen = new WeakMap<object, Set<string>>();
/** Transactions that added species. */
const added = new WeakSet<object>();

/** Which of these codes are not those of a species. */
export async function unknownSpecies(db: Knex, codes: Iterable<string>): Promise<Set<string>> {
  const known = seen.get(poolOf(db)) ?? new Set<string>();
  const wanted = new Set([...codes].filter((code) => !known.has(code)));
  if (wanted.size === 0) return wanted;
  const found = (
    await db<{ code: string }>('species')
      .whereIn('code', [...wanted])
      .select('code')
  ).map((r) => r.code);
  for (const code of found) wanted.delete(code);
  // What this very transaction added may still be taken back: it is looked up again the next time.
  if (!added.has(db)) found.forEach((code) => known.add(code));
  seen.set(poolOf(db), known);
  return wanted;
}

/** Where a board names species that are not known, its versions included. */
export async function speciesProblems(db: Knex, board: Board): Promise<FieldProblem[]> {
  const layouts = [
    { at: '', label: '', recipe: board.recipe },
    ...board.versions.map((v, i) => ({ at: `versions[${i}].`, label: `Version ${i + 1}, `, recipe: v.recipe })),
  ];
  const unknown = await unknownSpecies(
    db,
    layouts.flatMap((l) => l.recipe.flatMap((o) => (o.kind === 'strip' ? [o.species] : []))),
  );
  return unknown.size === 0
    ? []
    : layouts.flatMap(({ at, label, recipe }) =>
        recipe.flatMap((o, i) =>
          o.kind === 'strip' && unknown.has(o.species)
            ? [
                {
                  path: `${at}recipe[${i}].species`,
                  message: `${label}${label ? 's' : 'S'}trip ${i + 1}: species "${o.species}" is not known.`,
                },
              ]
            : [],
        ),
      );
}

const MOST_NAMED = 20;

/** @throws Problem 400 naming each strip of a species that is not known */
export async function refuseUnknownSpecies(db: Knex, board: Board): Promise<void> {
  const problems = await speciesProblems(db, board);
  if (problems.length > 0) throw invalid(problems.slice(0, MOST_NAMED));
}
