import { certain } from '../lists/there.ts';
import { formOfPart } from '../cutting/flattening.ts';
import { length, say } from '../units/phrase.ts';
import type { Found, Rule } from './finding.ts';

/** A part that rocks by more than this on the jointer's table is turned over or shimmed first, mm (common practice: a thick shaving). */
const MOST_ROCK = 1;

/** Stock that is dangerous as it lies: what rocks on a machine's table, and what others have driven metal into or painted. */
export const stockSafety: Rule = ({ cutting }, { rack, shop }) => {
  const findings: Found[] = [];
  const used = rack.filter((p) => cutting.blanks.some((b) => !b.done && b.pieceId === p.id));
  const strips = (ids: readonly string[]) =>
    [
      ...new Set(
        cutting.blanks.filter((b) => ids.includes(b.pieceId)).flatMap((b) => b.strips.map((s) => s.demand.strip)),
      ),
    ].sort((a, b) => a - b);
  const rock = used.flatMap((piece) => {
    const blank = certain(cutting.blanks.find((b) => b.pieceId === piece.id));
    const twist = piece.form ? formOfPart(piece.form, piece, { length: blank.length, width: piece.width }).twist : 0;
    return twist > MOST_ROCK ? [{ piece, twist }] : [];
  });
  if (rock.length > 0 && (shop.jointer || shop.planer)) {
    const worst = rock.reduce((a, b) => (b.twist > a.twist ? b : a));
    findings.push({
      rule: 'rocking-stock',
      severity: 'caution',
      strips: strips(rock.map((r) => r.piece.id)),
      at: 'flatten',
      what: say`A blank of ${worst.piece.mark} is twisted by ${length(worst.twist)}: it rocks on the ${shop.jointer ? "jointer's" : "machine's"} table.`,
      why: say`A piece that rocks tips into the cutter, and the hands with it.`,
      waysOut: [
        say`Plane the two high corners off by hand until it lies still.`,
        say`Shim it on a sled through the planer.`,
        say`Crosscut shorter: twist goes with the length.`,
      ],
      source: "Common practice; the machine's manual decides",
    });
  }
  const salvage = used.filter((p) => p.origin.kind === 'salvage');
  if (salvage.length > 0) {
    const metal = salvage.filter((p) => p.defects.some((d) => d.kind === 'screw' || d.kind === 'nail'));
    findings.push({
      rule: 'reclaimed-wood',
      severity: metal.length > 0 ? 'caution' : 'note',
      strips: strips(salvage.map((p) => p.id)),
      at: 'crosscut',
      what:
        metal.length > 0
          ? say`${metal.map((p) => p.mark).join(', ')}: salvage with screw or nail holes.`
          : say`${salvage.map((p) => p.mark).join(', ')} was something else before.`,
      why: say`A nail left in it breaks teeth and knives and throws their pieces; old paint may hold lead; treated wood never meets food.`,
      waysOut: [
        say`Metal detector over both faces and the edges before the first cut.`,
        say`Scrape paint outdoors with a mask, or leave that piece.`,
      ],
      source: 'Common practice',
    });
  }
  return findings;
};
