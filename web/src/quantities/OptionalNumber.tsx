import { NumberInput } from '@mantine/core';
import { useState } from 'react';
import type { z } from 'zod';
import { firstOf } from '#core/lists/there.ts';

interface OptionalNumberProps {
  field: string;
  suffix: string;
  value: number | null;
  schema: z.ZodType<number | null>;
  onCommit(value: number | null): void;
}

/** A number that nobody need know: empty where nobody does. */
export function OptionalNumber({ field, suffix, value, schema, onCommit }: OptionalNumberProps) {
  const [typed, setTyped] = useState<string | number | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const leave = () => {
    if (typed === null) return;
    const read = schema.safeParse(typed === '' ? null : Number(typed));
    if (!read.success) return setProblem(`${field} ${firstOf(read.error.issues).message}.`);
    setProblem(null);
    setTyped(null);
    if (read.data !== value) onCommit(read.data);
  };
  return (
    <NumberInput
      size="sm"
      label={field}
      suffix={suffix}
      hideControls
      placeholder="not known"
      value={typed ?? value ?? ''}
      error={problem}
      onChange={setTyped}
      onBlur={leave}
      onKeyDown={(e) => e.key === 'Enter' && leave()}
    />
  );
}
