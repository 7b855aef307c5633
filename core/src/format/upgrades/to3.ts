import { SPECIES_OF_3 } from './speciesOf3.ts';
import { each, isRecord, type Json, type VersionStep } from './step.ts';

/** Strips can be turned over, rolled and locked; boards have versions and seasons; species move and have cautions. */
export const TO_3 = {
  version: 3,
  board: (board: Json): Json => ({
    seasons: null,
    versions: [],
    ...board,
    strips: each(board.strips, (strip) => ({
      endForEnd: false,
      turned: false,
      rolled: false,
      locked: false,
      ...strip,
    })),
  }),
  shop: (shop: Json): Json => ({
    seasons: { dry: { temperature: 21, humidity: 30 }, damp: { temperature: 22, humidity: 60 } },
    ...shop,
    ...(isRecord(shop.habits) ? { habits: { edgeTreatment: 3.2, ...shop.habits } } : {}),
  }),
  /** A species that version 3 knew got its figures; one entered by hand had none yet. */
  species: (species: Json): Json => ({
    radial: null,
    tangential: null,
    dust: 'usual',
    bleeds: false,
    foodNote: '',
    sapColour: species.colour,
    movementSource: '',
    cautionSource: '',
    ...SPECIES_OF_3[String(species.code)],
    ...species,
  }),
} satisfies VersionStep;
