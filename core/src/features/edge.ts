import { z } from 'zod';
import { lengthBetween } from '../units/lengthSchema.ts';

const degrees = z.number().min(10, { error: 'must be at least 10°' }).max(80, { error: 'must be at most 80°' });

/** How one edge of a face is shaped. Lengths in mm. */
export const edgeCutSchema = z.discriminatedUnion(
  'kind',
  [
    z.strictObject({ kind: z.literal('straight') }),
    /** `reach` in on the face; `angle` to the face. */
    z.strictObject({ kind: z.literal('chamfer'), reach: lengthBetween(0.2, 60), angle: degrees }),
    z.strictObject({ kind: z.literal('roundOver'), radius: lengthBetween(0.2, 40) }),
    /** A wide bevel sawn with the blade tilted by `angle` from upright, down to a band of `reveal` that stays of the side. */
    z.strictObject({ kind: z.literal('underBevel'), angle: degrees, reveal: lengthBetween(0, 149) }),
    /** A shoulder of `step`, then a quarter of an ellipse that reaches `reach` in and `drop` down. */
    z.strictObject({
      kind: z.literal('thumbnail'),
      reach: lengthBetween(1, 60),
      drop: lengthBetween(1, 40),
      step: lengthBetween(0, 10),
    }),
  ],
  { error: 'must be one of straight, chamfer, roundOver, underBevel, thumbnail' },
);
export type EdgeCut = z.infer<typeof edgeCutSchema>;

export const EDGE_NAMES: Readonly<Record<EdgeCut['kind'], string>> = {
  straight: 'Straight',
  chamfer: 'Chamfer',
  roundOver: 'Round-over',
  underBevel: 'Under-bevel',
  thumbnail: 'Thumbnail',
};

/** The sides of a board as it lies before the maker, the first long edge away from him. */
export const SIDES = ['far', 'right', 'near', 'left'] as const;
export type Side = (typeof SIDES)[number];
export const SIDE_NAMES: Readonly<Record<Side, string>> = {
  far: 'far edge',
  right: 'right end',
  near: 'near edge',
  left: 'left end',
};
/** Whether a place is one of the sides. */
export const isSide = (place: string): place is Side => (SIDES as readonly string[]).includes(place);
export const isEnd = (side: Side): boolean => side === 'left' || side === 'right';

const sideEdgesSchema = z.strictObject({ top: edgeCutSchema, bottom: edgeCutSchema });
export type SideEdges = z.infer<typeof sideEdgesSchema>;

export const edgesSchema = z.strictObject({
  far: sideEdgesSchema,
  right: sideEdgesSchema,
  near: sideEdgesSchema,
  left: sideEdgesSchema,
});
export type Edges = z.infer<typeof edgesSchema>;

export const cornersSchema = z.strictObject({
  kind: z.enum(['square', 'round', 'clip']),
  size: lengthBetween(0, 300),
});
export type Corners = z.infer<typeof cornersSchema>;

const tan = (angle: number) => Math.tan((angle * Math.PI) / 180);

/** How far an edge reaches in on its face and down its side, mm. An under-bevel that leaves all of the side takes nothing. */
export function edgeReach(cut: EdgeCut, thickness: number): { reach: number; drop: number } {
  if (cut.kind === 'straight') return { reach: 0, drop: 0 };
  if (cut.kind === 'roundOver') return { reach: cut.radius, drop: cut.radius };
  if (cut.kind === 'chamfer') return { reach: cut.reach, drop: cut.reach * tan(cut.angle) };
  if (cut.kind === 'thumbnail') return { reach: cut.reach, drop: cut.drop };
  const drop = Math.max(0, thickness - cut.reveal);
  return { reach: drop * tan(cut.angle), drop };
}

/** How far the side stands back at a depth below the face, mm. @param depth from 0 at the face */
export function insetAt(cut: EdgeCut, thickness: number, depth: number): number {
  const { reach, drop } = edgeReach(cut, thickness);
  if (depth >= drop || drop === 0) return 0;
  if (cut.kind === 'roundOver') return reach - Math.sqrt(Math.max(0, reach ** 2 - (reach - depth) ** 2));
  if (cut.kind === 'thumbnail') {
    const span = drop - Math.min(cut.step, drop);
    return depth <= cut.step || span === 0
      ? reach
      : reach * (1 - Math.sqrt(Math.max(0, 1 - ((drop - depth) / span) ** 2)));
  }
  return reach * (1 - depth / drop);
}

/** Half of the board's section at one side, from the top face to the underside: points of [inset, depth], mm. @param steps points on a curve */
export function sideProfile({ top, bottom }: SideEdges, thickness: number, steps = 16): [number, number][] {
  const points = (cut: EdgeCut): [number, number][] => {
    const { reach, drop } = edgeReach(cut, thickness);
    if (drop === 0) return [[0, 0]];
    if (cut.kind === 'chamfer' || cut.kind === 'underBevel')
      return [
        [reach, 0],
        [0, drop],
      ];
    const from = cut.kind === 'thumbnail' ? Math.min(cut.step, drop) : 0;
    return [
      ...(from > 0 ? [[reach, 0] as [number, number]] : []),
      ...Array.from({ length: steps + 1 }, (_, i): [number, number] => {
        // Even steps of the angle: the steep beginning of a curve gets as many points as its flat end.
        const depth = from + (drop - from) * (1 - Math.cos((i / steps) * (Math.PI / 2)));
        return [insetAt(cut, thickness, Math.min(depth, drop)), depth];
      }),
    ];
  };
  return [
    ...points(top),
    ...points(bottom)
      .map(([inset, depth]): [number, number] => [inset, thickness - depth])
      .reverse(),
  ];
}

/** Where two edges of one side meet or cross: what is left of the side between them, mm; negative when they eat it up. */
export function sideLeft({ top, bottom }: SideEdges, thickness: number): number {
  return thickness - edgeReach(top, thickness).drop - edgeReach(bottom, thickness).drop;
}

/** Settings of a saw that cuts an under-bevel with the board flat on the table, lengths in mm, `tilt` in degrees from upright. */
export interface BevelSetting {
  tilt: number;
  /** From the edge to the line where the bevel meets the underside: where the blade leaves the table. */
  reach: number;
  reveal: number;
  /** Of the sawn face, across it. */
  face: number;
}

/** @throws RangeError for a reveal of more than the thickness */
export function bevelSetting(
  { angle, reveal }: Extract<EdgeCut, { kind: 'underBevel' }>,
  thickness: number,
): BevelSetting {
  if (reveal > thickness) throw new RangeError('The reveal must not be more than the thickness.');
  const drop = thickness - reveal;
  return { tilt: angle, reach: drop * tan(angle), reveal, face: drop / Math.cos((angle * Math.PI) / 180) };
}

/**
 * How far the bevels of two neighbouring sides miss each other at the corner, mm up the corner: 0 where they meet in one line that ends there.
 * The line in which they cross leaves the corner at the higher of the two reveals.
 */
export function bevelMiss(one: EdgeCut, other: EdgeCut): number {
  return one.kind === 'underBevel' && other.kind === 'underBevel' ? Math.abs(one.reveal - other.reveal) : 0;
}
