import type { Knex } from 'knex';
import type { Species } from '#core/wood/species.ts';

type SpeciesRow = Omit<Species, 'lineColour' | 'oily'> & { line_colour: string; oily: number };

export async function allSpecies(db: Knex): Promise<Species[]> {
  const rows = await db<SpeciesRow>('species').select().orderBy('name');
  return rows.map(({ line_colour, oily, code, name, botanical, density, hardness, pores, colour, source }) => (
    { code, name, botanical, density, hardness, pores, oily: oily === 1, colour, lineColour: line_colour, source }));
}

/** Adds species that are not known yet; known ones stay as they are. */
export async function addMissingSpecies(db: Knex, species: readonly Species[]): Promise<void> {
  if (species.length === 0) return;
  await db('species').insert(species.map(({ lineColour, ...rest }) => ({ ...rest, line_colour: lineColour }))).onConflict('code').ignore();
}
