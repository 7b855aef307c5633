import { inPiece, type StripBody } from '#core/bodies/stripBody.ts';
import type { Triple } from '#core/recipe/motion.ts';
import type { Species } from '#core/wood/species.ts';
import { logOf, type LogSource } from './log.ts';
import type { Cut } from './paintWood.ts';
import type { PaintRequest } from './woodWorker.ts';

/**
 * Which side of a strip or piece is seen. `under` is what shows when the board is turned over about its length; `below` is the same face seen as if the wood
 * above it were glass; `farEnd` and `firstEnd` are seen from beyond the ends,
 * `farEndTurned` with the board turned over; `markedEnd` is the
 * first end with the show side up; `firstEdge` and `lastEdge` are the board's long edges.
 */
export type Side =
  | 'top'
  | 'under'
  | 'below'
  | 'farEnd'
  | 'farEndTurned'
  | 'firstEnd'
  | 'markedEnd'
  | 'firstEdge'
  | 'lastEdge';

const minus = (a: Triple): Triple => [-a[0], -a[1], -a[2]];

/** The plane on which a side lies, from its upper left corner as it is drawn. */
export function cutOf(body: StripBody, side: Side): Cut {
  const [length, width, thickness] = body.size;
  const { along, across, up } = body;
  const corner = (a: number, b: number, c: number) => inPiece(body, [a, b, c]);
  switch (side) {
    case 'top':
      return { corner: corner(0, 0, thickness), right: along, down: across, size: [length, width] };
    case 'under':
      return { corner: corner(0, width, 0), right: along, down: minus(across), size: [length, width] };
    case 'below':
      return { corner: corner(0, 0, 0), right: along, down: across, size: [length, width] };
    case 'farEnd':
      return { corner: corner(length, 0, thickness), right: minus(up), down: across, size: [thickness, width] };
    case 'farEndTurned':
      return { corner: corner(length, width, 0), right: up, down: minus(across), size: [thickness, width] };
    case 'firstEnd':
      return { corner: corner(0, 0, 0), right: up, down: across, size: [thickness, width] };
    case 'markedEnd':
      return { corner: corner(0, 0, thickness), right: across, down: minus(up), size: [width, thickness] };
    case 'firstEdge':
      return { corner: corner(0, 0, 0), right: along, down: up, size: [length, thickness] };
    case 'lastEdge':
      return { corner: corner(0, width, thickness), right: along, down: minus(up), size: [length, thickness] };
  }
}

/** What the wood of a strip is drawn from; one without a piece has wood of its own. */
export function logSource(body: StripBody, stripId: string): LogSource {
  const { piece } = body;
  if (piece)
    return {
      key: `${piece.id}/${body.unit}`,
      rings: piece.rings,
      size: [piece.width, piece.thickness],
      defects: piece.defects,
    };
  return { key: `strip/${stripId}`, rings: 'flat', size: [60, 60], defects: [] };
}

/** Pictures are painted at steps of a quarter octave, so that one serves a little above and below its scale. */
export function paintedScale(scale: number): number {
  return 2 ** (Math.round(Math.log2(scale) * 4) / 4);
}

/** Everything the painter needs for a side; the same side at the same scale always has the same key. */
export function paintRequest(
  source: LogSource,
  species: Species | undefined,
  cut: Cut,
  scale: number,
  oiled: boolean,
  first = false,
): PaintRequest {
  const round = (t: readonly number[]) => t.map((v) => Math.round(v * 10)).join(',');
  const at = paintedScale(scale);
  const marks = source.defects.map((d) => [d.kind, d.face, d.from, d.across, d.length, d.width].join(':')).join(';');
  const key = [
    source.key,
    source.rings,
    source.size.join('x'),
    marks,
    species?.colour,
    species?.lineColour,
    species?.sapColour,
    species?.pores,
    round(cut.corner),
    round(cut.right),
    round(cut.down),
    round(cut.size),
    at.toFixed(4),
    oiled,
  ].join('|');
  return { key, log: logOf(source, species), cut, scale: at, oiled, first };
}
