import { cutStripsOf } from '#core/board/recipe.ts';
import { factsThatHold } from '#core/facts/factsThatHold.ts';
import type { LogEntry } from '#core/log/entry.ts';
import { useSpecies } from '../../data/queries.ts';
import { durationWords } from '../../quantities/duration.ts';
import { Length } from '../../quantities/Length.tsx';
import classes from './log.module.css';

const DAY = new Intl.DateTimeFormat(undefined, { dateStyle: 'medium' });
const SIDES = ['length', 'width', 'thickness'] as const;

/** Each piece once, with where it came from. */
function piecesOf({ pieces }: LogEntry): string {
  const told = new Map(pieces.map((p) => [p.mark, p]));
  return [...told.values()]
    .map(({ mark, origin, of }) => (origin ? `${mark} (${[origin, of].filter(Boolean).join(', ')})` : mark))
    .join(', ');
}

/** What was wished and what came of it, of one finished board or of two beside each other. */
export function LogFigures({ entries }: { entries: readonly LogEntry[] }) {
  const species = useSpecies();
  const nameOf = (code: string) => species.data?.find((s) => s.code === code)?.name ?? code;
  const rows: readonly [string, (entry: LogEntry) => React.ReactNode][] = [
    ['Done', (e) => DAY.format(new Date(e.finishedAt))],
    ['For', (e) => e.forWhom || '–'],
    ['Use', (e) => e.board.use || '–'],
    ...SIDES.map((side): [string, (entry: LogEntry) => React.ReactNode] => [
      side.charAt(0).toUpperCase() + side.slice(1),
      (e) => {
        const off = e.reached[side] - e.wished[side];
        return (
          <>
            <Length mm={e.reached[side]} />
            {Math.abs(off) > 0.05 && (
              <span className={classes.off}>
                {' '}
                <Length mm={Math.abs(off)} /> {off < 0 ? 'under' : 'over'} what was wished
              </span>
            )}
          </>
        );
      },
    ]),
    ['Woods', (e) => [...new Set(cutStripsOf(e.board).map((s) => s.species))].map(nameOf).join(', ')],
    ['Pieces', (e) => piecesOf(e) || '–'],
    ['Weight', (e) => (e.grams === null ? '–' : `${(e.grams / 1000).toFixed(2)} kg each`)],
    ['Glue', (e) => e.glue || '–'],
    ['Finish', (e) => e.finish || '–'],
    [
      'Work',
      (e) => (
        <>
          {durationWords(e.minutesPlanned)} planned
          {e.minutesTaken > 0 && (
            <>
              ; of the steps a clock ran for {durationWords(e.minutesTaken)} taken,{' '}
              {durationWords(e.minutesPlannedOfTaken)} planned
            </>
          )}
        </>
      ),
    ],
    ['Wood cost', (e) => (e.cost === null ? 'no prices' : `${e.cost.toFixed(2)} ${e.currency}`)],
    ['Mishaps', (e) => factsThatHold(e.facts).filter((f) => f.kind === 'decided').length || 'none'],
  ];
  return (
    <table className={classes.figures}>
      {entries.length > 1 && (
        <thead>
          <tr>
            <td />
            {entries.map((e, i) => (
              <th key={i} scope="col">
                {e.board.name}
              </th>
            ))}
          </tr>
        </thead>
      )}
      <tbody>
        {rows.map(([label, say]) => (
          <tr key={label}>
            <th scope="row">{label}</th>
            {entries.map((e, i) => (
              <td key={i}>{say(e)}</td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
