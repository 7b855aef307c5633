import { Button } from '@mantine/core';

const UNDO_MS = 12_000;
const CLOSE = { closeButtonProps: { 'aria-label': 'Close' } } as const;

/** What is told in passing comes seldom: what tells it comes when it is wanted. */
const store = async () => (await import('@mantine/notifications')).notifications;

/** Tells in passing that something did not work, and why. @param title what did not work, where the sentence does not say it */
export function showProblem(error: unknown, title?: string): void {
  const message = error instanceof Error ? error.message : 'Something went wrong.';
  void store().then((notifications) =>
    notifications.show({ ...CLOSE, color: 'red', autoClose: 12_000, title, message }),
  );
}

/** Tells something in passing that is nobody's fault. */
export function showWord(message: string): void {
  void store().then((notifications) => notifications.show({ ...CLOSE, autoClose: 4000, message }));
}

/** Tells that something was taken away, with the way back. */
export function showUndo(message: string, undo: () => Promise<void>): void {
  void store().then((notifications) => {
    const id = notifications.show({
      ...CLOSE,
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
  });
}
