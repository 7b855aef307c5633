/** Marks in use, in small letters. */
export function marksOf(pieces: readonly { piece: { mark: string } }[]): Set<string> {
  return new Set(pieces.map((p) => p.piece.mark.toLowerCase()));
}

/** The next mark like `like` that is not taken: B3 gives B4, or B5 when B4 is taken; a mark without a number gets one. */
export function nextMark(like: string, taken: ReadonlySet<string>): string {
  const [, stem = like, digits = '0'] = /^(.*?)(\d+)?$/.exec(like.slice(0, 9)) ?? [];
  for (let n = Math.max(1, Number(digits)); ; n += 1) {
    if (!taken.has(`${stem}${n}`.toLowerCase())) return `${stem}${n}`;
  }
}
