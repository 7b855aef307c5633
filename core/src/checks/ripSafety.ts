import { atMost, length, say } from '../units/phrase.ts';
import { SAFE_RIP_LENGTH_MM, SAFE_WIDTH_MM } from '../shop/tools.ts';
import { ofKind } from '../steps/instruction.ts';
import type { Found, Rule } from './finding.ts';

/** What must not go along a saw fence: short pieces, narrow rips, rough edges. */
export const ripSafety: Rule = (plan, { board, rack, shop }) => {
  const blanks = plan.cutting.blanks.filter((b) => !b.done);
  const fenced =
    shop.saw.kind === 'table' ||
    plan.operations
      .flatMap((o) => ofKind(o.instructions, 'rip'))
      .some((i) => i.guide === 'fence' || i.guide === 'stop');
  if (blanks.length === 0 || !fenced) return [];
  const findings: Found[] = [];
  const strips = (of: typeof blanks) =>
    [...new Set(of.flatMap((b) => b.strips.filter((s) => s.demand.spare === 0).map((s) => s.demand.strip)))].sort(
      (a, b) => a - b,
    );
  const short = shop.saw.kind === 'table' ? blanks.filter((b) => b.length < SAFE_RIP_LENGTH_MM) : [];
  if (short.length > 0) {
    findings.push({
      rule: 'short-rip',
      severity: 'caution',
      strips: strips(short),
      at: 'rip',
      what: say`Blanks of ${length(Math.min(...short.map((b) => b.length)))} are ripped at the fence; under ${length(SAFE_RIP_LENGTH_MM)} hands come close to the blade.`,
      why: say`A short piece turns at the fence, is caught by the back of the blade and thrown.`,
      waysOut: [
        say`Rip longer blanks and crosscut after.`,
        ...(board.count > 1 ? [say`Two boards to a panel make longer strips.`] : []),
        say`Rip them on the band saw, or on a carrier with hold-downs.`,
      ],
      source: "Common practice, 12 in; the saw's manual decides",
    });
  }
  // Rips with no room for a push stick are made against a stop outside the blade, or on a carrier; that they are is worth knowing.
  const narrow = blanks
    .map((b) => ({ ...b, strips: b.strips.filter((s) => shop.saw.kind === 'table' && s.way.rip < SAFE_WIDTH_MM) }))
    .filter((b) => b.strips.length > 0);
  if (narrow.length > 0) {
    findings.push({
      rule: 'narrow-rip',
      severity: 'caution',
      strips: strips(narrow),
      at: 'rip',
      what: say`Strips are ripped ${atMost(Math.min(...narrow.flatMap((b) => b.strips.map((s) => s.way.rip))))} wide; under ${length(SAFE_WIDTH_MM)} no push stick fits between guard and fence.`,
      why: say`Hands would be where the push stick should be: the steps let these strips fall free outside the blade, or put them on a carrier.`,
      waysOut: [say`Do it as the step says, not at the fence.`, say`Rip them on the band saw.`],
      source: "Common practice, 3/4 in; the saw's manual decides",
    });
  }
  if (shop.schools.straightEdge === 'offSaw') {
    const rough = rack.filter((p) => p.straight === 'none' && blanks.some((b) => b.pieceId === p.id));
    if (rough.length > 0) {
      findings.push({
        rule: 'rough-edge-at-fence',
        severity: 'stop',
        strips: strips(blanks.filter((b) => rough.some((p) => p.id === b.pieceId))),
        at: 'rip',
        what: say`${rough.map((p) => p.mark).join(', ')}: no edge is straight, and the first rip would run along it.`,
        why: say`A rough edge rocks at the fence; the blade pinches and throws the piece.`,
        waysOut: [
          say`Straighten one edge first: jointer, carrier sled, a batten stuck on, or a hand plane.`,
          say`Note on the piece which edge is straight, if one is.`,
        ],
        source: "Common practice; the saw's manual decides",
      });
    }
  }
  return findings;
};
