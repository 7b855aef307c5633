import { ActionIcon, Button, Select } from '@mantine/core';
import { IconPlus, IconTrash } from '@tabler/icons-react';
import { clampKinds, clampSchema } from '#core/shop/gluing.ts';
import type { StartingAnswers } from '#core/shop/startingShop.ts';
import { usualFigures } from '#core/shop/usualFigures.ts';
import { LengthInput } from '../../quantities/LengthInput.tsx';
import { NumberField } from '../../quantities/plainFields.tsx';
import { CLAMP_NAMES } from '../../quantities/clampNames.ts';
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
        <div key={i} className={classes.clamps} role="group" aria-label={`Clamps ${i + 1}`}>
          <Select
            size="sm"
            label="Kind"
            allowDeselect={false}
            value={c.kind}
            data={clampKinds.map((value) => ({ value, label: CLAMP_NAMES[value] }))}
            onChange={(kind) => kind && set(i, { kind: kind })}
          />
          <LengthInput
            size="sm"
            field="Opens to"
            mm={c.opening}
            schema={clampSchema.shape.opening}
            onCommit={(opening) => set(i, { opening })}
          />
          <NumberField
            field="Count"
            value={c.count}
            schema={clampSchema.shape.count}
            onCommit={(count) => set(i, { count })}
          />
          <ActionIcon
            variant="subtle"
            color="gray"
            c="var(--ink-soft)"
            size="lg"
            aria-label={`Remove clamps ${i + 1}`}
            onClick={() => onChange({ clamps: clamps.filter((_, k) => k !== i) })}
          >
            <IconTrash size={17} />
          </ActionIcon>
        </div>
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
