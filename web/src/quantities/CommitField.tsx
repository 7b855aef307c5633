import { useState, type ReactNode } from 'react';
import type { z } from 'zod';

interface CommitFieldProps<T> {
  /** Name of the field in sentences. */
  field: string;
  value: T;
  schema: z.ZodType<T>;
  onCommit(value: T): void;
  /** Draws the input: what is typed, how to set it, what is wrong with it, and what to call when it is left. */
  children(typed: T, set: (typed: T) => void, problem: string | null, leave: () => void): ReactNode;
}

/** A field that is saved when it is left. A wrong value stays as typed, says why, and changes nothing. */
export function CommitField<T>({ field, value, schema, onCommit, children }: CommitFieldProps<T>) {
  const [typed, setTyped] = useState<{ value: T } | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const leave = () => {
    if (typed === null) return;
    const checked = schema.safeParse(typed.value);
    if (!checked.success) {
      setProblem(`${field} ${checked.error.issues[0]?.message ?? 'is not valid'}.`);
      return;
    }
    setTyped(null);
    setProblem(null);
    if (checked.data !== value) onCommit(checked.data);
  };
  const set = (next: T) => {
    setTyped({ value: next });
    setProblem(null);
  };
  return children(typed ? typed.value : value, set, problem, leave);
}
