import { Select } from '@mantine/core';
import { CLIMATES, seasonsSchema, type Seasons } from '#core/wood/moisture.ts';
import { NumberField } from './plainFields.tsx';
import { QuantityField } from './QuantityField.tsx';

interface SeasonFieldsProps {
  /** The air that counts now, its own or taken over. */
  seasons: Seasons;
  /** What stands for "as somebody else says"; left out where there is nobody else. */
  inherit?: { label: string; on: boolean; choose(): void };
  onChange(seasons: Seasons): void;
}

const INHERIT = 'inherit';
const TYPED = 'typed';
const FIGURES = [
  ['dry', 'humidity', 'Dry month, humidity', ' %'],
  ['dry', 'temperature', 'Dry month, warmth', null],
  ['damp', 'humidity', 'Damp month, humidity', ' %'],
  ['damp', 'temperature', 'Damp month, warmth', null],
] as const;

/** The driest and the dampest month: a climate to choose, or two pairs of humidity and temperature to type. */
export function SeasonFields({ seasons, inherit, onChange }: SeasonFieldsProps) {
  const known = CLIMATES.find((c) => JSON.stringify(c.seasons) === JSON.stringify(seasons))?.name ?? TYPED;
  return (
    <>
      <Select
        size="sm"
        label="Climate"
        allowDeselect={false}
        value={inherit?.on ? INHERIT : known}
        data={[
          ...(inherit ? [{ value: INHERIT, label: inherit.label }] : []),
          ...CLIMATES.map((c) => ({ value: c.name, label: c.name })),
          { value: TYPED, label: 'As typed' },
        ]}
        onChange={(v) =>
          v === INHERIT ? inherit?.choose() : onChange(CLIMATES.find((c) => c.name === v)?.seasons ?? seasons)
        }
      />
      {FIGURES.map(([month, key, label, suffix]) => {
        const figure = {
          field: label,
          value: seasons[month][key],
          schema: seasonsSchema.shape[month].shape[key],
          onCommit: (value: number) => onChange({ ...seasons, [month]: { ...seasons[month], [key]: value } }),
        };
        if (suffix === null) return <QuantityField key={label} quantity="temperature" {...figure} />;
        return <NumberField key={label} suffix={suffix} {...figure} />;
      })}
    </>
  );
}
