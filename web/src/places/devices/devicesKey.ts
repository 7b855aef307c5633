/** Under which name the list of devices is kept. */
export const devicesKey = ['devices'] as const;
