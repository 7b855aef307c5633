import { length, say, type Phrase } from '../units/phrase.ts';
import { pressure } from '../units/quantity.ts';
import { joined } from '../steps/millingWords.ts';
import type { Failure, FailureCode } from './bench.ts';

const WORDS: Readonly<Record<FailureCode, string>> = {
  metalUnderBlade: 'metal comes under a blade or knife',
  badPlaceInPart: 'a place that must go is in the part',
  partTooShort: 'too short for the machine',
  tooNarrowForMachine: 'too narrow for the machine',
  tooThinForMachine: 'too thin for the machine',
  tooWideForMachine: 'too wide for the machine',
  tooThick: 'thicker than the saw cuts',
  trapped: 'a thin part is trapped between blade and fence',
  noStraightEdge: 'no straight edge to run along the fence',
  notFlat: 'no face was made flat',
  notEnoughThickness: 'the thickness that is asked is not there',
  notEnoughWidth: 'the width that is asked is not there',
  notEnoughLength: 'the length that is asked is not there',
  nothingToPlane: 'nothing is left to take off',
  noTool: 'the shop has no such tool',
  fewerClamps: 'the shop has no such clamps',
  glueTime: 'the glue sets before everything is closed',
  lowPressure: 'the clamps do not press the joints enough',
  missingPart: 'it was never made, or is used already',
  unusedPart: 'it was made and never used',
  markLost: 'the mark is cut away by a later step',
  finishOverFinish: 'a finish on a face that does not take it',
  oilyFace: 'an oily face was not wiped before the glue',
  stillWet: 'the step before was not done',
  sizes: 'it comes out at another size',
  wrongWood: 'it is another strip than was planned',
  endGrainKnives: 'knives meet bare end grain',
};

/** Failures whose two figures are counts, not lengths. */
const COUNTS: ReadonlySet<FailureCode> = new Set(['fewerClamps']);

/** Failures whose figures are pressures, MPa. */
const PRESSURES: ReadonlySet<FailureCode> = new Set(['lowPressure']);

/** What went wrong, in words, with its figures. */
export function failureText({ code, thing, mm }: Failure): Phrase {
  const figures =
    mm === null
      ? say``
      : COUNTS.has(code)
        ? say` (${mm.is}, and it takes ${mm.limit})`
        : PRESSURES.has(code)
          ? say` (${pressure(mm.is)}, and the wood wants ${pressure(mm.limit)})`
          : say` (${length(mm.is)}, and it takes ${length(mm.limit)})`;
  return joined(say`${thing}: ${WORDS[code]}`, figures);
}
