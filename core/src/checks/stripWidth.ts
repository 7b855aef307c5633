import { nth } from '../lists/there.ts';
import { showsOf } from '../board/board.ts';
import { widestStrip } from '../cutting/sections.ts';
import { stripList } from '../steps/numberList.ts';
import type { Plan } from '../plan/plan.ts';
import type { Shop } from '../shop/shop.ts';
import { SAFE_WIDTH_MM } from '../shop/tools.ts';
import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import { capitalised, length, say, type Phrase } from '../units/phrase.ts';
import type { Found, Rule } from './finding.ts';
import { cutStripsOf } from '../board/recipe.ts';

/** Planing away less than this is ordinary milling. */
const ORDINARY_PLANING = 1.5;
/** Wider flat-sawn strips cup noticeably (common practice: 4 in). */
const WIDE_FLAT = 101.6;
const COMMON_PRACTICE = 'common practice';

/** What is said of strips, one or many. */
type Sentence = (strips: Phrase, many: boolean) => Phrase;

/** Each strip's width against what the rack gives, what the plane turns to chips, and what is safe to rip. Strips with which it stands alike are told together. */
export const stripWidth: Rule = (plan, { board, shop }) => {
  /** What was found, by rule and figure: its sentence is made once all strips it is about are known. */
  const findings = new Map<string, { finding: Omit<Found, 'strips' | 'what'>; strips: number[]; what: Sentence }>();
  const find = (figure: string, finding: Omit<Found, 'strips' | 'what'>, number: number, what: Sentence) => {
    const key = `${finding.rule}/${figure}`;
    findings.set(key, { finding, strips: [...(findings.get(key)?.strips ?? []), number], what });
  };
  const spent = planedAway(plan, shop);
  cutStripsOf(board).forEach((strip, i) => {
    const number = i + 1;
    // An accent is sawn from bits that are glued.
    if (strip.stack !== null) return;
    const planned = nth(plan.strips, i);
    const given = planned.sources.length >= plan.allowances.panels.length;
    // What lies the other way than the rest is not among the sections; the cut plan finds out.
    const widest = strip.rolled ? 0 : widestStrip(plan.sections, strip.species);
    const wide = Math.max(board.width, plan.allowances.wantedPanelWidth);
    // What is put in later is as wide as the maker likes, and takes no part in how the panel moves.
    const inPanel = i < plan.bodies.length;
    if (inPanel && strip.width > wide + LENGTH_TOLERANCE_MM) {
      find(
        String(strip.width),
        {
          rule: 'strip-wider-than-board',
          severity: 'stop',
          why: say`All of the difference would be trimmed away.`,
          waysOut: [say`Narrow the strip.`, say`Widen the board.`],
        },
        number,
        (strips, many) =>
          say`${strips} ${many ? 'are' : 'is'} ${length(strip.width)} wide, the whole board with its edge trims ${length(wide)}.`,
      );
    } else if (inPanel && !given && widest > 0 && strip.width > widest + LENGTH_TOLERANCE_MM) {
      find(
        `${strip.species}/${strip.width}`,
        {
          rule: 'width-not-in-rack',
          severity: 'stop',
          why: say`No piece gives that width.`,
          waysOut: [say`Set it to ${length(widest)} or less.`, say`Add wider or thicker stock to the rack.`],
        },
        number,
        (strips, many) =>
          say`${strips} ${many ? 'are' : 'is'} ${length(strip.width)} wide; the widest the rack gives in this species is ${length(widest)}.`,
      );
    }
    const chips = spent.get(number);
    if (chips) {
      find(
        `${chips.mark}/${strip.width}`,
        {
          rule: 'planed-away',
          severity: 'note',
          why: say`${chips.mark} gives ${length(strip.width + chips.planed)}; the rest goes to chips, pass after pass.`,
          waysOut: [
            say`Use ${length(strip.width + chips.planed)}.`,
            say`Resaw the blank first where the band saw allows it.`,
          ],
        },
        number,
        (strips, many) =>
          say`${strips} ${many ? 'come' : 'comes'} from ${chips.mark} and ${many ? 'are' : 'is'} planed ${length(chips.planed)} further than flat.`,
      );
    }
    if (
      showsOf(board.construction, strip) === 'face' &&
      inPanel &&
      nth(plan.bodies, i).piece?.rings !== 'quarter' &&
      strip.width > WIDE_FLAT
    ) {
      find(
        String(strip.width),
        {
          rule: 'wide-strip',
          severity: 'caution',
          source: COMMON_PRACTICE,
          why: say`A wide flat-sawn strip cups with the seasons and pulls the panel with it; up to ${length(WIDE_FLAT)} is usual.`,
          waysOut: [say`Split it in two and turn one half over.`, say`Take a quartered piece.`],
        },
        number,
        (strips, many) =>
          say`${strips} ${many ? 'lie' : 'lies'} flat and ${many ? 'are' : 'is'} ${length(strip.width)} wide.`,
      );
    }
    const narrowest = showsOf(board.construction, strip) === 'edge' ? planned.milled.width : planned.rough.width;
    if (narrowest < SAFE_WIDTH_MM) {
      find(
        String(narrowest),
        {
          rule: 'narrow-strip',
          severity: 'caution',
          why: say`Narrow strips break up, bind or get pulled in at a table saw or planer.`,
          waysOut: [
            say`Resaw on the band saw, plane on a carrier board, and cut one or two spares.`,
            say`Use a thin-rip stop outside the blade, as the saw's manual shows.`,
          ],
        },
        number,
        (strips, many) => say`${strips} ${many ? 'are' : 'is'} only ${length(narrowest)} wide.`,
      );
    }
  });
  return [...findings.values()].map(({ finding, strips, what }) => ({
    ...finding,
    strips,
    what: what(capitalised(stripList(strips)), strips.length > 1),
  }));
};

/** What is planed off strips that stand on edge beyond making them flat, by strip number: not where the rest of the wood is sawn off as another layer. */
function planedAway({ cutting, strips }: Plan, shop: Shop): Map<number, { mark: string; planed: number }> {
  const found = new Map<number, { mark: string; planed: number }>();
  for (const blank of cutting.blanks) {
    for (const { demand, way, layers, planed } of blank.strips) {
      if (demand.copy !== 1 || demand.spare > 0 || way.shows !== 'edge' || layers > 1) continue;
      const from = strips[demand.strip - 1]?.sources.find((s) => s.copy === 1);
      const further = planed - way.thickness;
      if (from && further > Math.max(ORDINARY_PLANING, shop.habits.skimSurfaced))
        found.set(demand.strip, { mark: from.mark, planed: further });
    }
  }
  return found;
}
