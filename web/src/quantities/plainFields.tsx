import { NumberInput, TextInput } from '@mantine/core';
import type { z } from 'zod';
import { CommitField } from './CommitField.tsx';

interface FieldProps<T> {
  field: string;
  value: T;
  schema: z.ZodType<T>;
  onCommit(value: T): void;
  description?: string;
}

/** A plain number, with its unit behind it. */
export function NumberField({
  field,
  value,
  schema,
  onCommit,
  suffix = '',
  description,
  size = 'sm',
  label = field,
}: FieldProps<number> & {
  suffix?: string;
  size?: 'xs' | 'sm';
  /** What stands above it, where that is not what it is called in sentences. */
  label?: string;
}) {
  return (
    <CommitField value={value} schema={schema} field={field} onCommit={onCommit}>
      {(typed, set, problem, leave) => (
        <NumberInput
          size={size}
          label={label}
          aria-label={field}
          description={description}
          value={typed}
          suffix={suffix}
          hideControls
          error={problem}
          onChange={(next) => set(typeof next === 'number' ? next : Number.NaN)}
          onBlur={leave}
          onKeyDown={(e) => e.key === 'Enter' && leave()}
        />
      )}
    </CommitField>
  );
}

/** A number that nobody need know: empty where nobody does. */
export function OptionalNumber({
  field,
  value,
  schema,
  onCommit,
  suffix,
}: FieldProps<number | null> & { suffix: string }) {
  return (
    <CommitField value={value} schema={schema} field={field} onCommit={onCommit}>
      {(typed, set, problem, leave) => (
        <NumberInput
          size="sm"
          label={field}
          suffix={suffix}
          hideControls
          placeholder="not known"
          value={typed ?? ''}
          error={problem}
          onChange={(next) => set(next === '' ? null : Number(next))}
          onBlur={leave}
          onKeyDown={(e) => e.key === 'Enter' && leave()}
        />
      )}
    </CommitField>
  );
}

/** A line of text. */
export function TextField({
  field,
  value,
  schema,
  onCommit,
  description,
  size = 'sm',
  label = field,
}: FieldProps<string> & {
  size?: 'xs' | 'sm' | 'md';
  /** What stands above it, where that is not what it is called in sentences. */
  label?: string;
}) {
  return (
    <CommitField value={value} schema={schema} field={field} onCommit={onCommit}>
      {(typed, set, problem, leave) => (
        <TextInput
          size={size}
          label={label}
          description={description}
          value={typed}
          error={problem}
          onChange={(e) => set(e.currentTarget.value)}
          onBlur={leave}
          onKeyDown={(e) => e.key === 'Enter' && leave()}
        />
      )}
    </CommitField>
  );
}
