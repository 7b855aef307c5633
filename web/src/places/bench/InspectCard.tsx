import { Button } from '@mantine/core';
import type { Look } from '#core/bench/inspection.ts';
import type { Operation } from '#core/steps/operation.ts';
import { Say } from '../../quantities/Length.tsx';
import classes from './bench.module.css';

interface InspectCardProps {
  step: Operation;
  looks: readonly Look[];
  /** Whether there is something to measure of it. */
  measures: boolean;
  onMeasure(): void;
  onFinding(look: Look): void;
  onGood(): void;
}

/** What was just done, looked at before the next thing is taken up: each finding leads to its ways. */
export function InspectCard({ step, looks, measures, onMeasure, onFinding, onGood }: InspectCardProps) {
  return (
    <section className={classes.inspect} aria-label={`Look at it: step ${step.number}`}>
      <h3>Step {step.number} is done. Look at it:</h3>
      <ul>
        {looks.map((look, i) => (
          <li key={i}>
            <span>
              <b>
                <Say phrase={look.what} />
              </b>
              . <Say phrase={look.how} />.
            </span>
            {look.finding && (
              <Button size="md" variant="default" onClick={() => onFinding(look)}>
                Not so
              </Button>
            )}
          </li>
        ))}
      </ul>
      <Button size="lg" onClick={onGood}>
        All is good
      </Button>{' '}
      {measures && (
        <Button size="lg" variant="default" onClick={onMeasure}>
          Measure it
        </Button>
      )}
    </section>
  );
}
