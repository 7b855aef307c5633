import { Button, Modal } from '@mantine/core';
import { useEffect, useRef, useState } from 'react';
import type { Measure } from '#core/bench/measures.ts';
import type { Taken } from '#core/bench/reading.ts';
import { slipOf, type Slip } from '#core/bench/slip.ts';
import { isHabitMeasured, isMeasuredLength, MEASURES, type Measured } from '#core/facts/fact.ts';
import { formatLength, formatLengthForInput } from '#core/units/formatLength.ts';
import { MM_PER_INCH } from '#core/units/length.ts';
import { lengthBetween } from '#core/units/lengthSchema.ts';
import { Length } from '../../quantities/Length.tsx';
import { readLength } from '../../quantities/LengthInput.tsx';
import { useDisplay } from '../../quantities/display.tsx';
import classes from './bench.module.css';
import { MEASURED_WORDS } from './measuredWords.ts';
import { NumberPad } from './NumberPad.tsx';
import { showProblem } from '../../shell/notices.tsx';
import { hasSerial, readSerial, useReadings } from '../../data/readings.ts';

const UNITS = { moisture: '%', weight: 'g' } as const;

interface MeasureDialogProps {
  measures: readonly Measure[];
  onNote(measure: Measure, value: number): void;
  onClose(): void;
}

/** A figure from the bench, typed with a knuckle; one that cannot be right is asked back with what was likely meant. */
export function MeasureDialog({ measures, onNote, onClose }: MeasureDialogProps) {
  const { display } = useDisplay();
  const [at, setAt] = useState(0);
  const [text, setText] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const [doubt, setDoubt] = useState<{ value: number; slip: Slip } | null>(null);
  const measure = measures[at];
  const awaited = measure?.dimension ?? null;
  const latest = useRef<Measured>('thickness');
  useEffect(() => {
    if (awaited) latest.current = awaited;
  }, [awaited]);
  const read = (taken: Taken) => {
    if (!taken.ok) {
      setProblem(taken.message);
      return;
    }
    setProblem(null);
    setDoubt(null);
    // Finer than a tape is read: an instrument tells more.
    const inches = awaited !== null && isMeasuredLength(awaited) && display.system === 'inch';
    setText(
      String(inches ? Math.round((taken.value / MM_PER_INCH) * 1000) / 1000 : Math.round(taken.value * 100) / 100),
    );
  };
  useReadings(awaited, read);
  if (!measure) return null;
  const field = `The ${MEASURED_WORDS[measure.dimension].replace(/^the /, '')}`;
  const unit = isMeasuredLength(measure.dimension)
    ? display.system === 'metric'
      ? 'mm'
      : 'in'
    : UNITS[measure.dimension];
  const choose = (next: number) => {
    setAt(next);
    setText('');
    setProblem(null);
    setDoubt(null);
  };
  const take = (value: number) => {
    onNote(measure, value);
    const following = measures[at + 1];
    // What only teaches is asked for by whoever wants to note it.
    if (following && !isHabitMeasured(following.dimension)) choose(at + 1);
    else onClose();
  };
  const enter = () => {
    const read = readFigure(text, field, measure.dimension, display.system);
    if (typeof read === 'string') {
      setProblem(read);
      return;
    }
    if (measure.before !== null && read > measure.before + 0.5) {
      setDoubt({ value: read, slip: slipOf(read, measure.expected ?? measure.before) ?? { why: 'far', meant: null } });
      return;
    }
    const slip = measure.expected === null ? null : slipOf(read, measure.expected);
    if (slip) setDoubt({ value: read, slip });
    else take(read);
  };
  const said = (value: number) =>
    isMeasuredLength(measure.dimension) ? formatLength(value, display) : `${value} ${unit}`;
  return (
    <Modal opened onClose={onClose} title="What did you measure?" size="lg" centered>
      <div className={classes.measures} role="radiogroup" aria-label="What is measured">
        {measures.map((m, i) => (
          <Button
            key={`${m.thing}/${m.copy}/${m.stage}/${m.dimension}`}
            variant={i === at ? 'filled' : 'default'}
            role="radio"
            aria-checked={i === at}
            size="md"
            onClick={() => choose(i)}
          >
            {m.label}, {MEASURED_WORDS[m.dimension]}
          </Button>
        ))}
      </div>
      {measure.expected !== null && (
        <p className={classes.expected}>
          The plan expects <Length mm={measure.expected} />
        </p>
      )}
      {doubt ? (
        <div className={classes.doubt} role="alert">
          <p>
            {DOUBTS[doubt.slip.why](said(doubt.value))}
            {doubt.slip.meant !== null && <> Was it {said(doubt.slip.meant)}?</>}
          </p>
          {doubt.slip.meant !== null && (
            <Button size="lg" onClick={() => doubt.slip.meant !== null && take(doubt.slip.meant)}>
              Yes, {said(doubt.slip.meant)}
            </Button>
          )}{' '}
          <Button size="lg" variant="default" onClick={() => take(doubt.value)}>
            It is {said(doubt.value)}
          </Button>{' '}
          <Button size="lg" variant="default" onClick={() => setDoubt(null)}>
            Type it again
          </Button>
        </div>
      ) : (
        <NumberPad
          label={`${measure.label}, ${MEASURED_WORDS[measure.dimension]}`}
          unit={unit}
          fractions={unit === 'in'}
          text={text}
          problem={problem}
          placeholder={measure.expected === null ? '' : formatLengthForInput(measure.expected, display)}
          onText={(next) => {
            setText(next);
            setProblem(null);
          }}
          onEnter={enter}
        />
      )}
      <p className={classes.expected}>
        A reading of an instrument comes here by itself (
        <a href="/instruments" target="_blank" rel="noreferrer">
          try it without one
        </a>
        ).{' '}
        {hasSerial() && (
          <Button
            size="compact-md"
            variant="default"
            onClick={() => void readSerial(() => latest.current, read).catch(showProblem)}
          >
            Connect one by wire
          </Button>
        )}
      </p>
    </Modal>
  );
}

const DOUBTS: Readonly<Record<Slip['why'], (said: string) => string>> = {
  inches: (said) => `${said}? That would be right in inches.`,
  millimetres: (said) => `${said}? That would be right in millimetres.`,
  point: (said) => `${said}? The point seems to stand elsewhere.`,
  swapped: (said) => `${said}? Two digits seem to have changed places.`,
  far: (said) => `${said} is far from what it can be: work takes wood off, and a saw wanders little.`,
};

/** What was typed as a figure, or the sentence that says what is wrong with it. */
function readFigure(text: string, field: string, dimension: Measured, system: 'metric' | 'inch'): number | string {
  const { least, greatest } = MEASURES[dimension];
  if (isMeasuredLength(dimension)) return readLength(text, field, system, lengthBetween(least, greatest));
  const value = Number(text.trim().replace(',', '.'));
  if (text.trim() === '' || !Number.isFinite(value)) return `${field} must be a number.`;
  return value < least || value > greatest
    ? `${field} must be between ${least} and ${greatest} ${UNITS[dimension]}.`
    : value;
}
