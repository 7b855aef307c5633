import { useMutation } from '@tanstack/react-query';
import { useRef } from 'react';
import { fieldProblems } from '#core/format/fieldProblems.ts';
import { pieceFieldsSchema, type Piece, type PieceFields } from '#core/stock/piece.ts';
import { api, ApiProblem, type StoredPiece } from '../../data/api.ts';
import { keys, queryClient } from '../../data/queries.ts';
import { showProblem } from '../../shell/notices.tsx';

/** Edits of a piece, each saved as it is made, one after the other; undo goes back through this visit. */
export interface PieceEdits {
  change(edit: (piece: Piece) => Piece): void;
  undo(): void;
  saving: boolean;
  saved: boolean;
}

function put(stored: StoredPiece): void {
  queryClient.setQueryData<StoredPiece[]>(keys.rack, (old) => old?.map((p) => (p.piece.id === stored.piece.id ? stored : p)));
}

export function usePieceEdits(id: string): PieceEdits {
  const past = useRef<Piece[]>([]);
  const save = useMutation({
    scope: { id: `piece-${id}` },
    mutationFn: async ({ edit, remember }: { edit(piece: Piece): Piece; remember: boolean }) => {
      const current = queryClient.getQueryData<StoredPiece[]>(keys.rack)?.find((p) => p.piece.id === id);
      if (!current) throw new Error('This piece is no longer in the rack.');
      const { id: _id, ...fields } = edit(current.piece);
      const checked = pieceFieldsSchema.safeParse(fields satisfies PieceFields);
      if (!checked.success) throw new Error(fieldProblems(checked.error)[0]?.message ?? 'That is not a valid piece.');
      if (remember) past.current.push(current.piece);
      put({ piece: { id, ...checked.data }, version: current.version });
      try {
        return await api.changePiece(id, current.version, checked.data);
      } catch (error) {
        put(error instanceof ApiProblem && error.code === 'stale' && error.current ? (error.current as StoredPiece) : current);
        throw error;
      }
    },
    onSuccess: put,
    onError: showProblem,
  });
  return {
    change: (edit) => save.mutate({ edit, remember: true }),
    undo: () => {
      const before = past.current.pop();
      if (before) save.mutate({ edit: (now) => ({ ...before, id: now.id }), remember: false });
    },
    saving: save.isPending, saved: save.isSuccess,
  };
}
