import { ActionIcon } from '@mantine/core';
import { IconTrash } from '@tabler/icons-react';

/** Takes a line out of a list. @param label what goes, in words */
export function RemoveButton({ label, onClick }: { label: string; onClick(): void }) {
  return (
    <ActionIcon variant="subtle" color="gray" c="var(--ink-soft)" size="lg" aria-label={label} onClick={onClick}>
      <IconTrash size={17} />
    </ActionIcon>
  );
}
