const HOUR = 60;
const DAY = 1440;

/**
 * Minutes as people say them.
 * @example durationWords(95) // '1 h 35 min'
 */
export function durationWords(minutes: number): string {
  const whole = Math.max(0, Math.round(minutes));
  if (whole < HOUR) return minutes > 0 && whole === 0 ? 'under 1 min' : `${whole} min`;
  if (whole >= 2 * DAY) return `${Number((whole / DAY).toFixed(1))} days`;
  const rest = whole % HOUR;
  return rest === 0 ? `${whole / HOUR} h` : `${Math.floor(whole / HOUR)} h ${rest} min`;
}

/** Minutes and seconds of a running clock, `12:05`; with hours from an hour on. */
export function clockWords(minutes: number): string {
  const seconds = Math.floor(Math.abs(minutes) * 60);
  const [h, m, s] = [Math.floor(seconds / 3600), Math.floor((seconds % 3600) / 60), seconds % 60];
  return `${minutes < 0 ? '−' : ''}${h > 0 ? `${h}:${String(m).padStart(2, '0')}` : m}:${String(s).padStart(2, '0')}`;
}
