import { firstOf } from '../lists/there.ts';
import { edgeRip, faceRip, proudBy, proudFor, type Allowances } from '../board/allowances.ts';
import { showsOf } from '../board/board.ts';
import type { CutPlan } from '../cutting/cutPlan.ts';
import { thicknessAt } from '../stock/shape.ts';
import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import { cubicMetres } from '../units/volume.ts';
import type { Ladder } from '../ladders/ladder.ts';
import { gluedHeight, glueThicknessReached } from '../ladders/gluedThickness.ts';
import type { PlanContext } from '../ladders/context.ts';
import { cutStripsOf, type Strip } from '../board/recipe.ts';
import type { Species } from '../wood/species.ts';
import { bounds, volume, type Solid } from '../recipe/solid.ts';
import type { Workpiece } from '../recipe/workpiece.ts';
import { boardInCells } from './cells.ts';

export interface Size {
  length: number;
  width: number;
  thickness: number;
}

/** Where one copy's strip comes from. */
export interface StripSource {
  copy: number;
  pieceId: string;
  /** Which of identical pieces, 0-based. */
  unit: number;
  mark: string;
  blank: number;
  layer: number;
  layers: number;
  /** Cut already. */
  done: boolean;
}

/** A strip as the plan sees it. Sizes in mm: `width` across the panel, `thickness` up through it, `length` along it. */
export interface PlannedStrip {
  /** Number on the board, from 1. */
  number: number;
  id: string;
  species: string;
  /** Id of the stack that it is resawn from; null for one out of the rack. */
  stack: string | null;
  /** As it is taken from the stock: rough length, rip, stock thickness; before its glue faces are planed or jointed. */
  rough: Size;
  /** Ready for glue. */
  milled: Size;
  /** In the finished board. */
  finished: Size;
  /** Grams in the finished board; null for a species without figures. */
  grams: number | null;
  /** Turned over, as it lies in the first panel. */
  turned: boolean;
  sources: StripSource[];
}

/** @param planned the first panel and board in cells: what of each strip is in the board, and what it weighs, is read off those */
export function plannedStrips(
  context: PlanContext,
  ladders: { thickness: Ladder; width: Ladder },
  planned: { panel: Workpiece; board: Workpiece } | null,
): PlannedStrip[] {
  const { allowances, board, cutting, pieces, species } = context;
  const sourcesByStrip = new Map<number, StripSource[]>();
  /** How the first copy of each strip lies in the stock, and how thick that is there, at its thinner end. */
  const stockOf = new Map<string, { shows: 'edge' | 'face'; thickness: number }>();
  for (const blank of cutting.blanks) {
    const mark = pieces.get(blank.pieceId)?.mark ?? '';
    const piece = pieces.get(blank.pieceId);
    for (const { demand, layer, layers, way } of blank.strips) {
      if (demand.spare > 0) continue;
      if (piece && demand.copy === 1)
        stockOf.set(demand.stripId, {
          shows: way.shows,
          thickness: Math.min(thicknessAt(piece, blank.from), thicknessAt(piece, blank.from + blank.length)),
        });
      const list = sourcesByStrip.get(demand.strip) ?? [];
      list.push({
        copy: demand.copy,
        pieceId: blank.pieceId,
        unit: blank.unit,
        mark,
        blank: blank.number,
        layer,
        layers,
        done: blank.done,
      });
      sourcesByStrip.set(demand.strip, list);
    }
  }

  const glued = glueThicknessReached(context);
  const solids = (thing: Workpiece | undefined) =>
    new Map(thing?.cells.map((cell) => [cell.accent ?? cell.strip, cell.solid]));
  const made = solids(planned?.board);
  const grams = gramsIn(planned?.board, cutStripsOf(board), species);
  // Where nothing of the thickness is left, the panel still tells how wide each strip would be.
  const nothingLeft = planned !== null && ladders.thickness.reached <= LENGTH_TOLERANCE_MM;
  const { far } = context.trim;
  const unplaned = { x: 0, y: far, length: board.length, width: ladders.width.reached };
  const trimmed = nothingLeft ? solids(boardInCells(planned.panel, unplaned, glued)) : made;
  return cutStripsOf(board).map((strip, i) => {
    // What is put in later is as long as it must be for that.
    const loose = allowances.loose[strip.id];
    const height = gluedHeight(context, strip.id);
    const long = loose?.length ?? firstOf(allowances.panels).length;
    const sources = (sourcesByStrip.get(i + 1) ?? []).sort((a, b) => a.copy - b.copy);
    // Either way round where the maker allows it: the stock's thickness or the rip gives the width.
    const stock = stockOf.get(strip.id);
    const shows = stock?.shows ?? showsOf(board.construction, strip);
    const stockThickness = stock?.thickness ?? (shows === 'edge' ? strip.width : height);
    const rough =
      shows === 'edge'
        ? {
            width: stockThickness,
            thickness: edgeRip(
              {
                ...allowances,
                ...proudFor(allowances, board, strip),
                glueThickness: loose?.height ?? allowances.glueThickness,
              },
              strip.width,
            ),
          }
        : { width: faceRip(allowances, strip.width), thickness: stockThickness };
    const finished = {
      length: loose?.length ?? board.length,
      width: loose === undefined ? widthOf(trimmed.get(strip.id)) : strip.width,
      thickness: ladders.thickness.reached,
    };
    return {
      number: i + 1,
      id: strip.id,
      species: strip.species,
      stack: strip.stack,
      // A strip is as long as its panel, which may hold several boards.
      rough: { length: long, ...rough },
      milled: {
        length: long,
        width: strip.width,
        thickness: height + (shows === 'edge' ? proudBy(proudFor(allowances, board, strip), strip.width) : 0),
      },
      finished,
      turned: strip.turned !== (context.turnedOver[0]?.has(strip.id) ?? false),
      grams: grams(strip),
      sources,
    };
  });
}

/** What each strip weighs in a board, grams: of an accent its bits; null for a wood without figures. */
export function gramsIn(
  board: Workpiece | undefined,
  strips: readonly Pick<Strip, 'id' | 'species'>[],
  species: readonly Species[],
): (strip: Pick<Strip, 'id' | 'species'>) => number | null {
  const densities = new Map(species.map((s) => [s.code, s.density]));
  const woods = new Map(strips.map((s) => [s.id, densities.get(s.species)]));
  const grams = new Map<string, number | null>();
  for (const { strip, accent, solid } of board?.cells ?? []) {
    const density = woods.get(strip);
    const before = grams.get(accent ?? strip) ?? 0;
    const known = density !== undefined && grams.get(accent ?? strip) !== null;
    grams.set(accent ?? strip, known ? before + cubicMetres(volume(solid)) * density * 1000 : null);
  }
  return ({ id, species: code }) => grams.get(id) ?? (grams.has(id) || densities.get(code) === undefined ? null : 0);
}

/** How much of a strip shows across a board, mm. */
function widthOf(solid: Solid | undefined): number {
  if (!solid) return 0;
  const { least, greatest } = bounds(solid);
  return greatest[1] - least[1];
}

/** Strips that are cut for a board, alike in what they are cut to: one line of a cut list. */
export interface CutListLine {
  strips: PlannedStrip[];
  /** Marks of the pieces they come from. */
  marks: string[];
  /** As long as the panels they are for, mm. */
  length: number;
  /** One for each strip of each panel of that length. */
  count: number;
  /** Spares that are cut beside them. */
  spares: number;
}

/** The cut list: strips by species, section, source and the length of their panel. Its counts and lengths are those of the panels that are glued. */
export function cutList(
  strips: readonly PlannedStrip[],
  { panels, loose: beside }: Pick<Allowances, 'panels' | 'loose'>,
  cutting: CutPlan,
): CutListLine[] {
  const lengths = [...new Set(panels.map((p) => p.length))];
  const longest = Math.max(...lengths);
  const lines = new Map<string, CutListLine>();
  for (const strip of strips) {
    // Of bits whose turn never comes nothing is cut.
    if (beside[strip.id]?.own?.count === 0) continue;
    // What is put in later is of one length, whatever its panel.
    const loose = Math.abs(strip.rough.length - longest) > LENGTH_TOLERANCE_MM;
    for (const length of loose ? [strip.rough.length] : lengths) {
      const copies = panels.flatMap((p, i) => (loose || p.length === length ? [i + 1] : []));
      const marks = [...new Set(strip.sources.filter((s) => copies.includes(s.copy)).map((s) => s.mark))];
      const key = [
        strip.stack ?? strip.species,
        strip.milled.width.toFixed(4),
        strip.rough.width.toFixed(4),
        strip.rough.thickness.toFixed(4),
        length,
        marks.join(),
      ].join('|');
      const line = lines.get(key) ?? { strips: [], marks, length, count: 0, spares: 0 };
      line.strips.push(strip);
      line.count += copies.length;
      if (copies.includes(1))
        line.spares += cutting.blanks.reduce(
          (sum, b) => sum + b.strips.filter((s) => s.demand.spare > 0 && s.demand.stripId === strip.id).length,
          0,
        );
      lines.set(key, line);
    }
  }
  return [...lines.values()];
}
