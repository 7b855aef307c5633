import { useQueries } from '@tanstack/react-query';
import { Link, useSearchParams } from 'react-router';
import { api } from '../../data/api.ts';
import classes from './log.module.css';
import { LogFace } from './LogFace.tsx';
import { LogFigures } from './LogFigures.tsx';

/** Two finished boards beside each other. */
export function LogComparePlace() {
  const [search] = useSearchParams();
  const ids = [search.get('a') ?? '', search.get('b') ?? ''];
  const found = useQueries({
    queries: ids.map((id) => ({ queryKey: ['log entry', id], queryFn: () => api.logEntry(id) })),
  });
  const problem = found.find((f) => f.error)?.error;
  const entries = found.flatMap((f) => f.data?.entry ?? []);
  return (
    <div className={classes.page}>
      <div className={classes.tools}>
        <h1>Two boards compared</h1>
        <Link to="/log">All boards of the log</Link>
      </div>
      {problem && <p role="alert">{problem.message}</p>}
      {entries.length === 2 && (
        <>
          <div className={classes.pair}>
            {entries.map((entry, i) => (
              <LogFace key={i} entry={entry} wide={420} />
            ))}
          </div>
          <LogFigures entries={entries} />
        </>
      )}
    </div>
  );
}
