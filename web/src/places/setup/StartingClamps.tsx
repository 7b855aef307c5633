import { Button } from '@mantine/core';
import { IconPlus } from '@tabler/icons-react';
import type { StartingAnswers } from '#core/shop/startingShop.ts';
import { usualFigures } from '#core/shop/usualFigures.ts';
import { ClampRow } from '../../clamps/ClampRow.tsx';
import classes from './SetupPlace.module.css';

interface StartingClampsProps {
  answers: StartingAnswers;
  onChange(change: Partial<StartingAnswers>): void;
}

/** Clamps by kind and length. */
export function StartingClamps({ answers: { clamps, system }, onChange }: StartingClampsProps) {
  const set = (i: number, change: Partial<(typeof clamps)[number]>) =>
    onChange({ clamps: clamps.map((c, k) => (k === i ? { ...c, ...change } : c)) });
  return (
    <>
      {clamps.map((c, i) => (
        <ClampRow
          key={i}
          clamps={c}
          number={i + 1}
          className={classes.clamps}
          onChange={(change) => set(i, change)}
          onRemove={() => onChange({ clamps: clamps.filter((_, k) => k !== i) })}
        />
      ))}
      {clamps.length === 0 && <p>No clamps: no glue-up can be planned without them.</p>}
      <Button
        size="compact-sm"
        variant="default"
        leftSection={<IconPlus size={15} />}
        disabled={clamps.length >= 20}
        onClick={() =>
          onChange({ clamps: [...clamps, { kind: 'pipe', opening: usualFigures(system).clamp.opening, count: 2 }] })
        }
      >
        Other clamps
      </Button>
    </>
  );
}
