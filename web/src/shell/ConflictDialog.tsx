import { Button, Modal } from '@mantine/core';
import { useNavigate } from 'react-router';
import type { Board } from '#core/board/board.ts';
import { useOpenBoard } from '../data/openBoard.tsx';
import { BoardMiniature } from '../drawing/BoardMiniature.tsx';
import { fitScale } from '../drawing/scale.ts';
import { BoardSizeLine } from '../drawing/BoardSizeLine.tsx';
import classes from './ConflictDialog.module.css';

const ROOM: [number, number] = [280, 190];

/** Two versions of one board, side by side at one scale; the person decides, and nothing is thrown away. */
export function ConflictDialog() {
  const { board, save, session, input } = useOpenBoard();
  const navigate = useNavigate();
  if (save.kind !== 'conflict') return null;
  const { theirs } = save;
  const longest: [number, number] = [
    Math.max(board.length, theirs.board.length),
    Math.max(board.width, theirs.board.width, 1),
  ];
  const scale = fitScale(longest, ROOM);
  const version = (title: string, shown: Board) => (
    <section>
      <h3>{title}</h3>
      <BoardMiniature board={shown} input={input} scale={scale} />
      <p>
        {shown.name}
        <br />
        <BoardSizeLine board={shown} />
      </p>
    </section>
  );
  return (
    <Modal
      opened
      onClose={() => {}}
      withCloseButton={false}
      closeOnEscape={false}
      closeOnClickOutside={false}
      size="xl"
      title="This board was changed elsewhere"
    >
      <p className={classes.lead}>
        Another tab or device saved it after you opened it here. Both versions are safe; choose which one goes on.
      </p>
      <div className={classes.versions}>
        {version('Yours, in this tab', board)}
        {version(`The other, saved ${new Date(theirs.savedAt).toLocaleTimeString()}`, theirs.board)}
      </div>
      <div className={classes.choices}>
        <Button onClick={() => void session.keepMine()}>Go on with yours</Button>
        <Button variant="default" onClick={() => session.takeTheirs()}>
          Take the other
        </Button>
        <Button
          variant="default"
          onClick={() => void session.keepBoth().then((copy) => copy && navigate(`/boards/${copy}/layout`))}
        >
          Keep both as two boards
        </Button>
      </div>
    </Modal>
  );
}
