import { certain } from '#core/lists/there.ts';
import { z } from 'zod';
import { BOARD_FILE_VERSION, boardFileSchema, writeBoardFile } from '#core/format/boardFile.ts';
import { HANDBOOK_SPECIES } from '#core/wood/handbookSpecies.ts';
import { tramShedBoards, tramShedRack, tramShedShop } from '../server/src/demo/tramShed.ts';

const EXAMPLES: Record<string, string> = {
  'examples/bread-boards-edge-grain.cadenza.json': 'Middle Hut bread boards',
  'examples/carving-board-edge-grain.cadenza.json': 'Upper Hut carving board',
  'examples/dough-board-face-grain.cadenza.json': 'Lower Hut dough board',
  'examples/onion-block-end-grain.cadenza.json': 'Onion block',
  'examples/cheese-board-split.cadenza.json': 'Split cheese board',
  'examples/sink-cover-framed.cadenza.json': 'Sink cover',
  'examples/serving-board-chevron.cadenza.json': 'Chevron serving board',
};

/** Files of the project that are made from code: path from the root, and text. A test holds them against the code. */
export function projectFiles(): Record<string, string> {
  const schema = z.toJSONSchema(boardFileSchema, { io: 'input' });
  const named = new Set(tramShedRack.map((p) => p.species));
  const species = HANDBOOK_SPECIES.filter((s) => named.has(s.code));
  const files: Record<string, string> = {
    [`docs/format/board.v${BOARD_FILE_VERSION}.schema.json`]: `${JSON.stringify({ title: 'Cadenza board file', ...schema }, null, 2)}\n`,
  };
  for (const [path, name] of Object.entries(EXAMPLES)) {
    files[path] = writeBoardFile({
      board: certain(tramShedBoards.find((b) => b.name === name)),
      facts: [],
      rack: tramShedRack,
      species,
      shop: tramShedShop,
    });
  }
  return files;
}
