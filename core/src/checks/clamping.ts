import { certain, firstOf } from '../lists/there.ts';
import { clampCount } from '../shop/gluing.ts';
import { length, say } from '../units/phrase.ts';
import { pressure as pressureOf } from '../units/quantity.ts';
import type { Found, Rule } from './finding.ts';

/** Pressure is not better known than this, MPa. */
const PRESSURE_TOLERANCE = 0.004;

/** Enough clamps, long enough, deep enough, and hard enough. */
export const clamping: Rule = ({ gluing, allowances, stacks, again, frame }, { shop }) => {
  const [word, whole] =
    again?.gluing === gluing
      ? ([again.how === 'rows' ? 'rows' : 'pieces', 'block'] as const)
      : frame?.pairs.some((p) => p.gluing === gluing)
        ? (['pieces', 'framed board'] as const)
        : stacks.some((s) => s.gluing === gluing)
          ? (['bits', 'stack'] as const)
          : (['strips', 'panel'] as const);
  const { glueUps } = gluing;
  if (glueUps.length === 0) return [];
  const about = (id: string) => {
    const g = certain(glueUps.find((one) => one.id === id));
    return say`${g.joins.length > 0 ? 'Joining to' : 'Gluing'} ${word} ${g.firstStrip} to ${g.lastStrip}`;
  };
  const total = clampCount(shop.clamps);
  if (total === 0) {
    return [
      {
        rule: 'no-clamps',
        severity: 'stop',
        strips: [],
        at: 'glue',
        what: say`The shop has no clamps; this board asks for ${Math.max(...glueUps.map((g) => g.clamps.wanted))}.`,
        why: say`Glue only holds where the joint was pressed together while it set.`,
        waysOut: [
          say`Enter the clamps in Shop, borrowed ones too.`,
          say`Wedges between two battens screwed to a bench press a small panel.`,
        ],
      },
    ];
  }
  const findings: Found[] = [];
  const none = glueUps.find((g) => g.clamps.owned === 0);
  if (none) {
    const { tooShort, tooShallow } = none.clamps;
    findings.push(
      tooShallow > 0
        ? {
            rule: 'clamps-too-shallow',
            severity: 'stop',
            strips: [],
            at: 'glue',
            what: say`${about(none.id)}: the ${whole} is ${length(allowances.glueThickness)} thick, and no clamp that is long enough reaches its middle; the deepest reaches ${length(Math.max(...shop.clamps.map((c) => c.reach)))}.`,
            why: say`Pressed off its middle, a joint opens on the other face.`,
            waysOut: [
              say`Clamps on both faces over thick cauls bring the force to the middle.`,
              say`Make the board thinner.`,
            ],
          }
        : {
            rule: 'clamps-too-short',
            severity: 'stop',
            strips: [],
            at: 'glue',
            what: say`${about(none.id)}: ${length(none.width)} wide with pads beside it, and none of the ${tooShort} clamps opens so far; the longest opens ${length(Math.max(...shop.clamps.map((c) => c.opening)))}.`,
            why: say`No clamp gets round the panel.`,
            waysOut: [
              say`Two clamps hooked together, jaw to jaw, make a long one.`,
              say`Glue it against a stop screwed to the bench, with wedges.`,
              say`Make the board narrower.`,
            ],
          },
    );
    return findings;
  }
  const few = firstOf(
    [...glueUps].sort((a, b) => b.clamps.wanted - b.clamps.owned - (a.clamps.wanted - a.clamps.owned)),
  );
  const { wanted, owned, bySpacing, byPressure, pressure, wantedPressure } = few.clamps;
  if (wanted > owned) {
    findings.push({
      rule: 'few-clamps',
      severity: owned < 2 ? 'stop' : 'caution',
      strips: [],
      at: 'glue',
      what: say`${about(few.id)} asks for ${wanted} clamps; ${owned} of the shop's are long enough.`,
      why:
        byPressure > bySpacing
          ? say`With these the joint gets ${pressureOf(pressure)}; the wood wants ${pressureOf(wantedPressure)}.`
          : say`Between clamps that stand too far apart a joint opens, at the ends first.`,
      waysOut: [
        say`Borrow ${wanted - owned}.`,
        say`Thick cauls along both edges spread the force of fewer clamps.`,
        say`Glue fewer strips at once, and a shorter panel.`,
      ],
      source:
        byPressure > bySpacing
          ? "Adhesive makers' usual advice for dense hardwoods, 1.2 to 1.7 MPa, from memory"
          : 'Common practice: a clamp every so much of the length, as set in Shop',
    });
  }
  const weak = glueUps.find(
    (g) => g.clamps.wanted <= g.clamps.owned && g.clamps.pressure < g.clamps.wantedPressure - PRESSURE_TOLERANCE,
  );
  if (findings.length === 0 && weak)
    findings.push({
      rule: 'few-clamps',
      severity: 'caution',
      strips: [],
      at: 'glue',
      what: say`${about(weak.id)}: with ${weak.clamps.placed.length} clamps it gets ${pressureOf(weak.clamps.pressure)} of ${pressureOf(weak.clamps.wantedPressure)}, and no more find room beside each other.`,
      why: say`What is pressed less than its wood wants holds less.`,
      waysOut: [say`Stronger clamps.`, say`A press, or a vacuum bag, over thick cauls.`],
      source: "Adhesive makers' usual advice for dense hardwoods, 1.2 to 1.7 MPa, from memory",
    });
  return findings;
};
