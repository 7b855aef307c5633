import { Button } from '@mantine/core';
import type { HeldFact } from '#core/facts/factsThatHold.ts';
import type { Progress } from '#core/bench/progress.ts';
import { useNotedBy } from '../../data/facts.ts';
import { useShop } from '../../data/queries.ts';
import { useSettledBoard } from '../../data/openBoard.tsx';
import { durationWords } from '../../quantities/duration.ts';
import { Say } from '../../quantities/Length.tsx';
import classes from './bench.module.css';
import { BenchPicture } from './BenchPicture.tsx';
import { FactWordsOf } from './FactWords.tsx';

const WHEN = new Intl.DateTimeFormat(undefined, { weekday: 'short', hour: '2-digit', minute: '2-digit' });

interface BenchDoneProps {
  progress: Progress;
  /** All that was noted and holds, the oldest first. */
  held: readonly HeldFact[];
  onOpen(step: string): void;
  onTakeBack(facts: readonly string[]): void;
}

/** Every step with how it stands, those that are done folded away; and all that was noted, each to be taken back. */
export function BenchDone({ progress, held, onOpen, onTakeBack }: BenchDoneProps) {
  const { board, id } = useSettledBoard();
  const by = useNotedBy(id);
  const people = useShop().data?.shop.people ?? [];
  /** Who noted it, where a device says whose it is and the list of people still has them. */
  const whoNoted = (facts: readonly string[]) => {
    const names = new Set(
      facts.flatMap((fact) => people.find((p) => by[fact] !== undefined && p.id === by[fact])?.name ?? []),
    );
    return names.size === 0 ? '' : `, by ${[...names].join(' and ')}`;
  };
  const done = progress.steps.filter((s) => s.state === 'done');
  const open = progress.steps.filter((s) => s.state !== 'done');
  const other = held.filter((f) => f.kind !== 'done');
  return (
    <div className={classes.lists}>
      <details>
        <summary>
          {done.length} of {progress.steps.length} steps done
        </summary>
        <ol>
          {done.map(({ step, times }) => (
            <li key={step.id} value={step.number}>
              <button type="button" className={classes.link} onClick={() => onOpen(step.id)}>
                <Say phrase={step.title} />
              </button>
              {times.map(
                (time, k) =>
                  time && (
                    <span key={k} className={classes.when}>
                      {times.length > 1 && `panel ${k + 1}: `}
                      {WHEN.format(new Date(time.at))}
                      {time.minutes !== null && `, ${durationWords(time.minutes)}`}
                      {whoNoted(time.facts)}
                    </span>
                  ),
              )}
              <Button
                size="compact-sm"
                variant="default"
                aria-label={`It is not done: step ${step.number}`}
                onClick={() => onTakeBack(times.flatMap((t) => t?.facts ?? []))}
              >
                It is not done
              </Button>
            </li>
          ))}
        </ol>
      </details>
      <details>
        <summary>{open.length} still to do</summary>
        <ol>
          {open.map(({ step, state }) => (
            <li key={step.id} value={step.number}>
              <button type="button" className={classes.link} onClick={() => onOpen(step.id)}>
                <Say phrase={step.title} />
              </button>
              <span className={classes.when}>
                {durationWords(step.minutes * step.repeats)}
                {state === 'free' && ', can be done now'}
              </span>
            </li>
          ))}
        </ol>
      </details>
      <details>
        <summary>{other.length === 0 ? 'Nothing else noted' : `${other.length} more noted`}</summary>
        <ul>
          {other.map((fact) => (
            <li key={fact.id}>
              {fact.kind === 'picture' ? (
                <BenchPicture board={id} picture={fact.picture} />
              ) : (
                <FactWordsOf fact={fact} board={board} />
              )}{' '}
              <span className={classes.when}>
                {WHEN.format(new Date(fact.at))}
                {whoNoted([fact.id])}
              </span>
              <Button
                size="compact-sm"
                variant="default"
                aria-label="Take this back"
                onClick={() => onTakeBack([fact.id])}
              >
                Take it back
              </Button>
            </li>
          ))}
        </ul>
        {progress.strays > 0 && (
          <p className={classes.when}>
            {progress.strays === 1 ? 'One step that is' : `${progress.strays} steps that are`} no longer planned{' '}
            {progress.strays === 1 ? 'was' : 'were'} done; that is kept, and decides nothing.
          </p>
        )}
      </details>
    </div>
  );
}
