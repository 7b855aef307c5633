import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import type { Defect } from '../stock/defect.ts';
import type { Piece, PieceFields } from '../stock/piece.ts';
import { thicknessAt, volumeBetween, widthAt } from '../stock/shape.ts';
import type { Shop } from '../shop/shop.ts';
import type { Blank, Leftover } from './cutPlan.ts';
import { formOfPart } from './flattening.ts';
import { endTrim, type Range } from './unitGeometry.ts';

/** A rectangle of a piece, mm: along from its marked end, across from its near edge. */
export interface PieceRectangle {
  from: number;
  length: number;
  across: number;
  width: number;
}

/** Smaller remains of a defect than this are not carried over, mm. */
const LEAST_DEFECT = 1;

/**
 * What a rectangle of a piece is once it is cut off: a piece of its own with what was known about it. Cut ends need no trim any more, a ripped edge is
 * straight, defects come along as far as they lie inside, bow and twist shrink with the size.
 * @param of where it comes from, for its origin
 */
export function offcutOf(piece: Piece, rectangle: PieceRectangle, mark: string, of: string): PieceFields {
  const { from, length, across, width } = rectangle;
  const to = from + length;
  const whole =
    across <= LENGTH_TOLERANCE_MM && width >= Math.min(widthAt(piece, from), widthAt(piece, to)) - LENGTH_TOLERANCE_MM;
  const [near, far] = whole ? [widthAt(piece, from), widthAt(piece, to)] : [width, width];
  const tapers =
    Math.abs(near - far) > LENGTH_TOLERANCE_MM ||
    Math.abs(thicknessAt(piece, from) - thicknessAt(piece, to)) > LENGTH_TOLERANCE_MM;
  const volume = ((near + far) / 2) * length * thicknessAt(piece, (from + to) / 2);
  const atMark = from <= LENGTH_TOLERANCE_MM;
  const atFar = to >= piece.length - LENGTH_TOLERANCE_MM;
  const sawnEnd = { checked: 0, snipe: 0, sawn: true };
  return {
    mark,
    species: piece.species,
    length,
    width: near,
    thickness: thicknessAt(piece, from),
    farEnd: tapers ? { width: far, thickness: thicknessAt(piece, to) } : null,
    surface: piece.surface,
    straight: whole ? piece.straight : 'near',
    rings: piece.rings,
    grain: piece.grain,
    moisture: piece.moisture,
    form: piece.form ? formOfPart(piece.form, piece, { length, width: Math.max(near, far) }) : null,
    ends: {
      mark: atMark ? shortened(piece.ends.mark, length) : sawnEnd,
      far: atFar ? shortened(piece.ends.far, length) : sawnEnd,
    },
    defects: piece.defects.flatMap((defect) => clipped(defect, rectangle)),
    origin: { kind: 'offcut', of: of.slice(0, 120) },
    price:
      piece.price?.per === 'piece'
        ? {
            per: 'piece',
            amount: Math.round(piece.price.amount * (volume / volumeBetween(piece, 0, piece.length)) * 100) / 100,
          }
        : piece.price,
    shelf: piece.shelf,
    note: '',
    count: 1,
  };
}

function shortened(end: Piece['ends']['mark'], length: number): Piece['ends']['mark'] {
  return { ...end, checked: Math.min(end.checked, length), snipe: Math.min(end.snipe, length) };
}

function clipped(defect: Defect, { from, length, across, width }: PieceRectangle): Defect[] {
  const start = Math.max(defect.from, from);
  const end = Math.min(defect.from + defect.length, from + length);
  const near = Math.max(defect.across, across);
  const far = Math.min(defect.across + defect.width, across + width);
  if (end - start < LEAST_DEFECT || far - near < LEAST_DEFECT) return [];
  return [{ ...defect, from: start - from, length: end - start, across: near - across, width: far - near }];
}

/**
 * What goes back to the rack once the blanks of a piece are cut out: lengths and offcuts that are large enough by the shop's habits, and every
 * length that still holds wood promised to somebody.
 * @param side offcuts beside the rips that are kept
 */
export function remainsOf(
  piece: Piece,
  blanks: readonly Blank[],
  side: readonly Leftover[],
  shop: Shop,
  promised: readonly Range[],
): PieceRectangle[] {
  const kerf = shop.crosscutSaw.kerf;
  const remains: PieceRectangle[] = [];
  let at = 0;
  for (const next of [
    ...[...blanks].sort((a, b) => a.from - b.from).map((b) => ({ from: b.from - kerf, to: b.from + b.length + kerf })),
    { from: piece.length, to: piece.length },
  ]) {
    const length = next.from - at;
    const raw =
      (at <= LENGTH_TOLERANCE_MM ? endTrim(piece, 'mark', shop) : 0) +
      (next.from >= piece.length - LENGTH_TOLERANCE_MM ? endTrim(piece, 'far', shop) : 0);
    const beyond = Math.max(0, raw - shop.habits.stockEndTrim);
    const holdsPromise = promised.some(
      (r) => r.from >= at - LENGTH_TOLERANCE_MM && r.to <= next.from + LENGTH_TOLERANCE_MM,
    );
    if (
      length > LENGTH_TOLERANCE_MM &&
      (holdsPromise || length - beyond >= shop.habits.keepLength - LENGTH_TOLERANCE_MM)
    ) {
      remains.push({ from: at, length, across: 0, width: Math.min(widthAt(piece, at), widthAt(piece, next.from)) });
    }
    at = next.to;
  }
  return [
    ...remains,
    ...side.filter((l) => l.side && l.kept).map(({ from, length, across, width }) => ({ from, length, across, width })),
  ];
}

/** Marks for offcuts of a piece: its own mark with a letter, then two, skipping those in use. */
export function offcutMarks(mark: string, count: number, taken: ReadonlySet<string>): string[] {
  const marks: string[] = [];
  for (let n = 0; marks.length < count; n += 1) {
    const letters =
      n < 26
        ? String.fromCharCode(97 + n)
        : `${String.fromCharCode(97 + Math.floor(n / 26) - 1)}${String.fromCharCode(97 + (n % 26))}`;
    const next = `${mark.slice(0, 12 - letters.length)}${letters}`;
    if (!taken.has(next)) marks.push(next);
  }
  return marks;
}
