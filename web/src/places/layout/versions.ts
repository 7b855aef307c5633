import { GREATEST_VERSION_COUNT, type Board, type BoardVersion } from '#core/board/board.ts';

/** What a version takes over from a board. */
function layoutOf({ construction, length, width, thickness, recipe }: Board | BoardVersion) {
  return { construction, length, width, thickness, recipe };
}

/** A name that no version has: "Version B", "Version C" ...; the one that is worked on is A until it has been swapped. */
export function nextVersionName(versions: readonly BoardVersion[]): string {
  const taken = new Set(versions.map((v) => v.name));
  for (let i = 0; i < 26; i += 1) {
    const name = `Version ${String.fromCharCode(65 + i)}`;
    if (!taken.has(name)) return name;
  }
  return `Version ${versions.length + 1}`;
}

/** The board with its layout as it is now set aside too. Null when there are as many versions as can be. */
export function setAside(
  board: Board,
  name: string,
  id: string,
  layout: Pick<Board, 'construction' | 'length' | 'width' | 'thickness' | 'recipe'> = board,
): Board | null {
  if (board.versions.length >= GREATEST_VERSION_COUNT) return null;
  return { ...board, versions: [...board.versions, { id, name: name.slice(0, 60), ...layoutOf(layout as Board) }] };
}

/** Works on a version: it changes places with what was worked on. */
export function workOn(board: Board, version: BoardVersion, name: string): Board {
  return {
    ...board,
    ...layoutOf(version),
    versions: board.versions.map((v) => (v.id === version.id ? { id: v.id, name, ...layoutOf(board) } : v)),
  };
}

/** A version as a board that can be planned. */
export function asBoard(board: Board, version: BoardVersion): Board {
  return { ...board, ...layoutOf(version) };
}
