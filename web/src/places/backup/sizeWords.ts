/** Bytes, as files are told. */
export function sizeWords(bytes: number): string {
  if (bytes < 1e5) return `${Math.max(1, Math.round(bytes / 1e3))} kB`;
  return bytes < 1e9 ? `${(bytes / 1e6).toFixed(1)} MB` : `${(bytes / 1e9).toFixed(1)} GB`;
}
