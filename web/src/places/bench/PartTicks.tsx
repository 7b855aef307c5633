import type { Operation } from '#core/steps/operation.ts';
import { Length, Say } from '../../quantities/Length.tsx';
import classes from './bench.module.css';
import { usePersisted } from './usePersisted.ts';

/** What is done in a step, to be ticked off one by one: sizes before and after, then what to do. What is ticked stays so on this device. */
export function PartTicks({ board, step, copy }: { board: string; step: Operation; copy: number }) {
  const [kept, setKept] = usePersisted(`cadenza-ticks/${board}/${step.id}/${copy}`);
  const ticked = new Set(kept.split(',').filter(Boolean));
  const toggle = (key: string) => {
    if (!ticked.delete(key)) ticked.add(key);
    setKept([...ticked].join(','));
  };
  const rows = [
    ...step.parts.map((part, i) => ({
      key: `p${i}`,
      says: (
        <>
          <b>{part.part}</b> {part.dimension} <Length mm={part.before} /> →{' '}
          <b>
            <Length mm={part.after} rounding="up" />
          </b>
          {part.passes !== null && (part.passes === 1 ? ', 1 pass' : `, ${part.passes} passes, last one light`)}
        </>
      ),
    })),
    ...step.lines.map((line, i) => ({ key: `l${i}`, says: <Say phrase={line} /> })),
  ];
  return (
    <ul className={classes.ticks} aria-label="What to do">
      {rows.map(({ key, says }) => (
        <li key={key}>
          <label className={classes.tick} data-ticked={ticked.has(key) || undefined}>
            <input type="checkbox" checked={ticked.has(key)} onChange={() => toggle(key)} />
            <span>{says}</span>
          </label>
        </li>
      ))}
    </ul>
  );
}
