const NAME_KEY = 'cadenza-device-name';

/** What this device is called by others: as somebody said, else what it looks like. */
export function deviceName(): string {
  try {
    const own = localStorage.getItem(NAME_KEY);
    if (own) return own;
  } catch {
    // A storage that is forbidden holds no name.
  }
  const agent = navigator.userAgent;
  if (/Tablet|iPad/.test(agent) || (/Android/.test(agent) && !/Mobile/.test(agent))) return 'A tablet';
  return /Mobile|Android|iPhone/.test(agent) ? 'A phone' : 'A computer';
}

export function nameDevice(name: string): void {
  try {
    localStorage.setItem(NAME_KEY, name);
  } catch {
    // Then it is called what it looks like.
  }
}
