import { TextInput, type TextInputProps } from '@mantine/core';
import { useState } from 'react';
import type { z } from 'zod';
import { formatLengthForInput } from '#core/units/formatLength.ts';
import { lengthProblem, parseLength } from '#core/units/length.ts';
import { useDisplay } from './display.tsx';

interface LengthInputProps extends Omit<TextInputProps, 'value' | 'onChange' | 'onBlur'> {
  /** Name of the field in sentences; also its label unless `label` says otherwise. */
  field: string;
  mm: number | undefined;
  schema: z.ZodType<number>;
  /** Called with millimetres when a valid length that differs was typed and left (Enter, Tab, click elsewhere). */
  onCommit(mm: number): void;
}

/**
 * A length typed in any notation. What is typed stays as typed until it is left; a wrong one keeps its text, says why, and changes nothing.
 * Text that was not touched is never read back, so switching units cannot change a value.
 */
export function LengthInput({ field, mm, schema, onCommit, label, ...rest }: LengthInputProps) {
  const { display } = useDisplay();
  const [typed, setTyped] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);

  const leave = () => {
    if (typed === null) return;
    const result = readLength(typed, field, display.system, schema);
    if (typeof result === 'string') {
      setProblem(result);
      return;
    }
    setTyped(null);
    setProblem(null);
    if (result !== mm) onCommit(result);
  };

  return (
    <TextInput
      label={label === undefined ? field : label}
      aria-label={label === null ? field : undefined}
      inputMode="text"
      autoComplete="off"
      {...rest}
      value={typed ?? (mm === undefined ? '' : formatLengthForInput(mm, display))}
      error={problem}
      onChange={(event) => {
        setTyped(event.currentTarget.value);
        setProblem(null);
      }}
      onBlur={leave}
      onKeyDown={(event) => {
        if (event.key === 'Enter') leave();
        // Escape first takes back what was typed, then leaves the field, so that the keys of the place work again.
        if (event.key === 'Escape' && typed === null) event.currentTarget.blur();
        if (event.key === 'Escape') {
          setTyped(null);
          setProblem(null);
        }
        rest.onKeyDown?.(event);
      }}
      rightSection={
        <span style={{ color: 'var(--ink-soft)', fontSize: 12 }}>{display.system === 'metric' ? 'mm' : 'in'}</span>
      }
    />
  );
}

/** Millimetres, or the sentence that says what is wrong with the text. */
export function readLength(
  text: string,
  field: string,
  system: 'metric' | 'inch',
  schema: z.ZodType<number>,
): number | string {
  const parsed = parseLength(text, system);
  if (!parsed.ok) return lengthProblem(parsed.code, field, system);
  const checked = schema.safeParse(parsed.mm);
  return checked.success ? checked.data : `${field} ${checked.error.issues[0]?.message ?? 'is not valid'}.`;
}
