import { Button } from '@mantine/core';
import { notifications } from '@mantine/notifications';

const UNDO_MS = 12_000;

/** Tells in passing that something did not work, and why. */
export function showProblem(error: unknown): void {
  notifications.show({
    color: 'red',
    autoClose: 10_000,
    message: error instanceof Error ? error.message : 'Something went wrong.',
  });
}

/** Tells something in passing that is nobody's fault. */
export function showWord(message: string): void {
  notifications.show({ autoClose: 4000, message });
}

/** Tells that something was taken away, with the way back. */
export function showUndo(message: string, undo: () => Promise<void>): void {
  const id = notifications.show({
    autoClose: UNDO_MS,
    message: (
      <span style={{ display: 'flex', justifyContent: 'space-between', alignItems: 'center', gap: 12 }}>
        {message}
        <Button
          size="compact-sm"
          variant="light"
          onClick={() => {
            notifications.hide(id);
            undo().catch(showProblem);
          }}
        >
          Undo
        </Button>
      </span>
    ),
  });
}
