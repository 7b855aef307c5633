import { Button, Modal, TextInput } from '@mantine/core';
import { useState, type ReactNode } from 'react';
import { api, ApiProblem } from '../data/api.ts';

/** The server wants the passphrase said before it does this. */
const isAskedFor = (error: unknown): boolean => error instanceof ApiProblem && error.code === 'confirm';

interface Asking {
  /** Somebody said it, or thought better of it. */
  answered(said: boolean): void;
}

/**
 * Does what decides on more than work: where the server wants the passphrase said again, it is asked for here, and then the work is done.
 * @returns `confirmed` runs such work and fails as it does, or as it did at first when nobody said the passphrase; `dialog` belongs somewhere on the page
 */
export function useConfirmed(): { confirmed<T>(work: () => Promise<T>): Promise<T>; dialog: ReactNode } {
  const [asking, setAsking] = useState<Asking | null>(null);
  const confirmed = async <T,>(work: () => Promise<T>): Promise<T> => {
    try {
      return await work();
    } catch (error) {
      if (!isAskedFor(error)) throw error;
      const said = await new Promise<boolean>((resolve) => {
        setAsking({
          answered: (yes) => {
            setAsking(null);
            resolve(yes);
          },
        });
      });
      if (!said) throw error;
      return work();
    }
  };
  return { confirmed, dialog: asking && <ConfirmDialog onAnswered={asking.answered} /> };
}

function ConfirmDialog({ onAnswered }: { onAnswered(said: boolean): void }) {
  const [passphrase, setPassphrase] = useState('');
  const [wrong, setWrong] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const say = async () => {
    setBusy(true);
    try {
      await api.confirm(passphrase);
      onAnswered(true);
    } catch (error) {
      setWrong((error as Error).message);
      setBusy(false);
    }
  };
  return (
    <Modal
      opened
      onClose={() => onAnswered(false)}
      title="The passphrase once more"
      closeButtonProps={{ 'aria-label': 'Close' }}
    >
      <form
        onSubmit={(event) => {
          event.preventDefault();
          void say();
        }}
      >
        <p style={{ margin: '0 0 10px' }}>
          This decides on more than work, and this device may be in other hands. It holds for ten minutes then.
        </p>
        <TextInput
          type="password"
          label="Passphrase"
          autoComplete="current-password"
          data-autofocus
          value={passphrase}
          error={wrong}
          onChange={(event) => setPassphrase(event.currentTarget.value)}
        />
        <Button type="submit" mt="sm" loading={busy}>
          Go on
        </Button>
      </form>
    </Modal>
  );
}
