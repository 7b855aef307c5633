import type { Blank, CutPlan, RippedStrip } from '../cutting/cutPlan.ts';
import type { Defect, DefectFace } from '../stock/defect.ts';
import type { Piece } from '../stock/piece.ts';
import { thicknessAt } from '../stock/shape.ts';
import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import { showsOf, type Board } from '../board/board.ts';
import type { Allowances } from '../board/allowances.ts';
import { shareStart, type TrimLayout } from '../trim/trimLayout.ts';
import { type Strip, stripsOf } from '../board/recipe.ts';
import { movedBy, plus, type Motion, type Triple } from '../recipe/motion.ts';

/**
 * A strip of the board as the box of wood that it is in its piece. The axes are those of the board (its length, its width in the order of the strips, and
 * up out of its show side) told as directions in the piece.
 */
export interface StripBody extends Motion {
  /** Null when the rack gives no piece for it. */
  piece: Piece | null;
  /** Which of identical pieces, 0-based. */
  unit: number;
  shows: 'edge' | 'face';
  /** Length, width in the panel and thickness as glued, mm. */
  size: Triple;
}

const UNTURNED = { turned: false, endForEnd: false };
const minus = (a: Triple): Triple => [-a[0], -a[1], -a[2]];

/** A point of the body as a point in its piece: along from its marked end, across from its near edge, up from its lower face. @param at mm along, across and up from the body's corner */
export function inPiece(body: StripBody, at: Triple): Triple {
  return movedBy(body, at);
}

/**
 * Where each strip of a board's first copy lies in its piece, in the order of the strips. Unturned, a strip standing on edge shows the edge that lay nearest
 * in its piece, one lying flat the upper face; turning it over is half a turn about its length, end for end half a turn about the upright.
 * @param copy which panel of a batch @param strips other ones than those of the panel
 * @param size of each strip for one board; `start` is where that board's share begins along a blank that holds several, mm
 */
export function stripBodies(
  board: Pick<Board, 'construction' | 'recipe'>,
  cutting: CutPlan,
  pieces: ReadonlyMap<string, Piece>,
  size: { length: number; thickness: number; start: number },
  copy = 1,
  strips: readonly Strip[] = stripsOf(board),
): StripBody[] {
  const sources = new Map(
    cutting.blanks.flatMap((blank) =>
      blank.strips
        .filter((s) => s.demand.copy === copy && s.demand.spare === 0)
        .map((strip) => [strip.demand.stripId, { blank, strip }]),
    ),
  );
  return strips.map((strip) => {
    const source = sources.get(strip.id);
    const piece = source && pieces.get(source.blank.pieceId);
    if (!source || !piece)
      return turned(
        strip,
        {
          piece: null,
          unit: 0,
          ...flatOrOnEdge(showsOf(board.construction, strip)),
          size: [size.length, strip.width, size.thickness],
        },
        [0, 0, 0],
      );
    const { way, from, planed } = source.strip;
    const axes = flatOrOnEdge(way.shows);
    const bodySize: Triple = [size.length, strip.width, size.thickness];
    // The middle of the ripping, or of its layer when it is resawn; what planing and jointing take comes off both sides alike.
    const slab = thicknessAt(piece, source.blank.from + source.blank.length / 2);
    const share = size.start + size.length / 2;
    const middle: Triple = [
      source.blank.from + (strip.endForEnd ? source.blank.length - share : share),
      from + way.rip / 2,
      (slab - planed) / 2 + heightInRipping(source.strip, source.blank),
    ];
    return turned(strip, { piece, unit: source.blank.unit, ...axes, size: bodySize }, middle);
  });
}

/** What of each strip is one board's: as long as a panel of one board is crosscut for, as thick as strips are glued. */
export function shareOf(
  board: Pick<Board, 'length'>,
  allowances: Pick<Allowances, 'roughLength' | 'glueThickness'>,
  trim: Pick<TrimLayout, 'boards'>,
): { length: number; thickness: number; start: number } {
  return {
    length: allowances.roughLength,
    thickness: allowances.glueThickness,
    start: shareStart(board, allowances, trim),
  };
}

/** Where the middle of a strip lies above the bottom of its planed ripping, mm: half way up, or in its layer when it is resawn. */
function heightInRipping(strip: RippedStrip, blank: Blank): number {
  if (strip.layers === 1) return strip.planed / 2;
  const layers = blank.strips
    .filter((s) => Math.abs(s.from - strip.from) < LENGTH_TOLERANCE_MM && s.layers > 1)
    .sort((a, b) => a.layer - b.layer);
  const wood = layers.reduce((sum, s) => sum + s.way.thickness, 0);
  // Kerfs and what is planed off the sawn faces, shared out evenly; failed layers are air.
  const gap = Math.max(0, strip.planed - wood) / Math.max(1, strip.layers - 1);
  const below = layers.filter((s) => s.layer < strip.layer).reduce((sum, s) => sum + s.way.thickness + gap, 0);
  return below + strip.way.thickness / 2;
}

function flatOrOnEdge(shows: 'edge' | 'face'): Pick<StripBody, 'shows' | 'along' | 'across' | 'up'> {
  return shows === 'face'
    ? { shows, along: [1, 0, 0], across: [0, 1, 0], up: [0, 0, 1] }
    : { shows, along: [1, 0, 0], across: [0, 0, 1], up: [0, -1, 0] };
}

/** The body turned as the strip is, its middle left where it was. */
function turned(
  strip: Pick<Strip, 'turned' | 'endForEnd'>,
  flat: Omit<StripBody, 'origin'>,
  middle: Triple,
): StripBody {
  const over = strip.turned ? { across: minus(flat.across), up: minus(flat.up) } : { across: flat.across, up: flat.up };
  const axes = strip.endForEnd
    ? { along: minus(flat.along), across: minus(over.across), up: over.up }
    : { along: flat.along, ...over };
  const origin = plus(
    plus(plus(middle, axes.along, -flat.size[0] / 2), axes.across, -flat.size[1] / 2),
    axes.up,
    -flat.size[2] / 2,
  );
  return { ...flat, ...axes, origin };
}

/** The same strip as it lies in another board of its panel, so much further along. */
export function furtherAlong(body: StripBody, by: number): StripBody {
  return { ...body, origin: plus(body.origin, body.along, by) };
}

/** Whether a strip lies turned over: the side that shows is not the one it would show as it came from the saw. */
export function isTurnedOver({ shows, up }: Pick<StripBody, 'shows' | 'up'>): boolean {
  return shows === 'face' ? up[2] < 0 : up[1] > 0;
}

/** Strips that would show what may go underneath while their other side is clean, by id; not those whose maker chose the side. */
export function dirtySideUp(strips: readonly Strip[], bodies: readonly StripBody[]): Set<string> {
  const hidden = (body: StripBody, side: 'top' | 'under') => defectsOn(body, side).some((d) => d.treatment === 'under');
  return new Set(
    strips.flatMap((strip, i) => {
      const body = bodies[i];
      return body?.piece && !strip.sideKept && hidden(body, 'top') && !hidden(body, 'under') ? [strip.id] : [];
    }),
  );
}

/** The strips as they lie once some of them are turned over. */
export function turnedOver<S extends Pick<Strip, 'id' | 'turned'>>(
  strips: readonly S[],
  over: ReadonlySet<string> | undefined,
): S[] {
  return strips.map((s) => (over?.has(s.id) ? { ...s, turned: !s.turned } : s));
}

/** Which way the pencilled arrow of a strip points along the board. */
export interface GrainArrowOf {
  /** From the first end to the last. */
  forward: boolean;
  /** The rise of the fibres is known from the piece; otherwise the arrow is only how the maker laid it. */
  known: boolean;
}

/** Fibres that rise to the upper face toward the far end rise to the lower one toward the marked end; on an edge nobody has looked. */
export function grainArrow(strip: Pick<Strip, 'endForEnd'>, body: StripBody | undefined): GrainArrowOf {
  const grain = body?.piece?.grain ?? 'unknown';
  if (!body || body.shows === 'edge' || grain === 'unknown' || grain === 'straight')
    return { forward: !strip.endForEnd, known: grain === 'straight' };
  const rises = (grain === 'toFar') === body.up[2] > 0;
  return { forward: rises === body.along[0] > 0, known: true };
}

/** Defects that show on a side of the board. @param side its show side, or its underside */
export function defectsOn(body: StripBody, side: 'top' | 'under'): Defect[] {
  const { piece } = body;
  if (!piece) return [];
  const [from, to] = [inPiece(body, [0, 0, 0]), inPiece(body, [...body.size])];
  // A strip that begins just where a place ends does not hold it.
  const meets = (start: number, size: number, a: number, b: number) =>
    start < Math.max(a, b) - LENGTH_TOLERANCE_MM && start + size > Math.min(a, b) + LENGTH_TOLERANCE_MM;
  const overlaps = (d: Defect) => meets(d.from, d.length, from[0], to[0]);
  const facing = side === 'top' ? body.up : minus(body.up);
  return piece.defects.filter((d) => {
    if (!overlaps(d)) return false;
    if (body.shows === 'face') return meets(d.across, d.width, from[1], to[1]) && reaches(d.face, facing[2]);
    // On edge the side that shows is one cut through the piece, and its faces are glued: only what goes through the wood is seen.
    if (d.face !== 'through') return false;
    const y = side === 'top' ? inPiece(body, [0, 0, body.size[2]])[1] : inPiece(body, [0, 0, 0])[1];
    return meets(d.across, d.width, y, y);
  });
}

function reaches(face: DefectFace, up: number): boolean {
  return face === 'through' || (face === 'up') === up > 0;
}

/** A whole piece as it lies in the rack, upper face to the viewer. */
export function stockBody(piece: Piece, unit = 0): StripBody {
  const size: Triple = [
    piece.length,
    Math.max(piece.width, piece.farEnd?.width ?? 0),
    Math.max(piece.thickness, piece.farEnd?.thickness ?? 0),
  ];
  return { piece, unit, ...flatOrOnEdge('face'), origin: [0, 0, 0], size };
}

/** A strip as it could be cut from the middle of a piece, or from no piece in particular. @param size length, width in the panel and thickness, mm */
export function sampleBody(piece: Piece | null, shows: 'edge' | 'face', size: Triple): StripBody {
  const middle: Triple = piece ? [piece.length / 2, piece.width / 2, piece.thickness / 2] : [0, 0, 0];
  return turned(UNTURNED, { piece, unit: 0, ...flatOrOnEdge(shows), size }, middle);
}
