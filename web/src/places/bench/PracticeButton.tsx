import { Button } from '@mantine/core';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { practiceBoard } from '#core/bench/practice.ts';
import { api } from '../../data/api.ts';
import { keys, queryClient } from '../../data/queryClient.ts';
import { showProblem } from '../../shell/notices.tsx';

/** Begins a practice run: a made-up board, worked through at the desk. */
export function PracticeButton() {
  const navigate = useNavigate();
  const [busy, setBusy] = useState(false);
  const begin = async () => {
    setBusy(true);
    try {
      const { id } = await api.addBoard(practiceBoard());
      void queryClient.invalidateQueries({ queryKey: keys.boards });
      void navigate(`/boards/${id}/bench`);
    } catch (error) {
      showProblem(error);
    } finally {
      setBusy(false);
    }
  };
  return (
    <Button size="compact-md" variant="default" loading={busy} onClick={() => void begin()}>
      Practice run
    </Button>
  );
}
