import { ActionIcon, Menu } from '@mantine/core';
import { IconCopy, IconDots, IconDownload, IconTrash } from '@tabler/icons-react';
import { useRef } from 'react';
import type { ListedBoard } from '#contract/boards.ts';
import classes from './BoardsPlace.module.css';

interface CardMenuProps {
  stored: ListedBoard;
  onDuplicate(): void;
  onRemove(): void;
}

/** What else can be done with a board; comes open, because it is fetched when it is first asked for. */
export function CardMenu({ stored, onDuplicate, onRemove }: CardMenuProps) {
  const button = useRef<HTMLButtonElement>(null);
  // The button that was pressed first is gone with its focus; this one takes its place.
  return (
    <Menu position="bottom-end" defaultOpened onClose={() => button.current?.focus()}>
      <Menu.Target>
        <ActionIcon
          ref={button}
          className={classes.more}
          variant="subtle"
          color="gray"
          c="var(--ink-soft)"
          aria-label={`More for ${stored.board.name}`}
        >
          <IconDots size={18} />
        </ActionIcon>
      </Menu.Target>
      <Menu.Dropdown>
        <Menu.Item leftSection={<IconCopy size={16} />} onClick={onDuplicate}>
          Duplicate
        </Menu.Item>
        <Menu.Item leftSection={<IconDownload size={16} />} component="a" href={`/api/boards/${stored.id}/file`}>
          Save as file
        </Menu.Item>
        <Menu.Item leftSection={<IconTrash size={16} />} onClick={onRemove}>
          Remove
        </Menu.Item>
      </Menu.Dropdown>
    </Menu>
  );
}
