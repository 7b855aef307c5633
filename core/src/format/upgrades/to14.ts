import type { VersionStep } from './step.ts';

/** More can have happened at the bench: steps done, other sizes, failures, notes, pictures. What is there already stays as it is. */
export const TO_14 = { version: 14 } satisfies VersionStep;
