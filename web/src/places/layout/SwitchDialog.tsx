import { Button, Modal } from '@mantine/core';
import { nanoid } from 'nanoid';
import { useMemo } from 'react';
import type { Construction } from '#core/board/board.ts';
import { switchConstruction } from '#core/plan/switchConstruction.ts';
import { useOpenBoard } from '../../data/openBoard.tsx';
import { BoardMiniature } from '../../drawing/BoardMiniature.tsx';
import { fitScale, scaleWords } from '../../drawing/scale.ts';
import { Say } from '../../quantities/Length.tsx';
import { setAside } from './versions.ts';
import classes from './SwitchDialog.module.css';

interface SwitchDialogProps {
  to: Construction;
  onClose(): void;
}

const NAMES = { edge: 'edge grain', face: 'face grain' } as const;

/** What comes of the same stock in the other construction, before anything is changed. */
export function SwitchDialog({ to, onClose }: SwitchDialogProps) {
  const { board, session, input } = useOpenBoard();
  const { board: switched, changes } = useMemo(
    () => switchConstruction({ ...input, board }, to, () => nanoid(10)),
    [input, board, to],
  );
  const scale = fitScale(
    [Math.max(board.length, switched.length), Math.max(board.width, switched.width)],
    [260, 200],
    1,
  );
  const take = (keepOld: boolean) => {
    session.edit((b) => ({
      ...(keepOld ? (setAside(b, `As ${NAMES[board.construction]}`, nanoid(10)) ?? b) : b),
      construction: switched.construction,
      recipe: switched.recipe,
    }));
    onClose();
  };
  return (
    <Modal
      opened
      onClose={onClose}
      size="lg"
      title={`Switch to ${NAMES[to]}?`}
      closeButtonProps={{ 'aria-label': 'Close' }}
    >
      <div className={classes.both}>
        <figure>
          <BoardMiniature board={board} input={input} scale={scale} />
          <figcaption>Now, {NAMES[board.construction]}</figcaption>
        </figure>
        <figure>
          <BoardMiniature board={switched} input={input} scale={scale} />
          <figcaption>
            Then, {NAMES[to]}; both {scaleWords(scale)}
          </figcaption>
        </figure>
      </div>
      <ul className={classes.changes}>
        {changes.map((c, i) => (
          <li key={i}>
            <Say phrase={c} />
          </li>
        ))}
      </ul>
      <div className={classes.buttons}>
        <Button onClick={() => take(false)}>Switch</Button>
        <Button variant="default" onClick={() => take(true)}>
          Switch, and set the old one aside
        </Button>
        <Button variant="subtle" onClick={onClose}>
          Leave it
        </Button>
      </div>
    </Modal>
  );
}
