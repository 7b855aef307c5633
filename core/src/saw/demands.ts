import { nth } from '../lists/there.ts';
import { showsOf } from '../board/board.ts';
import { edgeRip, faceRip, proudFor, type Allowances, type LooseStrip } from '../board/allowances.ts';
import type { Board } from '../board/board.ts';
import type { StripDemand, Way } from '../cutting/cutPlan.ts';
import { readBackward } from '../recipe/evaluate.ts';
import type { Triple } from '../recipe/motion.ts';
import { stripBackward } from '../recipe/stripOperation.ts';
import type { Shop } from '../shop/shop.ts';
import { cutStripsOf, panelRecipe, type Strip, type StripOperation } from '../board/recipe.ts';

/**
 * What the board asks of the rack, read backward along its recipe from each of its panels: one demand for each strip of each panel, for each strip that is glued on later, and the spares. Edge grain takes the visible width from the stock's
 * thickness and rips the board's thickness; face grain the other way round; either way when the maker allows it.
 * @param key names the board among several that are cut from one rack
 */
export function demandsFor(board: Board, allowances: Allowances, shop: Shop, key = ''): StripDemand[] {
  const groups = new Map(board.cutting.together.flatMap((ids, i) => ids.map((id) => [id, `group ${i + 1}`] as const)));
  const pins = new Map<string, string[]>();
  for (const { strip, piece } of board.cutting.pins) pins.set(strip, [...(pins.get(strip) ?? []), piece]);
  const kinds = new Map<string, StripDemand>();
  const demands: StripDemand[] = [];
  const ask = (strip: Strip, number: number, copy: number, size: Triple) => {
    // An accent is made of bits that are cut from strips of their own.
    if (strip.stack !== null) return;
    const loose = allowances.loose[strip.id];
    const demand: StripDemand = {
      board: key,
      strip: number,
      stripId: strip.id,
      copy,
      spare: 0,
      species: strip.species,
      length: size[0],
      ways: waysOf(board, strip, size, allowances),
      from: pins.get(strip.id) ?? null,
      // Only strips of one length come out of one blank.
      together: loose ? null : (groups.get(strip.id) ?? null),
    };
    demands.push(demand);
    const kind = `${strip.species}/${strip.width}/${loose ? `${loose.length}/${loose.height}` : ''}`;
    if (!kinds.has(kind)) kinds.set(kind, demand);
  };
  const height = allowances.glueThickness;
  const looseSize = (strip: StripOperation, { length, height: own }: LooseStrip) =>
    stripBackward(strip, { length, height: own ?? height });
  allowances.panels.forEach(({ length }, panel) => {
    const wanted = readBackward(panelRecipe(board.recipe), { length, height });
    cutStripsOf(board).forEach((strip, i) => {
      const loose = allowances.loose[strip.id];
      const size = loose ? (loose.own === null ? looseSize(strip, loose) : undefined) : wanted.get(strip.id);
      if (size) ask(strip, i + 1, panel + 1, size);
    });
  });
  cutStripsOf(board).forEach((strip, i) => {
    const loose = allowances.loose[strip.id];
    for (let copy = 1; copy <= (loose?.own?.count ?? 0); copy += 1)
      if (loose) ask(strip, i + 1, copy, looseSize(strip, loose));
  });
  for (const first of kinds.values()) {
    const thin = nth(cutStripsOf(board), first.strip - 1).width <= shop.cutting.spareBelow;
    const spares = board.cutting.spares + (thin ? shop.cutting.spares : 0);
    for (let spare = 1; spare <= spares; spare += 1)
      demands.push({ ...first, copy: 1, spare, from: null, together: null });
  }
  return demands;
}

/** The ways to get a strip of a size, the usual one first. @param size along, across and up as it lies in the panel, mm */
function waysOf(board: Board, strip: Strip, [, width, height]: Triple, allowances: Allowances): Way[] {
  const edge: Way = {
    shows: 'edge',
    rip: edgeRip({ ...allowances, ...proudFor(allowances, board, strip), glueThickness: height }, width),
    thickness: width,
  };
  const face: Way = { shows: 'face', rip: faceRip(allowances, width), thickness: height };
  const usual = showsOf(board.construction, strip) === 'edge' ? [edge, face] : [face, edge];
  return board.cutting.eitherWay ? usual : usual.slice(0, 1);
}
