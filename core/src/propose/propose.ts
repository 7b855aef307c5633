import { grouped } from '../lists/grouped.ts';
import { certain, entryOf } from '../lists/there.ts';
import { allowancesFor } from '../board/allowances.ts';
import { newBoard, type Board, type Construction } from '../board/board.ts';
import { auditCut } from '../cutting/auditCut.ts';
import type { CutPlan, PromisedRange } from '../cutting/cutPlan.ts';
import { firstFit } from '../cutting/firstFit.ts';
import { sectionsFor, type Section } from '../cutting/sections.ts';
import { NOTHING_MADE } from '../facts/made.ts';
import type { PlanInput } from '../saw/planInput.ts';
import { cutProblemFor } from '../saw/cutForBoard.ts';
import type { Piece } from '../stock/piece.ts';
import { MM_PER_INCH, type UnitSystem } from '../units/length.ts';
import { length, say, type Phrase } from '../units/phrase.ts';
import { coloursOf, contrastOf, measuresOf, rhythmOf, sharesOf, symmetryOf, type Measures } from './measures.ts';
import { layPattern, PATTERNS, type Lath, type Palette, type Pattern } from './patterns.ts';
import { variedFirst, withStrengths, type Strength } from './lead.ts';
import { randomFrom, type Random } from './random.ts';
import { keepVaried, lightnessProfile, type Varied } from './variety.ts';
import { contradictions, piecesFor, type Wishes } from './wishes.ts';
import { asLook, LOOK_WORDS, lookOf, type Look } from '../board/looks.ts';
import { rowsOf } from '../board/again.ts';
import { AS_IT_LIES, flatRecipe, isCutAgain, stripsOf, withStrips, type Strip } from '../board/recipe.ts';

/** A board that can be cut, with what it is judged by and a sentence about it. */
export interface Proposal {
  board: Board;
  /** Feasible: nothing is missing. */
  cutting: CutPlan;
  measures: Measures;
  says: Phrase;
  /** The higher the better, by the stated measures together. */
  score: number;
  /** What is laid in it, or how it was cut again, and of which woods: two that share it are hard to tell apart. */
  theme: string;
  /** What it does best of all that are proposed; null where others do everything as well. */
  best: Strength | null;
}

export interface ProposeInput extends Omit<PlanInput, 'board' | 'saw'> {
  wishes: Wishes;
  promised: readonly PromisedRange[];
  /** Units that the maker reads: sizes and widths come in round figures of these. */
  system: UnitSystem;
}

export interface ProposeOptions {
  seed: number;
  /** Time, seconds; the search ends sooner when it has done all its rounds. */
  seconds: number;
  now(): number;
  onProgress?(proposals: Proposal[]): void;
  stop?(): boolean;
}

export type Proposed = { ok: true; proposals: Proposal[] } | { ok: false; why: Phrase[] };

/** Proposals that are kept. */
export const PROPOSAL_COUNT = 12;
/** Fixed numbers of rounds and tries, so that the same seed gives the same proposals wherever there is time for them. */
const ROUNDS = 16;
const TRIES_A_ROUND = 60;
/** The first so many each have a theme of their own. */
const LEADING = 6;
/** Sizes tried in a search: the rack's sections are worked out for each. */
const SIZES = 4;
/** More strips than this nobody glues for pleasure. */
const MOST_STRIPS = 40;
/** Flat strips wider than this cup noticeably, mm (common practice: 4 in). */
const WIDE_FLAT = 101.6;
/** Round figures, mm: of a board's sizes, of the width that a panel comes out at once its edges are trimmed, and of strips. */
const ROUND: Readonly<Record<UnitSystem, Record<'length' | 'width' | 'thickness' | 'trimmed' | 'strip', number>>> = {
  metric: { length: 10, width: 5, thickness: 1, trimmed: 1, strip: 0.1 },
  inch: {
    length: MM_PER_INCH / 2,
    width: MM_PER_INCH / 4,
    thickness: MM_PER_INCH / 16,
    trimmed: MM_PER_INCH / 16,
    strip: MM_PER_INCH / 32,
  },
};

function roundedDown(mm: number, step: number): number {
  return Math.floor(mm / step + 1e-9) * step;
}

/** The panel may be this much wider than wanted before strips give way, mm: the edges are trimmed anyhow. */
const TRIM_TOLERANCE = 1;

/**
 * Boards that could be made from the free rack: varied, each with a cut plan that leaves nothing missing, ranked by the stated measures.
 * The same input and seed give the same proposals as long as the time is enough for all rounds.
 */
export function propose(input: ProposeInput, options: ProposeOptions): Proposed {
  const { wishes, rack, species } = input;
  const why = contradictions(wishes, rack, species);
  if (why.length > 0) return { ok: false, why };
  const deadline = options.now() + options.seconds;
  const random = randomFrom(options.seed);
  const search = new Search({ ...input, rack: piecesFor(wishes, rack) }, random);
  if (search.settings.length === 0) {
    return {
      ok: false,
      why: [
        say`No piece gives a strip for a board from ${length(wishes.length.least)} by ${length(wishes.width.least)}, ${length(wishes.thickness.least)} thick. Allow a shorter or thinner board, another construction, or more pieces.`,
      ],
    };
  }
  let kept: Varied<Proposal>[] = [];
  const sorted = () =>
    withStrengths(
      variedFirst(
        kept.map((k) => k.item).sort((a, b) => b.score - a.score),
        LEADING,
      ),
    );
  for (let round = 0; round < ROUNDS; round += 1) {
    for (let i = 0; i < TRIES_A_ROUND; i += 1) {
      if (options.now() > deadline || options.stop?.()) return finish(sorted());
      const found = search.tryOne();
      if (found) kept = keepVaried(kept, found, PROPOSAL_COUNT);
    }
    options.onProgress?.(sorted());
  }
  return finish(sorted());
}

function finish(proposals: Proposal[]): Proposed {
  if (proposals.length > 0) return { ok: true, proposals };
  return {
    ok: false,
    why: [
      say`Nothing that was tried can be cut from this wood: there is too little of it, or the wishes are too narrow. Allow other sizes or species, or leave out symmetry and accents.`,
    ],
  };
}

/** A size and construction with what the rack gives for it. */
interface Setting {
  board: Board;
  sections: Section[];
  wanted: number;
}

class Search {
  readonly settings: Setting[];
  private readonly pieces: ReadonlyMap<string, Piece>;
  private readonly colours: Map<string, string>;

  constructor(
    private readonly input: ProposeInput,
    private readonly random: Random,
  ) {
    this.pieces = new Map(input.rack.map((p) => [p.id, p]));
    this.colours = coloursOf(input.species);
    const kinds: Construction[] =
      input.wishes.construction === 'either' ? ['edge', 'face'] : [input.wishes.construction];
    // Who does not mind how strips lie may be shown what else can be made of them.
    const looks: Look[] = input.wishes.construction === 'either' ? [...kinds, 'endGrain', 'chevron'] : kinds;
    this.settings = looks.flatMap((look) =>
      Array.from({ length: SIZES }, () => this.setting(look)).filter((s) => s.sections.length > 0),
    );
  }

  /** A round figure between two, or the least where none lies between them. */
  private between({ least, greatest }: { least: number; greatest: number }, step: number): number {
    const first = Math.ceil(least / step - 1e-9) * step;
    if (first > greatest + 1e-9) return least;
    const steps = Math.floor((greatest - first) / step + 1e-9);
    return first + this.random.below(steps + 1) * step;
  }

  private setting(look: Look): Setting {
    const { wishes, shop, rack, promised } = this.input;
    const steps = ROUND[this.input.system];
    const flat: Board = {
      ...newBoard(this.input.system),
      construction: look === 'face' ? 'face' : 'edge',
      length: this.between(wishes.length, steps.length),
      width: this.between(wishes.width, steps.width),
      thickness: this.between(wishes.thickness, steps.thickness),
    };
    const board = look === 'endGrain' || look === 'chevron' ? asLook(flat, look, this.input.system) : flat;
    const allowances = allowancesFor(board, shop, NOTHING_MADE);
    return {
      board,
      wanted: allowances.wantedPanelWidth,
      sections: sectionsFor(board, allowances, [...rack], shop, promised)
        .filter((s) => s.tooThinBy === 0)
        .map((s) => ({ ...s, width: roundedDown(s.width, steps.strip) })),
    };
  }

  /** One try: null when it comes to nothing. */
  tryOne(): Varied<Proposal> | null {
    const { wishes } = this.input;
    const setting = this.random.pick(this.settings);
    const pattern = this.patternFor();
    const palette = this.palette(setting, pattern);
    const mirrored = wishes.symmetry === 'yes' || (wishes.symmetry === 'either' && this.random.next() < 0.55);
    const laths = layPattern(pattern, palette, setting.wanted, mirrored, MOST_STRIPS, this.colours, this.random);
    if (
      !laths ||
      !this.countsSuffice(laths, setting.sections) ||
      (wishes.accents === 'yes' && !laths.some((l) => l.accent))
    )
      return null;
    const board = this.fit(laths, setting);
    if (!board || !this.meetsWishes(stripsOf(board))) return null;
    const { shop, species, rack, promised } = this.input;
    const problem = cutProblemFor([{ key: 'proposal', board, done: [] }], { rack, shop, species, promised });
    const cutting = firstFit(problem);
    if (
      cutting.shortages.length > 0 ||
      cutting.blanks.length === 0 ||
      auditCut(cutting.blanks, rack, promised, shop).length > 0
    )
      return null;
    const measures = measuresOf(board, cutting, this.pieces, shop.crosscutSaw.kerf, this.colours);
    const used = wishes.useUp === null ? 0 : this.shareUsed(cutting, wishes.useUp);
    if (wishes.useUp !== null && used === 0) return null;
    const recut = rowsOf(board, shop);
    const shown = { ...measures, glueLines: measures.glueLines + (recut ? recut.rows - 1 : 0) };
    const laid = symmetryOf(stripsOf(board)) === 1 && pattern === 'scattered' ? 'centre' : pattern;
    const named = this.named(board, laid);
    const woods = [...new Set(stripsOf(board).map((s) => s.species))].sort().join();
    const score = this.score(board, cutting, measures, used);
    return {
      item: {
        board: named,
        cutting,
        measures: shown,
        says: this.says(named, cutting, used),
        score,
        theme: `${recut ? lookOf(board) : laid}/${woods}`,
        best: null,
      },
      look: this.look(board, pattern),
      kind: [pattern, lookOf(board), ...new Set(stripsOf(board).map((s) => s.species))].sort().join(),
      score,
    };
  }

  private patternFor(): Pattern {
    const { accents, symmetry } = this.input.wishes;
    const possible = PATTERNS.filter(
      (p) =>
        (accents === 'yes' ? p === 'accents' || p === 'centre' : accents === 'no' ? p !== 'accents' : true) &&
        (symmetry === 'no' ? p !== 'centre' : true),
    );
    return this.random.pick(possible);
  }

  private palette({ sections }: Setting, pattern: Pattern): Palette {
    const { wishes } = this.input;
    const bySpecies = grouped(sections, (s) => s.species);
    const must = wishes.shares.filter((s) => s.least > 0).map((s) => s.species);
    const useUp = wishes.useUp === null ? undefined : this.pieces.get(wishes.useUp)?.species;
    const wanted = [...new Set([...must, ...(useUp === undefined ? [] : [useUp])])].filter((c) => bySpecies.has(c));
    const others = this.random.shuffled([...bySpecies.keys()].filter((c) => !wanted.includes(c)));
    const count = pattern === 'plain' ? 1 : pattern === 'shaded' ? 3 + this.random.below(2) : 2 + this.random.below(2);
    const codes = [...wanted, ...others].slice(
      0,
      Math.max(1, wanted.length, pattern === 'accents' ? 1 + this.random.below(2) : count),
    );
    const fields = this.random.shuffled(codes).map((code) => this.random.pick(widePart(entryOf(bySpecies, code))));
    const field = fields[0];
    const thin = this.random
      .shuffled([...bySpecies.keys()].filter((code) => code !== field?.species))
      .slice(0, 1)
      .map((code) => entryOf(bySpecies, code).reduce((a, b) => (b.width < a.width ? b : a)));
    return { fields, accent: wishes.accents === 'no' ? null : (thin[0] ?? null) };
  }

  /** Quick look before the cut plan: no kind is asked for more often than its species gives. */
  private countsSuffice(laths: readonly Lath[], sections: readonly Section[]): boolean {
    const wanted = new Map<string, number>();
    for (const l of laths) wanted.set(l.species, (wanted.get(l.species) ?? 0) + 1);
    return [...wanted].every(
      ([code, count]) => sections.reduce((sum, s) => (s.species === code ? sum + s.count : sum), 0) >= count,
    );
  }

  /** The board as wide as its strips make it where the wishes allow that; otherwise fields give way until it is as wide as wanted. */
  private fit(laid: readonly Lath[], { board, wanted }: Setting): Board | null {
    const { wishes, shop, system } = this.input;
    const { strip: grid, trimmed } = ROUND[system];
    const laths = laid.map((l) => ({ ...l, width: roundedDown(l.width, grid) }));
    const sum = laths.reduce((total, l) => total + l.width, 0);
    const strips = (list: readonly Lath[]) =>
      list.map((l, i) => ({ id: `p${i + 1}`, species: l.species, width: l.width, ...AS_IT_LIES }));
    const natural = roundedDown(sum - 2 * shop.habits.panelEdgeTrim, trimmed);
    const flat = !isCutAgain(board);
    if (flat && natural >= wishes.width.least && natural <= wishes.width.greatest)
      return { ...board, width: natural, recipe: flatRecipe(strips(laths)) };
    const over = sum - wanted;
    // What rows are sawn from may not be narrower than they are long.
    if (!flat && over < 0) return null;
    if (over <= TRIM_TOLERANCE) return withStrips(board, strips(laths));
    const fields = laths.filter((l) => !l.accent).reduce((total, l) => total + l.width, 0);
    const factor = (fields - over) / fields;
    // Planing much away is no use of wood.
    if (factor < 0.72) return null;
    return withStrips(
      board,
      strips(laths.map((l) => (l.accent ? l : { ...l, width: Math.ceil((l.width * factor) / grid) * grid }))),
    );
  }

  private meetsWishes(strips: readonly Strip[]): boolean {
    const { shares, symmetry } = this.input.wishes;
    if (symmetry === 'yes' && symmetryOf(strips) < 1) return false;
    if (symmetry === 'no' && symmetryOf(strips) === 1) return false;
    const has = sharesOf(strips);
    return shares.every(({ species, least, most }) => {
      const share = 100 * (has.get(species) ?? 0);
      return share >= least - 0.5 && share <= most + 0.5;
    });
  }

  private shareUsed(cutting: CutPlan, pieceId: string): number {
    const piece = this.pieces.get(pieceId);
    if (!piece) return 0;
    return Math.min(
      1,
      cutting.blanks.filter((b) => b.pieceId === pieceId).reduce((sum, b) => sum + b.length, 0) /
        (piece.length * piece.count),
    );
  }

  /** All measures brought to about 0 to 1 and added up; what the wishes ask for weighs more. */
  private score(board: Board, cutting: CutPlan, measures: Measures, used: number): number {
    const { wishes } = this.input;
    const volume = (board.length * board.width * board.thickness) / 1e9;
    const pieces = new Set(cutting.blanks.map((b) => `${b.pieceId}/${b.unit}`)).size;
    const widest = Math.max(...stripsOf(board).map((s) => s.width));
    return (
      Math.min(1, measures.contrast / 35) +
      measures.rhythm -
      (board.construction === 'face' ? Math.max(0, widest - WIDE_FLAT) / 100 : 0) +
      1.2 * Math.min(1, volume / Math.max(1e-9, measures.woodUsed - measures.woodLeft)) -
      0.006 * measures.glueLines * (wishes.fewestCuts ? 10 : 1) -
      0.03 * pieces * (wishes.fewestCuts ? 3 : 1) -
      measures.cost / Math.max(1, volume * 5000) / 4 +
      2 * used
    );
  }

  private named(board: Board, pattern: Pattern): Board {
    const shares = [...sharesOf(stripsOf(board))].sort((a, b) => b[1] - a[1]);
    const names = shares.slice(0, 2).map(([code]) => this.nameOf(code));
    const what = isCutAgain(board) ? LOOK_WORDS[lookOf(board)] : PATTERN_NAMES[pattern];
    return { ...board, name: `${names.join(' and ')}, ${what}`.slice(0, 120) };
  }

  private nameOf(code: string): string {
    return this.input.species.find((s) => s.code === code)?.name ?? code;
  }

  private says(board: Board, cutting: CutPlan, used: number): Phrase {
    const shares = [...sharesOf(stripsOf(board))]
      .sort((a, b) => b[1] - a[1])
      .map(([code, share]) => `${Math.round(100 * share)} % ${this.nameOf(code)}`);
    const marks = [...new Set(cutting.blanks.map((b) => this.pieces.get(b.pieceId)?.mark ?? ''))].sort();
    const order =
      symmetryOf(stripsOf(board)) === 1 && stripsOf(board).length > 2
        ? 'mirrored about the middle'
        : rhythmOf(stripsOf(board)) > 0.85 && stripsOf(board).length > 3
          ? 'in an even rhythm'
          : 'in free order';
    const colour =
      contrastOf(stripsOf(board), this.colours) > 25
        ? 'strong contrast'
        : contrastOf(stripsOf(board), this.colours) > 8
          ? 'gentle contrast'
          : 'one tone';
    const recut = rowsOf(board, this.input.shop);
    const made = recut
      ? `sawn into ${recut.rows} rows of ${LOOK_WORDS[lookOf(board)]}`
      : board.construction === 'edge'
        ? 'on edge'
        : 'lying flat';
    return say`${stripsOf(board).length} strips ${made}, ${order}, ${colour}: ${shares.join(', ')}. Cut from ${marks.join(', ')}${
      used > 0
        ? say`, which uses ${Math.round(100 * used)} % of ${entryOf(this.pieces, certain(this.input.wishes.useUp)).mark}`
        : say``
    }.`;
  }

  /** What a proposal looks like, as numbers: two that look alike lie close together. */
  private look(board: Board, pattern: Pattern): Varied<Proposal>['look'] {
    const shares = sharesOf(stripsOf(board));
    return [
      ...lightnessProfile(stripsOf(board), this.colours),
      ...[...this.colours.keys()].map((code) => (shares.get(code) ?? 0) * 0.7),
      ...PATTERNS.map((p) => (p === pattern ? 0.2 : 0)),
      stripsOf(board).length / 25,
      board.construction === 'edge' ? 0.25 : 0,
      // What is cut again looks like nothing that is not.
      lookOf(board) === 'endGrain' ? 1.2 : 0,
      lookOf(board) === 'chevron' ? 1.2 : 0,
      symmetryOf(stripsOf(board)) * 0.2,
    ];
  }
}

const PATTERN_NAMES: Readonly<Record<Pattern, string>> = {
  alternating: 'in turn',
  bands: 'in bands',
  accents: 'with fine lines',
  shaded: 'from light to dark',
  centre: 'about the middle',
  plain: 'all alike',
  scattered: 'scattered',
};

/** The wider half of what a species offers: fields are not cut from splinters. */
function widePart(sections: readonly Section[]): Section[] {
  const whole = sections.filter((s) => !s.resawn);
  const sorted = [...(whole.length > 0 ? whole : sections)].sort((a, b) => b.width - a.width);
  return sorted.slice(0, Math.max(1, Math.ceil(sorted.length / 2)));
}
