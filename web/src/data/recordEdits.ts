import { certain } from '#core/lists/there.ts';
import { useSyncExternalStore } from 'react';
import { fieldProblems } from '#core/format/fieldProblems.ts';
import { shopSchema, type Shop } from '#core/shop/shop.ts';
import { pieceFieldsSchema, type Piece } from '#core/stock/piece.ts';
import type { z } from 'zod';
import { showProblem } from '../shell/notices.tsx';
import type { StoredPiece } from '#contract/rack.ts';
import type { StoredShop } from '#contract/shop.ts';
import { api } from './api.ts';
import { draftNames, EditLine, type LineState } from './editLine.ts';
import { keys, queryClient } from './queryClient.ts';

/** Edits of a record from a page: each is saved as it is made. */
export interface RecordEdits<T> {
  change(edit: (value: T) => T): void;
  undo(): void;
  /** Whether there is anything to take back. */
  canUndo: boolean;
  state: LineState;
}

/** @throws Error with a sentence */
function checked<T>(schema: z.ZodType<T>, value: unknown): T {
  const parsed = schema.safeParse(value);
  if (!parsed.success)
    throw new Error(`Not saved: ${fieldProblems(parsed.error)[0]?.message ?? 'the figure is not valid.'}`);
  return parsed.data;
}

const shopLine = new EditLine<Shop>({
  name: 'shop',
  stored: () => {
    const stored = queryClient.getQueryData<StoredShop>(keys.shop);
    return stored && { value: stored.shop, version: stored.version };
  },
  show: ({ value, version }) =>
    queryClient.setQueryData<StoredShop>(keys.shop, (old) => old && { ...old, shop: value, version }),
  check: (shop) => checked(shopSchema, shop),
  save: async (version, shop) => {
    const saved = await api.saveShop(version, shop);
    return { value: saved.shop, version: saved.version };
  },
  currentIn: ({ current }) => {
    const stored = current as StoredShop | undefined;
    return stored && { value: stored.shop, version: stored.version };
  },
});

const PIECE = 'piece.';
const pieceLines = new Map<string, EditLine<Piece>>();

function pieceLine(id: string): EditLine<Piece> {
  const known = pieceLines.get(id);
  if (known) return known;
  const ofStored = (stored: StoredPiece | undefined) => stored && { value: stored.piece, version: stored.version };
  const line = new EditLine<Piece>({
    name: `${PIECE}${id}`,
    stored: () => ofStored(queryClient.getQueryData<StoredPiece[]>(keys.rack)?.find((p) => p.piece.id === id)),
    show: ({ value, version }) =>
      queryClient.setQueryData<StoredPiece[]>(keys.rack, (old) =>
        old?.map((p) => (p.piece.id === id ? { piece: value, version } : p)),
      ),
    check: ({ id: _id, ...fields }) => ({ id, ...checked(pieceFieldsSchema, fields) }),
    save: async (version, { id: _id, ...fields }) => certain(ofStored(await api.changePiece(id, version, fields))),
    currentIn: ({ current }) => ofStored(current as StoredPiece | undefined),
  });
  pieceLines.set(id, line);
  return line;
}

// What was not stored when the page was left goes out from whichever page comes next.
for (const name of draftNames()) if (name.startsWith(PIECE)) pieceLine(name.slice(PIECE.length));

/** The shop as read, with what is not saved yet on top. */
export async function readShop(): Promise<StoredShop> {
  const { shop, version, demo } = await api.shop();
  const over = shopLine.over({ value: shop, version });
  return { shop: over.value, version: over.version, demo };
}

/** The rack as read, with what is not saved yet on top. */
export async function readRack(): Promise<StoredPiece[]> {
  return (await api.rack()).map((stored) => {
    const over = pieceLines.get(stored.piece.id)?.over({ value: stored.piece, version: stored.version });
    return over ? { piece: over.value, version: over.version } : stored;
  });
}

function useLine<T>(line: EditLine<T>): RecordEdits<T> {
  const state = useSyncExternalStore(line.subscribe, line.snapshot);
  const canUndo = useSyncExternalStore(line.subscribe, line.canUndo);
  return {
    state,
    canUndo,
    change: (edit) => {
      try {
        line.change(edit);
      } catch (error) {
        showProblem(error);
      }
    },
    undo: () => void line.undo(),
  };
}

/** Changes figures of the shop; every plan follows. */
export function useShopEdits(): RecordEdits<Shop> {
  return useLine(shopLine);
}

/** Changes a piece in the rack. */
export function usePieceEdits(id: string): RecordEdits<Piece> {
  return useLine(pieceLine(id));
}
