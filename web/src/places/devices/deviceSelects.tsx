import { NativeSelect } from '@mantine/core';
import { RIGHTS, type Right } from '#contract/devices.ts';
import type { Person } from '#core/shop/people.ts';

export const ANYBODY = '';
export const MAY_WORDS: Readonly<Record<Right, string>> = { work: 'May work', look: 'May look' };

/** Whose a device is: somebody's from the list of people, or everybody's. */
export function PersonSelect({
  label,
  shown = false,
  value,
  people,
  onChange,
}: {
  label: string;
  /** The label is seen, and not only heard. */
  shown?: boolean;
  value: string;
  people: readonly Person[];
  onChange(value: string): void;
}) {
  return (
    <NativeSelect
      size="sm"
      {...(shown ? { label } : { 'aria-label': label })}
      value={value}
      onChange={(e) => onChange(e.currentTarget.value)}
      data={[{ value: ANYBODY, label: 'Everybody' }, ...people.map((p) => ({ value: p.id, label: p.name }))]}
    />
  );
}

/** What a device may. */
export function MaySelect({
  label,
  shown = false,
  value,
  onChange,
}: {
  label: string;
  shown?: boolean;
  value: Right;
  onChange(value: Right): void;
}) {
  return (
    <NativeSelect
      size="sm"
      {...(shown ? { label } : { 'aria-label': label })}
      value={value}
      onChange={(e) => onChange(e.currentTarget.value as Right)}
      data={RIGHTS.map((may) => ({ value: may, label: MAY_WORDS[may] }))}
    />
  );
}
