import { isRecord, type Json, type VersionStep } from './step.ts';

/** What is worked into a flat board, with the habits and questions it brings. */
export const TO_6 = {
  version: 6,
  board: (board: Json): Json => ({
    worked: {
      edges: null,
      corners: { kind: 'square', size: 0 },
      features: [],
      gluedLength: null,
      others: [],
      spots: [],
    },
    ...board,
  }),
  shop: (shop: Json): Json => ({
    ...shop,
    ...(isRecord(shop.habits) ? { habits: { leaveBeneath: 10, leaveBeside: 6, ...shop.habits } } : {}),
    ...(isRecord(shop.schools)
      ? { schools: { grooveOrder: 'before', engraving: 'beforeGrain', endGrain: 'never', ...shop.schools } }
      : {}),
  }),
} satisfies VersionStep;
