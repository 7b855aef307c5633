import { Button, Checkbox, NativeSelect, TextInput } from '@mantine/core';
import { useDebouncedValue } from '@mantine/hooks';
import { IconDownload } from '@tabler/icons-react';
import { keepPreviousData, useInfiniteQuery } from '@tanstack/react-query';
import { writeCsv } from '#core/format/csv.ts';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { type ListedEntry, type LogQuery, type LogSort } from '#contract/log.ts';
import { api } from '../../data/api.ts';
import { useSpecies } from '../../data/queries.ts';
import { saveFile } from '../../data/saveFile.ts';
import { durationWords } from '../../quantities/duration.ts';
import { Length } from '../../quantities/Length.tsx';
import { showProblem } from '../../shell/notices.tsx';
import { Scrolled } from '../../shell/Scrolled.tsx';
import classes from './log.module.css';

const SORTS: readonly { value: LogSort; label: string }[] = [
  { value: 'newest', label: 'Newest first' },
  { value: 'oldest', label: 'Oldest first' },
  { value: 'name', label: 'By name' },
  { value: 'longest', label: 'Most work first' },
  { value: 'dearest', label: 'Dearest first' },
];
const DAY = new Intl.DateTimeFormat(undefined, { dateStyle: 'medium' });
/** Words are looked for once the hands rest, ms. */
const WAIT_MS = 200;

/** Boards that are done: looked for, sorted, compared, taken out as a table. */
export function LogPlace() {
  const navigate = useNavigate();
  const species = useSpecies();
  const [words, setWords] = useState('');
  const [asked] = useDebouncedValue(words, WAIT_MS);
  const [wood, setWood] = useState('');
  const [sort, setSort] = useState<LogSort>('newest');
  const [marked, setMarked] = useState<readonly string[]>([]);
  const query: LogQuery = { words: asked, species: wood, sort };
  const found = useInfiniteQuery({
    queryKey: ['log', query],
    queryFn: ({ pageParam }) => api.log({ ...query, from: pageParam }),
    initialPageParam: 0,
    getNextPageParam: (last, pages) => {
      const shown = pages.reduce((sum, p) => sum + p.entries.length, 0);
      return shown < last.count ? shown : undefined;
    },
    placeholderData: keepPreviousData,
  });
  const entries = found.data?.pages.flatMap((p) => p.entries) ?? [];
  const count = found.data?.pages[0]?.count ?? 0;
  const nameOf = (code: string) => species.data?.find((s) => s.code === code)?.name ?? code;
  const mark = (id: string) =>
    setMarked(marked.includes(id) ? marked.filter((m) => m !== id) : [...marked, id].slice(-2));
  return (
    <div className={classes.page}>
      <div className={classes.tools}>
        <h1>Log</h1>
        <TextInput
          aria-label="Look for"
          placeholder="Look for a name, a wood, whom it is for, a note"
          value={words}
          maxLength={120}
          onChange={(event) => setWords(event.currentTarget.value)}
          w={320}
        />
        <NativeSelect
          aria-label="Wood"
          value={wood}
          onChange={(event) => setWood(event.currentTarget.value)}
          data={[
            { value: '', label: 'Any wood' },
            ...(species.data ?? []).map((s) => ({ value: s.code, label: s.name })),
          ]}
        />
        <NativeSelect
          aria-label="Order"
          value={sort}
          onChange={(event) => setSort(event.currentTarget.value as LogSort)}
          data={[...SORTS]}
        />
        <Button component={Link} to="/log/lessons" variant="default">
          What it teaches
        </Button>
        <Button
          variant="default"
          disabled={marked.length < 2}
          onClick={() => void navigate(`/log/compare?a=${marked[0]}&b=${marked[1]}`)}
        >
          Compare two
        </Button>
        <Button
          variant="default"
          leftSection={<IconDownload size={16} />}
          disabled={count === 0}
          onClick={() => void everything(query).then(asCsv).catch(showProblem)}
        >
          Table (CSV)
        </Button>
      </div>
      {found.error && <p role="alert">{found.error.message}</p>}
      {found.data && count === 0 && (
        <p className={classes.none}>
          {asked || wood
            ? 'No board in the log is like that.'
            : 'No board is done yet. When every step is done at the bench, take it into the log there.'}
        </p>
      )}
      {count > 0 && (
        <>
          <p className={classes.count} role="status">
            {count === 1 ? '1 board' : `${count} boards`}
          </p>
          <Scrolled name="Boards that were made">
            <table className={classes.table}>
              <thead>
                <tr>
                  <th>
                    <span className={classes.hidden}>Compare</span>
                  </th>
                  <th>Board</th>
                  <th>Done</th>
                  <th>Came out</th>
                  <th>Woods</th>
                  <th>For</th>
                  <th>Work</th>
                  <th>Mishaps</th>
                </tr>
              </thead>
              <tbody>
                {entries.map((e) => (
                  <tr key={e.id}>
                    <td>
                      <Checkbox
                        aria-label={`Compare ${e.name}`}
                        checked={marked.includes(e.id)}
                        onChange={() => mark(e.id)}
                      />
                    </td>
                    <td>
                      <Link to={`/log/${e.id}`}>{e.name}</Link>
                    </td>
                    <td>{DAY.format(new Date(e.finishedAt))}</td>
                    <td>
                      <Length mm={e.length} bare /> × <Length mm={e.width} bare /> × <Length mm={e.thickness} />
                    </td>
                    <td>{e.species.map(nameOf).join(', ')}</td>
                    <td>{e.forWhom}</td>
                    <td>
                      {e.minutesTaken > 0
                        ? durationWords(e.minutesTaken)
                        : `${durationWords(e.minutesPlanned)} planned`}
                    </td>
                    <td>{e.mishaps || ''}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </Scrolled>
          {found.hasNextPage && (
            <Button variant="default" loading={found.isFetchingNextPage} onClick={() => void found.fetchNextPage()}>
              Show more
            </Button>
          )}
        </>
      )}
    </div>
  );
}

/** All that was asked for, page after page. */
async function everything(query: LogQuery): Promise<ListedEntry[]> {
  const all: ListedEntry[] = [];
  for (;;) {
    const { count, entries } = await api.log({ ...query, from: all.length });
    all.push(...entries);
    if (all.length >= count || entries.length === 0) return all;
  }
}

const COLUMNS: Readonly<Record<string, (entry: ListedEntry) => string | number>> = {
  board: (e) => e.name,
  use: (e) => e.use,
  for: (e) => e.forWhom,
  done: (e) => e.finishedAt.slice(0, 10),
  length_mm: (e) => e.length,
  width_mm: (e) => e.width,
  thickness_mm: (e) => e.thickness,
  species: (e) => e.species.join(' '),
  minutes_planned: (e) => Math.round(e.minutesPlanned),
  minutes_taken: (e) => Math.round(e.minutesTaken),
  wood_cost: (e) => e.cost ?? '',
  mishaps: (e) => e.mishaps,
};

function asCsv(entries: readonly ListedEntry[]): void {
  const text = writeCsv(
    Object.keys(COLUMNS),
    entries.map((entry) => Object.values(COLUMNS).map((cell) => cell(entry))),
  );
  saveFile(new Blob([text], { type: 'text/csv' }), 'log', 'csv');
}
