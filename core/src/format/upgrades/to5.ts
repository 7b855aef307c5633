import type { Json, VersionStep } from './step.ts';

/** A router of its own. */
export const TO_5 = {
  version: 5,
  shop: (shop: Json): Json => ({ router: { base: 150 }, ...shop }),
} satisfies VersionStep;
