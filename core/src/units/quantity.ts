import type { LengthDisplay } from './formatLength.ts';

/** What is measured beside lengths. Stored and reckoned as the first unit says; shown in either. */
export const quantityKinds = [
  'pressure',
  'force',
  'weight',
  'amount',
  'temperature',
  'spread',
  'hardness',
  'density',
] as const;
export type QuantityKind = (typeof quantityKinds)[number];

/** A measured figure inside a sentence: value in the unit of the core (MPa, kN, kg, g, °C, g/m², N, kg/m³). */
export interface Quantity {
  quantity: QuantityKind;
  value: number;
}

interface Unit {
  unit: string;
  decimals: number;
  /** From the unit of the core, and back. */
  from: (value: number) => number;
  to: (value: number) => number;
}

const same = (unit: string, decimals: number): Unit => ({ unit, decimals, from: (v) => v, to: (v) => v });
const times = (unit: string, decimals: number, factor: number): Unit => ({
  unit,
  decimals,
  from: (v) => v * factor,
  to: (v) => v / factor,
});

const GRAMS_PER_POUND = 453.59237;
const OUNCES_PER_POUND = 16;
const FOOT_MM = 304.8;

/** Conversion factors: NIST SP 811 (2008), appendix B, from memory; the pound is exactly 0.45359237 kg, the foot 0.3048 m. */
const UNITS: Readonly<Record<'metric' | 'us', Readonly<Record<QuantityKind, Unit>>>> = {
  metric: {
    pressure: same('MPa', 2),
    force: same('kN', 1),
    weight: same('kg', 2),
    amount: same('g', 0),
    temperature: same('°C', 1),
    spread: same('g/m²', 0),
    hardness: same('N', 0),
    density: same('kg/m³', 0),
  },
  us: {
    pressure: times('psi', 0, 145.03774),
    force: times('lbf', 0, 224.80894),
    weight: times('lb', 1, 1000 / GRAMS_PER_POUND),
    amount: times('oz', 1, OUNCES_PER_POUND / GRAMS_PER_POUND),
    temperature: { unit: '°F', decimals: 0, from: (c) => c * 1.8 + 32, to: (f) => (f - 32) / 1.8 },
    spread: times('oz/ft²', 2, (OUNCES_PER_POUND / GRAMS_PER_POUND) * (FOOT_MM / 1000) ** 2),
    hardness: times('lbf', 0, 0.22480894),
    density: times('lb/ft³', 1, (1000 / GRAMS_PER_POUND) * (FOOT_MM / 1000) ** 3),
  },
};

/** Whose units a reader sees: as chosen, else those that go with the lengths. */
export function unitsOf({ system, others }: Pick<LengthDisplay, 'system' | 'others'>): 'metric' | 'us' {
  return others ?? (system === 'inch' ? 'us' : 'metric');
}

/** How a kind of figure is shown and typed in a reader's units. */
export function unitFor(kind: QuantityKind, display: LengthDisplay): Unit {
  return UNITS[unitsOf(display)][kind];
}

export function pressure(value: number): Quantity {
  return { quantity: 'pressure', value };
}

export function temperature(value: number): Quantity {
  return { quantity: 'temperature', value };
}

/** @param value g */
export function amount(value: number): Quantity {
  return { quantity: 'amount', value };
}

/** A figure as it is typed, without its unit: rounded to what the unit is read to. */
export function inUnit({ quantity, value }: Quantity, display: LengthDisplay): number {
  const { decimals, from } = unitFor(quantity, display);
  return Number(from(value).toFixed(decimals));
}

/** @example `1.2 MPa`, or `174 psi` to a reader in inches */
export function formatQuantity(q: Quantity, display: LengthDisplay): string {
  return `${inUnit(q, display)} ${unitFor(q.quantity, display).unit}`;
}
