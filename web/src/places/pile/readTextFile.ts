/** A file's text and how it was written. */
export interface ReadText {
  text: string;
  /** Told when it was not UTF-8, so that odd letters are looked at. */
  encoding: string | null;
}

/**
 * Decodes a file: by its byte-order mark, else as UTF-8, else as Windows-1252, which never fails but may be wrong.
 */
export async function readTextFile(file: File): Promise<ReadText> {
  const bytes = new Uint8Array(await file.arrayBuffer());
  const [a, b, c] = bytes;
  if (a === 0xff && b === 0xfe) return { text: new TextDecoder('utf-16le').decode(bytes), encoding: 'UTF-16' };
  if (a === 0xfe && b === 0xff) return { text: new TextDecoder('utf-16be').decode(bytes), encoding: 'UTF-16' };
  if (a === 0xef && b === 0xbb && c === 0xbf) return { text: new TextDecoder().decode(bytes), encoding: null };
  try {
    return { text: new TextDecoder('utf-8', { fatal: true }).decode(bytes), encoding: null };
  } catch {
    return { text: new TextDecoder('windows-1252').decode(bytes), encoding: 'Windows-1252' };
  }
}
