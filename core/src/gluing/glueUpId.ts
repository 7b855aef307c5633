/** 32 bits of FNV-1a over the units of a text (Fowler, Noll, Vo; prime from memory). */
function digest(text: string, offset: number): string {
  let hash = offset;
  for (let i = 0; i < text.length; i += 1) hash = Math.imul(hash ^ text.charCodeAt(i), 0x01000193);
  return (hash >>> 0).toString(16).padStart(8, '0');
}

/** Two beginnings, so that two digests together are as good as 64 bits: FNV's own, and another odd number. */
const OFFSETS = [0x811c9dc5, 0x9e3779b9] as const;

/**
 * Name of a glue-up for good: it says which strips are put together, and which of them were glued before. Other strips, or the same in other groups, have another; where the group stands among the others does not matter.
 * @param parts what lies side by side, each with the ids of its strips in order
 */
export function glueUpId(parts: readonly (readonly string[])[]): string {
  const text = JSON.stringify(parts);
  return `g${OFFSETS.map((offset) => digest(text, offset)).join('')}`;
}
