import { IconAlertTriangle, IconArrowLeft, IconArrowRight, IconCheck, IconRuler2 } from '@tabler/icons-react';
import { clockWords } from '../../quantities/duration.ts';
import classes from './bench.module.css';
import type { StepClock } from './useStepClock.ts';

interface BenchBarProps {
  clock: StepClock;
  canMeasure: boolean;
  /** Whether nothing forbids that it is done now. */
  free: boolean;
  /** What the great button says. */
  goes: string;
  onMove(by: number): void;
  onMeasure(): void;
  onTrouble(): void;
  onDone(): void;
}

/** What is pressed with a knuckle: always in reach at the bottom. */
export function BenchBar({ clock, canMeasure, free, goes, onMove, onMeasure, onTrouble, onDone }: BenchBarProps) {
  return (
    <div className={classes.bar}>
      <button type="button" className={classes.tool} onClick={() => onMove(-1)} aria-label="The step before">
        <IconArrowLeft size={34} />
      </button>
      <button type="button" className={classes.tool} onClick={() => onMove(1)} aria-label="The next step">
        <IconArrowRight size={34} />
      </button>
      <button
        type="button"
        className={classes.tool}
        onClick={onMeasure}
        disabled={!canMeasure}
        title={canMeasure ? undefined : 'This step leaves nothing to measure'}
      >
        <IconRuler2 size={30} aria-hidden="true" />
        <span>Measure</span>
      </button>
      <button type="button" className={classes.tool} onClick={onTrouble}>
        <IconAlertTriangle size={30} aria-hidden="true" />
        <span>Trouble</span>
      </button>
      <button
        type="button"
        className={classes.tool}
        onClick={clock.running ? clock.stop : clock.start}
        aria-pressed={clock.running}
      >
        <b>{clockWords(clock.elapsed)}</b>
        <span>{clock.running ? 'Stop the clock' : 'Clock'}</span>
      </button>
      <button type="button" className={classes.go} onClick={onDone} disabled={!free}>
        <IconCheck size={40} aria-hidden="true" />
        <span>{goes}</span>
      </button>
    </div>
  );
}
