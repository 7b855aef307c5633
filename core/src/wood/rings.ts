export const ringOrientations = ['flat', 'rift', 'quarter'] as const;

/** How growth rings stand in a piece. Flat: rings lie along the broad face; quarter: they stand on it; rift: between. */
export type RingOrientation = (typeof ringOrientations)[number];
