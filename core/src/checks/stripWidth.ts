import { showsOf } from '../board/board.ts';
import { widestStrip } from '../cutting/sections.ts';
import { usableSize } from '../cutting/usable.ts';
import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import { length, say } from '../units/phrase.ts';
import type { Finding, Rule } from './finding.ts';

/** Planing away less than this is ordinary milling. */
const ORDINARY_PLANING = 1.5;
/** Wider flat-sawn strips cup noticeably (common practice: 4 in). */
const WIDE_FLAT = 101.6;
const COMMON_PRACTICE = 'common practice';
/** Rips narrower than this are not for hands at the fence (common practice: 3/4 in). */
const NARROW_RIP = 19;

/** Each strip's width against what the rack gives, what the plane turns to chips, and what is safe to rip. */
export const stripWidth: Rule = (plan, { board, rack, shop }) => {
  const findings: Finding[] = [];
  board.strips.forEach((strip, i) => {
    const strips = [i + 1];
    // What lies the other way than the rest is not among the sections; the cut plan finds out.
    const widest = strip.rolled ? 0 : widestStrip(plan.sections, strip.species);
    if (strip.width > board.width + LENGTH_TOLERANCE_MM) {
      findings.push({
        rule: 'strip-wider-than-board', severity: 'stop', strips,
        what: say`Strip ${i + 1} is ${length(strip.width)} wide, the whole board ${length(board.width)}.`,
        why: say`All of the difference would be trimmed away.`, waysOut: [say`Narrow the strip.`, say`Widen the board.`],
      });
    } else if (widest > 0 && strip.width > widest + LENGTH_TOLERANCE_MM) {
      findings.push({
        rule: 'width-not-in-rack', severity: 'stop', strips,
        what: say`Strip ${i + 1} is ${length(strip.width)} wide; the widest the rack gives in this species is ${length(widest)}.`,
        why: say`No piece gives that width.`,
        waysOut: [say`Set it to ${length(widest)} or less.`, say`Add wider or thicker stock to the rack.`],
      });
    } else if (showsOf(board.construction, strip) === 'edge') {
      const source = rack.find((piece) => piece.id === plan.strips[i]!.sources[0]?.pieceId);
      const planed = source ? usableSize(source, shop, { length: plan.allowances.roughLength, width: plan.allowances.glueThickness }).thickness - strip.width : 0;
      if (source && planed > ORDINARY_PLANING) {
        findings.push({
          rule: 'planed-away', severity: 'note', strips,
          what: say`Strip ${i + 1} comes from ${source.mark} and is planed ${length(planed)} further than flat.`,
          why: say`${source.mark} gives ${length(strip.width + planed)}; the rest goes to chips, pass after pass.`,
          waysOut: [say`Use ${length(strip.width + planed)}.`, say`Resaw the blank first where the band saw allows it.`],
        });
      }
    }
    if (showsOf(board.construction, strip) === 'face' && plan.bodies[i]!.piece?.rings !== 'quarter' && strip.width > WIDE_FLAT) {
      findings.push({
        rule: 'wide-strip', severity: 'caution', strips, source: COMMON_PRACTICE,
        what: say`Strip ${i + 1} lies flat and is ${length(strip.width)} wide.`,
        why: say`A wide flat-sawn strip cups with the seasons and pulls the panel with it; up to ${length(WIDE_FLAT)} is usual.`,
        waysOut: [say`Split it in two and turn one half over.`, say`Take a quartered piece.`],
      });
    }
    const planned = plan.strips[i]!;
    const narrowest = showsOf(board.construction, strip) === 'edge' ? planned.milled.width : planned.rough.width;
    if (narrowest < NARROW_RIP) {
      findings.push({
        rule: 'narrow-strip', severity: 'caution', strips,
        what: say`Strip ${i + 1} is only ${length(narrowest)} wide.`,
        why: say`Narrow strips break up, bind or get pulled in at a table saw or planer.`,
        waysOut: [say`Resaw it on the band saw, plane it on a carrier board, and cut one or two spares.`, say`Use a thin-rip stop outside the blade, as the saw's manual shows.`],
      });
    }
  });
  return findings;
};
