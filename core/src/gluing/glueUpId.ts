/** 64 bits of FNV-1a (Fowler, Noll, Vo; offset and prime from memory), as hexadecimal: the same on every machine, short enough for a name. */
function digest(text: string): string {
  let hash = 0xcbf29ce484222325n;
  for (const byte of new TextEncoder().encode(text)) hash = BigInt.asUintN(64, (hash ^ BigInt(byte)) * 0x100000001b3n);
  return hash.toString(16).padStart(16, '0');
}

/**
 * Name of a glue-up for good: it says which strips are put together, and which of them were glued before. Other strips, or the same in other groups, have another; where the group stands among the others does not matter.
 * @param parts what lies side by side, each with the ids of its strips in order
 */
export function glueUpId(parts: readonly (readonly string[])[]): string {
  return `g${digest(JSON.stringify(parts))}`;
}
