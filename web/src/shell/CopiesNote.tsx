import { useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { Link } from 'react-router';
import { copiesQuery } from '../data/backups.ts';
import classes from './AloneNote.module.css';
import { useLive } from './useLive.ts';

/** What is looked at comes first, ms. */
const LATER_MS = 5000;

/** Says that there is no good copy of what is stored, or none that is new enough, with the way to mend it. Nothing at all while all is well. */
export function CopiesNote() {
  const [later, setLater] = useState(false);
  const { may, aloneSince } = useLive();
  useEffect(() => {
    const timer = setTimeout(() => setLater(true), LATER_MS);
    return () => clearTimeout(timer);
  }, []);
  const { data } = useQuery({ ...copiesQuery, enabled: later && may === 'work' && aloneSince === null });
  if (!data || (!data.old && data.trouble === null)) return null;
  return (
    <span role="status" className={classes.note}>
      <Link to="/shop/backup">{data.old ? 'The last good copy is too old' : 'No copy could be made'}</Link>
    </span>
  );
}
