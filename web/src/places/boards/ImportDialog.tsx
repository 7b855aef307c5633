import { Button, Checkbox, Modal } from '@mantine/core';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import type { BoardFile } from '#core/format/boardFile.ts';
import { api } from '../../data/api.ts';
import { useRack } from '../../data/queries.ts';
import { keys, queryClient } from '../../data/queryClient.ts';
import { BoardMiniature } from '../../drawing/BoardMiniature.tsx';
import { BoardSizeLine } from '../../drawing/BoardSizeLine.tsx';
import { fitScale } from '../../drawing/scale.ts';
import { showProblem } from '../../shell/notices.tsx';
import classes from './ImportDialog.module.css';

const ROOM: [number, number] = [420, 260];

const pieces = (count: number) => (count === 1 ? '1 piece' : `${count} pieces`);

/** Shows what a board file holds before anything is stored. */
export function ImportDialog({ file, onClose }: { file: BoardFile; onClose(): void }) {
  const rack = useRack();
  const navigate = useNavigate();
  const [addPieces, setAddPieces] = useState(false);
  const [busy, setBusy] = useState(false);
  const here = new Set((rack.data ?? []).flatMap(({ piece }) => [piece.id, piece.mark]));
  const unknown = file.rack.filter((p) => !here.has(p.id) && !here.has(p.mark));

  const open = async () => {
    setBusy(true);
    try {
      const stored = await api.importBoard(file, addPieces);
      await queryClient.invalidateQueries({ queryKey: keys.boards });
      if (addPieces) await queryClient.invalidateQueries({ queryKey: keys.rack });
      await queryClient.invalidateQueries({ queryKey: keys.species });
      await navigate(`/boards/${stored.id}/layout`);
    } catch (error) {
      showProblem(error);
      setBusy(false);
    }
  };
  return (
    <Modal opened onClose={onClose} title="Open this board?" size="lg" closeButtonProps={{ 'aria-label': 'Close' }}>
      <BoardMiniature
        board={file.board}
        input={file}
        scale={fitScale([file.board.length, file.board.width], ROOM, 1)}
      />
      <p className={classes.what}>
        <b>{file.board.name}</b>
        <br />
        <BoardSizeLine board={file.board} />
      </p>
      <p>
        It becomes a board of its own, planned with your rack and shop. The file was planned at “{file.shop.name}” with{' '}
        {pieces(file.rack.length)}
        {unknown.length === 0 ? ', all of them in your rack.' : `, ${unknown.length} of them not in your rack.`}
      </p>
      {unknown.length > 0 && (
        <Checkbox
          checked={addPieces}
          onChange={(event) => setAddPieces(event.currentTarget.checked)}
          label={`Add ${unknown.length === 1 ? 'that piece' : `those ${unknown.length} pieces`} to the rack too`}
        />
      )}
      <div className={classes.buttons}>
        <Button onClick={() => void open()} loading={busy}>
          Open the board
        </Button>
        <Button variant="default" onClick={onClose}>
          Cancel
        </Button>
      </div>
    </Modal>
  );
}
