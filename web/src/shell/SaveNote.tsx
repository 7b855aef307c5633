import { IconAlertTriangle, IconCheck, IconCloudOff, IconLoader } from '@tabler/icons-react';
import { useOpenBoard } from '../data/openBoard.tsx';
import classes from './SaveNote.module.css';

const TIME = new Intl.DateTimeFormat(undefined, { hour: '2-digit', minute: '2-digit', second: '2-digit' });

/** Says when the board was saved, or why it was not. */
export function SaveNote() {
  const { save } = useOpenBoard();
  return (
    <span className={classes.note} data-kind={save.kind} role="status">
      {save.kind === 'saved' && (
        <>
          <IconCheck size={15} /> Saved {TIME.format(new Date(save.at))}
        </>
      )}
      {(save.kind === 'waiting' || save.kind === 'saving') && (
        <>
          <IconLoader size={15} /> Saving …
        </>
      )}
      {save.kind === 'offline' && (
        <span title={save.message}>
          <IconCloudOff size={15} /> Not saved yet: {save.message} Your changes are kept here and sent as soon as it
          answers.
        </span>
      )}
      {save.kind === 'refused' && (
        <>
          <IconAlertTriangle size={15} /> Not saved: {save.message}
        </>
      )}
      {save.kind === 'conflict' && (
        <>
          <IconAlertTriangle size={15} /> Not saved: changed elsewhere
        </>
      )}
    </span>
  );
}
