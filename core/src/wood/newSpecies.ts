import type { Species } from './species.ts';

/** A species nobody knew, with the figures of one that is like it; its source says so. */
export function newSpecies(name: string, like: Species, known: readonly Species[]): Species {
  const letters =
    name
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^[^a-z]+|-+$/g, '')
      .slice(0, 34) || 'wood';
  const base = letters.length > 1 ? letters : `${letters}-wood`;
  let code = base;
  for (let n = 2; known.some((s) => s.code === code); n += 1) code = `${base}-${n}`;
  return { ...like, code, name, botanical: 'not named', source: `Taken over from ${like.name}; entered by hand` };
}
