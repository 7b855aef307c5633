import { isRecord, type Json, type VersionStep } from './step.ts';

const PLAIN_PIECE = {
  farEnd: null,
  surface: 'rough',
  straight: 'none',
  rings: 'flat',
  grain: 'unknown',
  moisture: null,
  form: null,
  ends: { mark: { checked: 0, snipe: 0, sawn: false }, far: { checked: 0, snipe: 0, sawn: false } },
  defects: [],
  origin: { kind: 'bought', of: '' },
  price: null,
  shelf: '',
  note: '',
  count: 1,
};

/** Pieces got a condition, boards their cutting wishes, the shop its other saws and the weights of the cut plan: what version 1 took for granted. */
export const TO_2 = {
  version: 2,
  piece: (piece: Json): Json => {
    const offcut = /^(offcut|slat)/i.test(typeof piece.note === 'string' ? piece.note : '');
    return {
      ...PLAIN_PIECE,
      ...(offcut ? { origin: { kind: 'offcut', of: '' } } : {}),
      ...piece,
      surface: piece.surface === 'surfaced' ? 'twoFaces' : piece.surface,
    };
  },
  board: (board: Json): Json => ({
    ...board,
    cutting: board.cutting ?? { pins: [], bans: [], together: [], eitherWay: false, spares: 0 },
  }),
  shop: (shop: Json): Json => ({
    // One kerf served every saw in version 1.
    crosscutSaw: { kerf: (isRecord(shop.saw) ? shop.saw.kerf : undefined) ?? 3 },
    bandSaw: { kerf: 1, resawHeight: 150, clean: 0.8 },
    cutting: {
      openPiece: 0.2,
      openPlank: 0.5,
      leftoverEach: 0.1,
      unpricedPerM3: 400,
      keepWidth: 40,
      sideShare: 0.5,
      spareBelow: 7,
      spares: 1,
    },
    ...shop,
    planer: { leastWidth: 20, leastThickness: 6, ...(isRecord(shop.planer) ? shop.planer : {}) },
  }),
} satisfies VersionStep;
