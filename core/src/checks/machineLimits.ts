import { lastOf, nth } from '../lists/there.ts';
import { flattenerLimits } from '../shop/flattener.ts';
import { ofKind } from '../steps/instruction.ts';
import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import { length, say, type Phrase } from '../units/phrase.ts';
import type { Found, Rule } from './finding.ts';
import { stripsOf } from '../board/recipe.ts';

/** Longer than this somebody should know before he begins, minutes. */
const LONG_MINUTES = 120;

/** Wood that is planed thinner than the planer takes. */
const tooThin = (what: string, to: readonly number[], least: number, instead: Phrase): Found => ({
  rule: 'thin-for-planer',
  severity: 'caution',
  strips: [],
  what: say`${what} are planed to ${length(Math.min(...to))}; the planer goes down to ${length(least)}.`,
  why: say`Thinner wood breaks up between the rollers, and its pieces are thrown.`,
  waysOut: [say`Plane them on a carrier board of even thickness, or use a drum sander.`, instead],
});

/** Stock, blanks and panel against the widths, lengths and depths the machines allow. */
export const machineLimits: Rule = (plan, { board, rack, shop }) => {
  const { saw } = shop;
  const planer = flattenerLimits(shop);
  if (stripsOf(board).length === 0) return [];
  const findings: Found[] = [];
  const used = new Set(plan.cutting.blanks.map((b) => b.pieceId));
  for (const piece of rack) {
    if (!used.has(piece.id) || piece.width <= planer.width) continue;
    const strips = plan.strips
      .filter((s) => s.sources.some((source) => source.pieceId === piece.id))
      .map((s) => s.number);
    const widest = Math.max(
      ...plan.cutting.blanks.filter((b) => b.pieceId === piece.id).flatMap((b) => b.strips.map((s) => s.way.rip)),
    );
    if (widest > piece.width / 2) {
      findings.push({
        rule: 'strip-wider-than-half',
        severity: 'caution',
        strips,
        at: 'flatten',
        what: say`${piece.mark} is ${length(piece.width)} wide, the planer takes ${length(planer.width)}, and a strip of ${length(widest)} is cut from it: it cannot be ripped in two first.`,
        why: say`Ripped in two, the strip would be gone.`,
        waysOut: [
          say`Flatten it by hand or with a router sled.`,
          say`Two narrower strips in its place, glued side by side.`,
          say`Take a narrower piece.`,
        ],
      });
      continue;
    }
    findings.push({
      rule: 'blank-wider-than-planer',
      severity: 'caution',
      strips,
      at: 'flatten',
      what: say`${piece.mark} is ${length(piece.width)} wide; the planer takes ${length(planer.width)}.`,
      why: say`It cannot be flattened in one piece on this machine.`,
      waysOut: [
        say`Rip the blanks of ${piece.mark} in two before flattening.`,
        say`Flatten one face by hand or with a router sled.`,
      ],
    });
  }
  const flattens = plan.operations.find((o) => o.kind === 'flattenPanel');
  if (plan.panelWidth > planer.width && flattens) {
    const others = plan.flattening.filter((w) => w.cannot === null && w.owned);
    findings.push({
      rule: 'panel-wider-than-planer',
      severity: 'caution',
      strips: [],
      at: 'flattenPanel',
      what: say`The panel is ${length(plan.panelWidth)} wide; the planer takes ${length(planer.width)}.`,
      why:
        plan.gluing.sectionWidth === null
          ? say`It cannot be flattened in one piece on this machine.`
          : say`It cannot be flattened in one piece on this machine: it is glued in sections that fit, and only its joints are levelled at the end.`,
      waysOut:
        others.length > 0
          ? others.map((w) => say`${w.name}: ${Math.round(w.minutes)} min.`)
          : [say`Drum sander, router sled, belt sander or a long hand plane.`],
    });
  }
  // What no machine does takes an evening; better known before than at the bench.
  for (const step of plan.operations.filter(
    (o) => (o.kind === 'flatten' || o.kind === 'flattenPanel') && o.minutes > LONG_MINUTES,
  )) {
    const quicker = step.ways
      .filter((w) => w.cannot === null && !w.owned && w.minutes < step.minutes / 2)
      .sort((a, b) => a.minutes - b.minutes)[0];
    findings.push({
      rule: 'slow-flattening',
      severity: 'caution',
      strips: [],
      at: step.kind,
      what: say`Flattening ${step.kind === 'flatten' ? 'the stock' : 'the panel'} takes ${(step.minutes / 60).toFixed(1)} h (${step.machine ?? 'by hand'}).`,
      why: say`The shop has nothing quicker for this size; a hurried surface is dished, and its joints gap.`,
      waysOut: [
        ...(quicker ? [say`${quicker.name}, borrowed or in another shop: ${Math.round(quicker.minutes)} min.`] : []),
        say`Buy stock that is surfaced on both faces: then hardly anything has to go.`,
      ],
      source: 'Common practice; the pace is set in Shop',
    });
  }
  const idle = plan.operations.filter(
    (o) =>
      (o.kind === 'flattenPanel' || o.kind === 'flatten') &&
      o.ways.length > 0 &&
      !o.ways.some((w) => w.owned && w.cannot === null),
  );
  for (const step of idle) {
    const [quickest] = step.ways.filter((w) => w.cannot === null).sort((a, b) => a.minutes - b.minutes);
    findings.push({
      rule: 'nothing-to-flatten-with',
      severity: 'stop',
      strips: [],
      at: step.kind,
      what: say`Nothing in the shop makes ${step.kind === 'flatten' ? 'this stock' : 'the panel'} flat.`,
      why: say`Joints that are not flat do not close.`,
      waysOut: [
        say`${quickest ? `${quickest.name}: ${Math.round(quickest.minutes)} min` : 'A router sled'}, borrowed or in another shop.`,
        say`Buy stock that is surfaced on four sides.`,
      ],
    });
  }
  const flattenedShort =
    plan.cutting.blanks.length === 0 ||
    plan.cutting.blanks.some((b) => !b.done && b.strips.some((s) => s.order !== 'fullLength'));
  // The last panel of a batch may hold fewer boards, and its parts are shorter.
  const shortest = lastOf(plan.allowances.panels).length;
  if (shortest < planer.leastLength - LENGTH_TOLERANCE_MM && flattenedShort) {
    findings.push({
      rule: 'short-for-planer',
      severity: 'stop',
      strips: [],
      at: 'flatten',
      what: say`Blanks are ${length(shortest)} long; jointer and planer want at least ${length(planer.leastLength)}.`,
      why: say`A short piece can tip between the rollers and be thrown.`,
      waysOut: [
        say`Mill the pieces at double length and crosscut after planing.`,
        say`Make the board at least ${length(board.length + planer.leastLength - shortest)} long.`,
      ],
    });
  }
  const below = (mm: number) => mm < planer.leastThickness - LENGTH_TOLERANCE_MM;
  const thin = plan.cutting.blanks.flatMap((b) =>
    b.strips.filter((s) => s.demand.spare === 0 && below(s.way.thickness)),
  );
  if (thin.length > 0)
    findings.push({
      ...tooThin(
        'These strips',
        thin.map((s) => s.way.thickness),
        planer.leastThickness,
        say`Leave them fat, and flush them after the glue-up.`,
      ),
      at: 'planeStrips',
      strips: [...new Set(thin.map((s) => s.demand.strip))].sort((a, b) => a - b),
    });
  const low = plan.operations
    .filter((o) => o.kind === 'flattenSections')
    .flatMap((o) => ofKind(o.instructions, 'flatten'))
    .filter((f) => f.tool === 'planer' && below(f.to));
  if (low.length > 0)
    findings.push({
      ...tooThin(
        'Sections and strips beside them',
        low.map((f) => f.to),
        planer.leastThickness,
        say`Glue all strips in one go.`,
      ),
      at: 'flattenSections',
    });
  if (shop.planer) {
    const { leastWidth } = shop.planer;
    const flattened = plan.operations
      .filter((o) => o.kind === 'flatten')
      .flatMap((o) => ofKind(o.instructions, 'flatten'))
      .flatMap((i) => (i.tool === 'planer' ? i.parts.map((part, k) => ({ part, width: nth(i.faces, k).width })) : []))
      .filter((f) => f.width < leastWidth - LENGTH_TOLERANCE_MM);
    if (flattened.length > 0) {
      findings.push({
        rule: 'narrow-for-planer',
        severity: 'caution',
        strips: [],
        at: 'flatten',
        what: say`${flattened.map((f) => f.part.label).join(', ')}: ${length(Math.min(...flattened.map((f) => f.width)))} wide on the planer, which wants at least ${length(leastWidth)}.`,
        why: say`A narrow part tips over between the rollers.`,
        waysOut: [say`Plane narrow parts side by side, or stuck on a carrier board.`, say`Flatten them by hand.`],
      });
    }
  }
  const ready = rack
    .filter((p) => p.surface === 'ready' && plan.cutting.blanks.some((b) => !b.done && b.pieceId === p.id))
    .map((p) => p.thickness);
  const thickest = Math.max(
    0,
    ...ready,
    ...plan.operations
      .flatMap((o) => ofKind(o.instructions, 'flatten'))
      .filter((i) => i.parts.some((p) => !p.id.startsWith('panel')))
      .map((i) => i.to),
  );
  if (thickest > saw.cutDepth + LENGTH_TOLERANCE_MM && plan.operations.some((o) => o.kind === 'rip')) {
    findings.push({
      rule: 'deeper-than-saw',
      severity: 'caution',
      strips: [],
      at: 'rip',
      what: say`Blanks are ripped ${length(thickest)} thick; the saw cuts ${length(saw.cutDepth)}.`,
      why: say`The blade does not come through: what is not sawn through binds it.`,
      waysOut: [say`Rip from both faces, the same edge to the fence, or on the band saw.`, say`Take thinner stock.`],
    });
  }
  return [...findings, ...deeperThanSaw('panel', plan.allowances.glueThickness, saw.cutDepth)];
};

/** A whole that the saw does not come through when it is trimmed. @param thick and cutDepth in mm */
export function deeperThanSaw(whole: 'panel' | 'backed board', thick: number, cutDepth: number): Found[] {
  if (thick <= cutDepth) return [];
  return [
    {
      rule: 'deeper-than-saw',
      severity: 'caution',
      strips: [],
      at: 'trimEdges',
      what: say`The ${whole} is ${length(thick)} thick; the saw cuts ${length(cutDepth)}.`,
      why: say`The blade does not come through when the ${whole} is trimmed.`,
      waysOut: [say`Trim from both faces, or with a hand saw and plane.`, say`Make the board thinner.`],
    },
  ];
}
