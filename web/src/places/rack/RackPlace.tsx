import { Button } from '@mantine/core';
import { useElementSize } from '@mantine/hooks';
import { IconCopy, IconPencil, IconPlus, IconTrash } from '@tabler/icons-react';
import { useState } from 'react';
import type { Piece } from '#core/stock/piece.ts';
import { api, ApiProblem, type StoredPiece } from '../../data/api.ts';
import { keys, queryClient, trouble, useRack, useShop, useSpecies } from '../../data/queries.ts';
import { fitScale, scaleWords } from '../../drawing/scale.ts';
import { useShortcuts } from '../../shortcuts/Shortcuts.tsx';
import { showProblem, showUndo } from '../../shell/notices.tsx';
import { nextMark } from './nextMark.ts';
import { PieceDialog } from './PieceDialog.tsx';
import classes from './RackPlace.module.css';
import { StockPiece } from './StockPiece.tsx';

const reload = () => queryClient.invalidateQueries({ queryKey: keys.rack });

/** What the dialog works on: a new piece (perhaps filled from another), or a stored one. */
type Editing = { stored: StoredPiece | null; start: Partial<Piece> };

/** Every piece of stock at one scale on shelves by species. */
export function RackPlace() {
  const rack = useRack();
  const species = useSpecies();
  const shop = useShop();
  const { ref, width } = useElementSize();
  const [chosen, setChosen] = useState<string | null>(null);
  const [editing, setEditing] = useState<Editing | null>(null);
  const pieces = rack.data ?? [];
  const problem = trouble(rack, species);
  const selected = pieces.find((p) => p.piece.id === chosen);
  const longest = Math.max(600, ...pieces.map((p) => p.piece.length));
  // On a wide page the longest plank leaves room for offcuts beside it.
  const room = width > 900 ? width * 0.64 : width - 36;
  const scale = fitScale([longest, 1], [Math.max(240, room), 1e6], 0.6);
  const shelves = (species.data ?? []).map((s) => ({ species: s, pieces: pieces.filter((p) => p.piece.species === s.code) })).filter((s) => s.pieces.length > 0);

  const add = () => setEditing({ stored: null, start: { mark: nextMark('N1', pieces) } });
  const edit = () => selected && setEditing({ stored: selected, start: selected.piece });
  const duplicate = () => selected && setEditing({ stored: null, start: { ...selected.piece, mark: nextMark(selected.piece.mark, pieces) } });
  const remove = async () => {
    if (!selected) return;
    try {
      const removed = await api.removePiece(selected.piece.id, selected.version);
      await reload();
      showUndo(`${selected.piece.mark} taken out of the rack.`, async () => {
        await api.restorePiece(removed.piece.id, removed.version);
        await reload();
      });
    } catch (error) {
      showProblem(error);
      if (error instanceof ApiProblem) void reload();
    }
  };
  const choose = (by: number) => {
    const order = shelves.flatMap((s) => s.pieces);
    const at = order.findIndex((p) => p.piece.id === chosen);
    const next = order[Math.min(order.length - 1, Math.max(0, at + by))];
    if (!next) return;
    setChosen(next.piece.id);
    document.getElementById(`piece-${next.piece.id}`)?.focus();
  };
  useShortcuts('Rack', [
    { keys: 'a', does: 'Add a piece', run: add },
    { keys: 'ArrowRight', does: 'Next piece', run: () => choose(1) },
    { keys: 'ArrowLeft', does: 'Piece before', run: () => choose(-1) },
    { keys: 'e', does: 'Edit the chosen piece', run: () => void edit() },
    { keys: 'd', does: 'Duplicate the chosen piece', run: () => void duplicate() },
    { keys: 'Delete', does: 'Remove the chosen piece', run: () => void remove() },
  ]);

  return (
    <div className={classes.page}>
      <header>
        <h1>Rack</h1>
        <Button leftSection={<IconPlus size={17} />} onClick={add}>Add a piece</Button>
        <span className={classes.actions} role="group" aria-label="Chosen piece">
          <Button variant="default" leftSection={<IconPencil size={16} />} disabled={!selected} onClick={edit}>Edit{selected && ` ${selected.piece.mark}`}</Button>
          <Button variant="default" leftSection={<IconCopy size={16} />} disabled={!selected} onClick={duplicate}>Duplicate</Button>
          <Button variant="default" leftSection={<IconTrash size={16} />} disabled={!selected} onClick={() => void remove()}>Remove</Button>
        </span>
        <p>{pieces.length} pieces, all drawn at {scaleWords(scale)}</p>
      </header>
      {problem && <p role="alert" className={classes.problem}>{problem.message} Cadenza keeps trying.</p>}
      {rack.data?.length === 0 && <p className={classes.empty}>The rack is empty. Add what really stands there: planks, offcuts, salvage. Boards are laid out from it.</p>}
      <div ref={ref}>
        {width > 0 && shelves.map((shelf) => (
          <section key={shelf.species.code} className={classes.shelf} aria-label={shelf.species.name}>
            <h2>{shelf.species.name} <small>{shelf.pieces.length}</small></h2>
            <div className={classes.pieces}>
              {shelf.pieces.map(({ piece }) => (
                <StockPiece key={piece.id} piece={piece} species={shelf.species} scale={scale} chosen={piece.id === chosen} onChoose={() => setChosen(piece.id)}
                  onOpen={() => {
                    setChosen(piece.id);
                    setEditing({ stored: pieces.find((p) => p.piece.id === piece.id) ?? null, start: piece });
                  }} />
              ))}
            </div>
          </section>
        ))}
      </div>
      {editing && (
        <PieceDialog stored={editing.stored} start={editing.start} species={species.data ?? []} currency={shop.data?.shop.currency ?? ''} onClose={() => setEditing(null)}
          onSaved={(saved) => {
            setEditing(null);
            setChosen(saved.piece.id);
            void reload();
          }} />
      )}
    </div>
  );
}
