import { Button, TextInput } from '@mantine/core';
import { useState } from 'react';
import { boardSchema } from '#core/board/board.ts';
import { firstOf } from '#core/lists/there.ts';
import { useSettledBoard } from '../../data/openBoard.tsx';
import classes from './FinishPlace.module.css';
import { RemoveButton } from '../../quantities/RemoveButton.tsx';

/** What is packed with the board: the care card, a tin of wax. Feet, handles and a hole to hang it by are worked into it at Trim. */
export function PackList() {
  const { board, session } = useSettledBoard();
  const [typed, setTyped] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const add = () => {
    const read = boardSchema.shape.pack.safeParse([...board.pack, typed]);
    if (!read.success) return setProblem(`What is packed ${firstOf(read.error.issues).message}.`);
    setProblem(null);
    setTyped('');
    session.edit((b) => ({ ...b, pack: read.data }));
  };
  return (
    <section>
      <h2>Packed with it</h2>
      <ul className={classes.pack}>
        {board.pack.map((thing, i) => (
          <li key={`${thing}/${i}`}>
            {thing}
            <RemoveButton
              label={`Leave ${thing} out`}
              onClick={() => session.edit((b) => ({ ...b, pack: b.pack.filter((_, k) => k !== i) }))}
            />
          </li>
        ))}
      </ul>
      <form
        className={classes.row}
        onSubmit={(event) => {
          event.preventDefault();
          add();
        }}
      >
        <TextInput
          size="sm"
          label="Pack with it"
          placeholder="a tin of wax"
          value={typed}
          error={problem}
          onChange={(event) => setTyped(event.currentTarget.value)}
        />
        <Button type="submit" size="sm" variant="default" disabled={typed.trim() === ''}>
          Add
        </Button>
      </form>
    </section>
  );
}
