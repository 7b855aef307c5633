import { Checkbox } from '@mantine/core';
import type { ReactNode } from 'react';
import { startingAnswersSchema, type StartingAnswers } from '#core/shop/startingShop.ts';
import { usualFigures } from '#core/shop/usualFigures.ts';
import { LengthInput } from '../../quantities/LengthInput.tsx';
import classes from './SetupPlace.module.css';

const NAMES = { planer: 'Planer', jointer: 'Jointer', drumSander: 'Drum sander' } as const;

interface WidthOrNoneProps {
  machine: keyof typeof NAMES;
  answers: StartingAnswers;
  onChange(change: Partial<StartingAnswers>): void;
  /** What else is asked of it where there is one. */
  children?: ReactNode;
}

/** Whether there is such a machine, and how wide it is. */
export function WidthOrNone({ machine, answers, onChange, children }: WidthOrNoneProps) {
  const width = answers[machine];
  const usual = usualFigures(answers.system).machines[machine].width;
  return (
    <div className={classes.machine}>
      <Checkbox
        label={NAMES[machine]}
        checked={width !== null}
        onChange={(e) => onChange({ [machine]: e.currentTarget.checked ? usual : null })}
      />
      {width !== null && (
        <LengthInput
          size="sm"
          field={`${NAMES[machine]} width`}
          mm={width}
          schema={startingAnswersSchema.shape[machine].unwrap()}
          onCommit={(mm) => onChange({ [machine]: mm })}
        />
      )}
      {width !== null && children}
    </div>
  );
}
