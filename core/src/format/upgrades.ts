import { NO_CUTTING_WISHES } from '../board/board.ts';
import { DEFAULT_SHOP } from '../shop/shop.ts';
import { PLAIN_CONDITION } from '../stock/piece.ts';

type Json = Record<string, unknown>;

/**
 * Steps from version 1 to 2 of what is stored and written to files: pieces got a condition, boards their cutting wishes, the shop its other saws and
 * the weights of the cut plan. Each fills in what version 1 took for granted, and leaves alone what is there already.
 */
export function upgradePieceTo2(piece: Json): Json {
  const offcut = /^(offcut|slat)/i.test(typeof piece.note === 'string' ? piece.note : '');
  return {
    ...PLAIN_CONDITION, ...(offcut ? { origin: { kind: 'offcut', of: '' } } : {}), ...piece,
    surface: piece.surface === 'surfaced' ? 'twoFaces' : piece.surface,
  };
}

export function upgradeBoardTo2(board: Json): Json {
  return { ...board, cutting: board.cutting ?? NO_CUTTING_WISHES };
}

export function upgradeShopTo2(shop: Json): Json {
  const saw = shop.saw as { kerf?: number } | undefined;
  return {
    // One kerf served every saw in version 1.
    crosscutSaw: { kerf: saw?.kerf ?? DEFAULT_SHOP.crosscutSaw.kerf }, bandSaw: DEFAULT_SHOP.bandSaw, cutting: DEFAULT_SHOP.cutting, ...shop,
    planer: { leastWidth: DEFAULT_SHOP.planer.leastWidth, leastThickness: DEFAULT_SHOP.planer.leastThickness, ...(shop.planer as Json | undefined) },
  };
}

export function upgradeFileTo2(file: Json): Json {
  const list = (value: unknown): unknown[] => (Array.isArray(value) ? value : []);
  return {
    ...file, version: 2,
    ...(isRecord(file.board) ? { board: upgradeBoardTo2(file.board) } : {}), ...(isRecord(file.shop) ? { shop: upgradeShopTo2(file.shop) } : {}),
    rack: list(file.rack).map((piece: unknown) => (isRecord(piece) ? upgradePieceTo2(piece) : piece)),
  };
}

function isRecord(value: unknown): value is Json {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}
