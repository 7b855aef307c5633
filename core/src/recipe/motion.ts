/** A point or a direction: along, across and up, mm. */
export type Triple = readonly [number, number, number];

/** A rigid motion: where the origin goes, and the directions of the three axes, at right angles to each other and of length 1; mirrors are none. */
export interface Motion {
  origin: Triple;
  along: Triple;
  across: Triple;
  up: Triple;
}

export const AT_REST: Motion = { origin: [0, 0, 0], along: [1, 0, 0], across: [0, 1, 0], up: [0, 0, 1] };

export const plus = (a: Triple, b: Triple, factor = 1): Triple => [
  a[0] + b[0] * factor,
  a[1] + b[1] * factor,
  a[2] + b[2] * factor,
];
export const dot = (a: Triple, b: Triple): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
export const cross = (a: Triple, b: Triple): Triple => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];

/** A direction after a motion: turned, not shifted. */
export function turnedBy({ along, across, up }: Omit<Motion, 'origin'>, [x, y, z]: Triple): Triple {
  return [
    along[0] * x + across[0] * y + up[0] * z,
    along[1] * x + across[1] * y + up[1] * z,
    along[2] * x + across[2] * y + up[2] * z,
  ];
}

/** A point after a motion. */
export function movedBy(motion: Motion, point: Triple): Triple {
  return plus(motion.origin, turnedBy(motion, point));
}

/** Whether a motion turns nothing: shifts share the axes at rest. */
export const onlyShifts = ({ along, across, up }: Motion): boolean =>
  along === AT_REST.along && across === AT_REST.across && up === AT_REST.up;

/** First `inner`, then `outer`, as one motion. */
export function after(outer: Motion, inner: Motion): Motion {
  if (onlyShifts(inner)) return { ...outer, origin: movedBy(outer, inner.origin) };
  return {
    origin: movedBy(outer, inner.origin),
    along: turnedBy(outer, inner.along),
    across: turnedBy(outer, inner.across),
    up: turnedBy(outer, inner.up),
  };
}

/** The motion that takes everything back. */
export function back(motion: Motion): Motion {
  const { origin, along, across, up } = motion;
  if (onlyShifts(motion)) return shift([-origin[0], -origin[1], -origin[2]]);
  const [a, b, c]: [Triple, Triple, Triple] = [
    [along[0], across[0], up[0]],
    [along[1], across[1], up[1]],
    [along[2], across[2], up[2]],
  ];
  return { along: a, across: b, up: c, origin: [-dot(along, origin), -dot(across, origin), -dot(up, origin)] };
}

/** Nothing but a shift. */
export const shift = (by: Triple): Motion => ({ ...AT_REST, origin: by });
