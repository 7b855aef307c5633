import { Select } from '@mantine/core';
import type { ReactNode } from 'react';
import { clampKinds, clampSchema, type Clamp } from '#core/shop/gluing.ts';
import { LengthInput } from '../quantities/LengthInput.tsx';
import { NumberField } from '../quantities/plainFields.tsx';
import { CLAMP_NAMES } from './clampNames.ts';
import { RemoveButton } from '../quantities/RemoveButton.tsx';

interface ClampRowProps {
  clamps: Pick<Clamp, 'kind' | 'opening' | 'count'>;
  /** Which of the list, from 1. */
  number: number;
  className: string | undefined;
  onChange(change: Partial<Pick<Clamp, 'kind' | 'opening' | 'count'>>): void;
  onRemove(): void;
  /** What else is asked of them. */
  children?: ReactNode;
}

/** Clamps of one kind and length: kind, opening, how many. */
export function ClampRow({ clamps, number, className, onChange, onRemove, children }: ClampRowProps) {
  return (
    <div className={className} role="group" aria-label={`Clamps ${number}`}>
      <Select
        size="sm"
        label="Kind"
        allowDeselect={false}
        value={clamps.kind}
        data={clampKinds.map((value) => ({ value, label: CLAMP_NAMES[value] }))}
        onChange={(kind) => kind && onChange({ kind })}
      />
      <LengthInput
        size="sm"
        field="Opens to"
        mm={clamps.opening}
        schema={clampSchema.shape.opening}
        onCommit={(opening) => onChange({ opening })}
      />
      {children}
      <NumberField
        field="Count"
        value={clamps.count}
        schema={clampSchema.shape.count}
        onCommit={(count) => onChange({ count })}
      />
      <RemoveButton label={`Remove clamps ${number}`} onClick={onRemove} />
    </div>
  );
}
