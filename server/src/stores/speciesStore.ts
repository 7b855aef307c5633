import type { Knex } from 'knex';
import type { Species } from '#core/wood/species.ts';

type Named = 'lineColour' | 'sapColour' | 'foodNote' | 'movementSource' | 'cautionSource';
type SpeciesRow = Omit<Species, Named | 'oily' | 'bleeds'> & {
  line_colour: string; sap_colour: string; food_note: string; movement_source: string; caution_source: string; oily: number; bleeds: number;
};

export async function allSpecies(db: Knex): Promise<Species[]> {
  const rows = await db<SpeciesRow>('species').select().orderBy('name');
  return rows.map(({ line_colour, sap_colour, food_note, movement_source, caution_source, oily, bleeds, ...rest }) => ({
    ...rest, oily: oily === 1, bleeds: bleeds === 1, lineColour: line_colour, sapColour: sap_colour, foodNote: food_note, movementSource: movement_source, cautionSource: caution_source,
  }));
}

/** Adds species that are not known yet; known ones stay as they are. */
export async function addMissingSpecies(db: Knex, species: readonly Species[]): Promise<void> {
  if (species.length === 0) return;
  await db('species').insert(species.map(({ lineColour, sapColour, foodNote, movementSource, cautionSource, ...rest }) => ({
    ...rest, line_colour: lineColour, sap_colour: sapColour, food_note: foodNote, movement_source: movementSource, caution_source: cautionSource,
  }))).onConflict('code').ignore();
}
