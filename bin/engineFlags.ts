/**
 * How tests, linter and compiler run best: much code, each part of it for a few seconds. Functions are compiled quickly at once and made faster only when they stay in use
 * for long (otherwise that takes two fifths of the time: measured), and what is soon thrown away gets room.
 */
export const COMPUTED_ONCE = ['--always-sparkplug', '--interrupt-budget=1000000', '--max-semi-space-size=128'];
