import { upgradeFile, type Json, type VersionStep } from './upgrades/step.ts';
import { TO_2 } from './upgrades/to2.ts';
import { TO_3 } from './upgrades/to3.ts';
import { TO_4 } from './upgrades/to4.ts';
import { TO_5 } from './upgrades/to5.ts';
import { TO_6 } from './upgrades/to6.ts';
import { TO_7 } from './upgrades/to7.ts';
import { TO_8 } from './upgrades/to8.ts';
import { TO_9 } from './upgrades/to9.ts';
import { TO_10 } from './upgrades/to10.ts';
import { TO_11 } from './upgrades/to11.ts';
import { TO_12 } from './upgrades/to12.ts';
import { TO_13 } from './upgrades/to13.ts';
import { TO_14 } from './upgrades/to14.ts';
import { TO_15 } from './upgrades/to15.ts';
import { TO_16 } from './upgrades/to16.ts';
import { completeFile } from './earlierForms.ts';

/** Every version after the first, in order: what it changed. A new version is one more file beside these, and one more entry. */
export const VERSION_STEPS: readonly VersionStep[] = [
  TO_2,
  TO_3,
  TO_4,
  TO_5,
  TO_6,
  TO_7,
  TO_8,
  TO_9,
  TO_10,
  TO_11,
  TO_12,
  TO_13,
  TO_14,
  TO_15,
  TO_16,
];

/** A board file of a version that was written, step by step up to the newest. */
export function upgradeToNewest(file: Json, version: number): Json {
  const steps = VERSION_STEPS.filter((step) => step.version > version);
  const upTo8 = steps.filter((step) => step.version <= 8).reduce(upgradeFile, file);
  // Versions 2 and 6 were written in several forms; what they lack is filled in with fields that version 8 still had.
  return steps.filter((step) => step.version > 8).reduce(upgradeFile, version <= 8 ? completeFile(upTo8) : upTo8);
}

// The database's own steps, by the names under which its sealed migrations know them.
export const upgradePieceTo2 = TO_2.piece;
export const upgradeBoardTo2 = TO_2.board;
export const upgradeShopTo2 = TO_2.shop;
export const upgradeBoardTo3 = TO_3.board;
export const upgradeShopTo3 = TO_3.shop;
export const upgradeSpeciesTo3 = TO_3.species;
export const upgradeBoardTo4 = TO_4.board;
export const upgradeShopTo4 = TO_4.shop;
export const upgradeShopTo5 = TO_5.shop;
export const upgradeBoardTo6 = TO_6.board;
export const upgradeShopTo6 = TO_6.shop;
export const upgradeBoardTo7 = TO_7.board;
export const upgradeShopTo7 = TO_7.shop;
export const upgradeBoardTo8 = TO_8.board;
export const upgradeBoardTo9 = TO_9.board;
export const factsOfBoardTo9 = TO_9.facts;
export const upgradeBoardTo10 = TO_10.board;
export const upgradeShopTo10 = TO_10.shop;
export const upgradeBoardTo12 = TO_12.board;
export const upgradeBoardTo13 = TO_13.board;
export const upgradeShopTo13 = TO_13.shop;
export const upgradeBoardTo15 = TO_15.board;
export const upgradeShopTo15 = TO_15.shop;
export const upgradeBoardTo16 = TO_16.board;
export const upgradeShopTo16 = TO_16.shop;
