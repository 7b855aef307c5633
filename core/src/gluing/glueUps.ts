import { firstOf, lastOf } from '../lists/there.ts';
import { slowness } from '../shop/gluing.ts';
import { glueOf, type Shop } from '../shop/shop.ts';
import { clampsFor, type ClampSet } from './clamping.ts';
import { glueUpId } from './glueUpId.ts';
import { chooseGroups, type Grouping } from './groups.ts';

/** One glue-up: what is put together at once. Strip numbers are 1-based and contiguous. */
export interface GlueUp {
  /** For good: it goes with the strips that are glued (`glueUpId`). */
  id: string;
  /** What it is called on the bench, by level and place. */
  name: string;
  /** 1 for groups of strips; higher levels join what lower levels made. */
  level: number;
  firstStrip: number;
  lastStrip: number;
  /** Ids of the glue-ups joined here; single strips are not among them. */
  joins: string[];
  /** Pieces laid side by side, and the joints between them. */
  parts: number;
  joints: number;
  /** Where its joints lie across it, mm from its first edge. */
  jointsAt: number[];
  /** Across the joints, mm. */
  width: number;
  /** From first glue until every joint is closed, and to the last clamp, minutes. */
  layingMinutes: number;
  assemblyMinutes: number;
  clamps: ClampSet;
  /** Grams of glue, one face of each joint. */
  grams: number;
  /** In clamps until the next step may take it, minutes. */
  waitMinutes: number;
}

export interface GluePlan {
  /** The glue's time at the room's temperature less the reserve, minutes: until everything is under pressure. */
  usableMinutes: number;
  /** The same until each joint is closed, and that without the reserve. */
  openMinutes: number;
  skinMinutes: number;
  /** Most pieces one glue-up can take in that time. */
  mostParts: number;
  /** In working order: groups first, joins after what they join. */
  glueUps: GlueUp[];
  /** Widest panel that anything in the shop flattens in one piece, where that decided the groups; null where it did not. */
  sectionWidth: number | null;
  /** Whether the maker's own groups are used. */
  byHand: boolean;
  /** How many glue-ups the clamps allow side by side, and minutes under clamps one after the other. */
  sideBySide: number;
  clampMinutes: number;
  clampMinutesEach: number;
}

/** What a panel is glued from, as far as gluing needs to know. Lengths in mm. */
export interface PanelToGlue {
  /** Widths of the strips as glued, and their ids. */
  widths: readonly number[];
  ids: readonly string[];
  /** Whether the pattern is the same from both edges. */
  symmetrical: boolean;
  length: number;
  /** Thickness of the panel when glued, and how far each strip stands over it; undefined where none does. */
  height: number;
  proud?: readonly number[];
  /** Janka hardness of the hardest species, N; null when not known. */
  hardness: number | null;
  helper: boolean;
  /** Sizes of the first groups that the maker chose; null lets the search choose. */
  groups: readonly number[] | null;
  /** Widest panel that can be flattened in one piece, mm. */
  flattens: number;
  /** Pressed through battens: clamps need not reach the middle of the joint. */
  battens?: boolean;
}

/** Clamps for a panel: one for every spacing of length, ends included, at least two. */
export function clampCount(panelLength: number, shop: Shop): number {
  return Math.max(2, Math.ceil(panelLength / shop.pace.clampSpacing));
}

/**
 * Minutes from the first glue until `parts` pieces lie together with every joint closed.
 * @param length of the joints, mm
 * @param height of the joints (thickness of the panel when glued), mm
 */
export function layingMinutes(parts: number, length: number, height: number, shop: Shop, helper = false): number {
  const jointArea = (length * height) / 1e6;
  const share = helper ? shop.pace.helperShare : 1;
  return share * ((parts - 1) * jointArea * shop.pace.spreadMinutesPerM2 + parts * shop.pace.placeMinutes);
}

/** Minutes from the first glue to the last clamp. @param clamps that are closed */
export function assemblyMinutes(
  parts: number,
  length: number,
  height: number,
  shop: Shop,
  helper = false,
  clamps = clampCount(length, shop),
): number {
  return layingMinutes(parts, length, height, shop, helper) + clamps * shop.pace.clampMinutes;
}

/** Clamps that are really closed: no more than the shop has; as many as are asked for while it has none, so that times mean something. */
function closed({ wanted, owned }: ClampSet): number {
  return owned > 0 ? Math.min(wanted, owned) : wanted;
}

/** Minutes a glue leaves in this room, less the reserve: until the joint is closed, and until it is under pressure; `skins` is its open time without the reserve, past which a joint is lost. */
export function usableGlueMinutes(shop: Shop): { open: number; closed: number; skins: number } {
  const { openMinutes, closedMinutes } = glueOf(shop);
  const slow = slowness(shop.room.temperature);
  const { reserve } = shop.pace;
  return { open: openMinutes * slow * reserve, closed: closedMinutes * slow * reserve, skins: openMinutes * slow };
}

/** Widths of groups, mm, first to last; single strips are no groups. */
function groupWidths(widths: readonly number[], sizes: readonly number[]): number[] {
  let at = 0;
  return sizes.flatMap((size) => {
    const width = widths.slice(at, at + size).reduce((sum, w) => sum + w, 0);
    at += size;
    return size > 1 ? [width] : [];
  });
}

/**
 * Splits strips into contiguous glue-ups that close in time and fit what flattens them, then joins the groups, again in time, until one panel
 * is left: fewest minutes under the clamps there are, then fewest levels, then the most even and symmetrical (`chooseGroups`). Two parts can always
 * be glued: a glue too quick for that is a finding, not an endless tree.
 * Check: 25 strips of a 16 to 18 in board make five groups of five and one join (common practice).
 */
export function planGlueUps(panel: PanelToGlue, shop: Shop): GluePlan {
  const { widths, length, helper } = panel;
  // Strips that are all left fat are pressed as tall as they are, until they are made level.
  const pressed = (first: number, last: number, level: boolean): number =>
    panel.height + (level || !panel.proud ? 0 : Math.min(...panel.proud.slice(first - 1, last)));
  const height = pressed(1, widths.length, widths.length === 0);
  const glue = glueOf(shop);
  const usable = usableGlueMinutes(shop);
  const { hardness, battens = false } = panel;
  const needed = (width: number, joints: number, tall = height) =>
    clampsFor({ length, height: tall, width, joints, hardness, battens }, shop);
  const widest = widths.reduce((sum, w) => sum + w, 0);
  const full = needed(widest, Math.max(1, widths.length - 1));
  let mostParts = 2;
  const inTime = (parts: number) =>
    layingMinutes(parts, length, height, shop, helper) <= usable.skins + 1e-9 &&
    assemblyMinutes(parts, length, height, shop, helper, closed(full)) <= usable.closed + 1e-9;
  while (mostParts < widths.length && inTime(mostParts + 1)) mostParts += 1;

  const sideBySide = Math.max(1, Math.floor(full.owned / Math.max(1, full.wanted)));
  const limit = widest > panel.flattens + 1e-6 ? panel.flattens : null;
  const slow = slowness(shop.room.temperature);
  const [handle, whole] = [glue.handleMinutes * slow, glue.clampMinutes * slow];
  const own = panel.groups && panel.groups.reduce((sum, g) => sum + g, 0) === widths.length ? panel.groups : null;
  const grouping: Grouping = chooseGroups({
    widths,
    mostParts,
    sectionWidth: limit,
    symmetrical: panel.symmetrical,
    sideBySide,
    groups: own,
    // A section is worked before it is joined: it stays in the clamps until it may be.
    groupMinutes: limit === null ? handle : whole,
    joinMinutes: limit === null ? handle : whole,
    lastMinutes: whole,
    handsMinutes: (parts) => assemblyMinutes(parts, length, height, shop, helper, closed(full)),
  });

  // Sections are flattened one by one only where all of them fit; groups of the maker's own may not.
  const sectionWidth =
    limit !== null && groupWidths(widths, grouping.levels[0] ?? []).every((w) => w <= limit + 1e-6) ? limit : null;
  const glueUps: GlueUp[] = [];
  let units = widths.map((width, i) => ({ first: i + 1, last: i + 1, id: '', width }));
  const stripsIn = ({ first, last }: { first: number; last: number }) => panel.ids.slice(first - 1, last);
  grouping.levels.forEach((sizes, i) => {
    const level = i + 1;
    let start = 0;
    let made = 0;
    units = sizes.map((size) => {
      const members = units.slice(start, start + size);
      start += size;
      const first = firstOf(members);
      const last = lastOf(members);
      if (size === 1) return first;
      made += 1;
      const id = glueUpId(members.map(stripsIn));
      const width = members.reduce((sum, m) => sum + m.width, 0);
      const jointsAt: number[] = [];
      members.slice(0, -1).reduce((at, m) => {
        jointsAt.push(at + m.width);
        return at + m.width;
      }, 0);
      const tall = pressed(first.first, last.last, level > 1 && sectionWidth !== null);
      const clamps = needed(width, size - 1, tall);
      glueUps.push({
        id,
        name: `G${level}.${made}`,
        level,
        firstStrip: first.first,
        lastStrip: last.last,
        joins: members.map((m) => m.id).filter((m) => m !== ''),
        parts: size,
        joints: size - 1,
        jointsAt,
        width,
        clamps,
        layingMinutes: layingMinutes(size, length, tall, shop, helper),
        assemblyMinutes: assemblyMinutes(size, length, tall, shop, helper, closed(clamps)),
        grams: ((size - 1) * length * tall * glue.gramsPerM2) / 1e6,
        waitMinutes: level === grouping.levels.length || sectionWidth !== null ? whole : handle,
      });
      return { first: first.first, last: last.last, id, width };
    });
  });
  return {
    usableMinutes: usable.closed,
    openMinutes: usable.open,
    skinMinutes: usable.skins,
    mostParts,
    glueUps,
    sectionWidth,
    byHand: own !== null,
    sideBySide,
    clampMinutes: grouping.minutes,
    clampMinutesEach: whole,
  };
}
