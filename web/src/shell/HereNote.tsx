import { IconUsers } from '@tabler/icons-react';
import classes from './HereNote.module.css';
import { useLive } from './useLive.ts';

/** Who else has this board open. */
export function HereNote() {
  const { here } = useLive();
  if (here.length === 0) return null;
  const names = [...new Map(here.map((p) => [p.name, here.filter((o) => o.name === p.name).length]))].map(
    ([name, count]) => `${name === '' ? 'Somebody' : name}${count > 1 ? ` (${count} times)` : ''}`,
  );
  return (
    <span className={classes.note} role="status">
      <IconUsers size={15} /> Also here: {names.join(', ')}
    </span>
  );
}
