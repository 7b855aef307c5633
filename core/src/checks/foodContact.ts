import type { Species } from '../wood/species.ts';
import { say } from '../units/phrase.ts';
import type { Finding, Rule } from './finding.ts';

/** Softer than this dents and scores quickly under a knife (common practice: softer than soft maple). */
const SOFT_SIDE_HARDNESS = 3500;

/** Open pores and soft wood where food is cut: named, the choice stays with the maker. */
export const foodContact: Rule = (_plan, { board, species }) => {
  const strips = (wood: Species) => board.strips.flatMap((s, i) => (s.species === wood.code ? [i + 1] : []));
  const findings: Finding[] = [];
  for (const wood of species) {
    const where = strips(wood);
    if (where.length === 0) continue;
    if (wood.pores === 'ring') {
      findings.push({
        rule: 'open-pores', severity: 'caution', strips: where,
        what: say`${wood.name} has open pores.`, why: say`They hold dirt and moisture where food is cut.`,
        waysOut: [say`Use a close-grained wood such as maple or beech.`, say`Keep it, and tell the owner to dry the board well.`],
      });
    }
    if (wood.hardness !== null && wood.hardness < SOFT_SIDE_HARDNESS) {
      findings.push({
        rule: 'soft-wood', severity: 'caution', strips: where,
        what: say`${wood.name} is soft: ${wood.hardness} N side hardness.`, why: say`Knives score it quickly, and hard neighbours stand proud in time.`,
        waysOut: [say`Use a harder wood for a cutting surface.`],
      });
    }
  }
  return findings;
};
