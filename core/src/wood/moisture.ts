import { z } from 'zod';

/** Air as a thermometer and a hygrometer show it. */
export const airSchema = z.strictObject({
  /** Degrees Celsius. */
  temperature: z.number().min(-20, { error: 'must be at least -20 °C' }).max(60, { error: 'must be at most 60 °C' }),
  /** Relative humidity, percent. */
  humidity: z.number().min(5, { error: 'must be at least 5 %' }).max(95, { error: 'must be at most 95 %' }),
});
export type Air = z.infer<typeof airSchema>;

/** The air of the driest and of the dampest month where boards are made or used. */
export const seasonsSchema = z.strictObject({ dry: airSchema, damp: airSchema });
export type Seasons = z.infer<typeof seasonsSchema>;

/** Climates to start from; all figures common practice, from memory. Indoor air, not the weather. */
export const CLIMATES: readonly { name: string; seasons: Seasons }[] = [
  {
    name: 'Heated house, cold winters',
    seasons: { dry: { temperature: 21, humidity: 30 }, damp: { temperature: 22, humidity: 60 } },
  },
  {
    name: 'Mild and damp',
    seasons: { dry: { temperature: 19, humidity: 45 }, damp: { temperature: 20, humidity: 75 } },
  },
  { name: 'Dry inland', seasons: { dry: { temperature: 22, humidity: 20 }, damp: { temperature: 24, humidity: 40 } } },
  {
    name: 'Unheated hut or shed',
    seasons: { dry: { temperature: 12, humidity: 55 }, damp: { temperature: 8, humidity: 85 } },
  },
  {
    name: 'Humid summers, cooled house',
    seasons: { dry: { temperature: 20, humidity: 40 }, damp: { temperature: 25, humidity: 65 } },
  },
];

/**
 * Moisture content that wood comes to in air of a temperature and humidity.
 * Source: *Wood Handbook*, FPL-GTR-282 (2021), equation 4-5 in degrees Celsius (from memory).
 * @returns percent of the oven-dry mass
 */
export function equilibriumMoisture({ temperature: t, humidity }: Air): number {
  const w = 349 + 1.29 * t + 0.0135 * t ** 2;
  const k = 0.805 + 0.000736 * t - 0.00000273 * t ** 2;
  const k1 = 6.27 - 0.00938 * t - 0.000303 * t ** 2;
  const k2 = 1.91 + 0.0407 * t - 0.000293 * t ** 2;
  const x = (k * humidity) / 100;
  return (1800 / w) * (x / (1 - x) + (k1 * x + 2 * k1 * k2 * x ** 2) / (1 + k1 * x + k1 * k2 * x ** 2));
}

/** Between these moisture contents, percent, the coefficients of movement hold (*Wood Handbook*, chapter 13, from memory). */
export const MOVEMENT_HOLDS = { least: 6, greatest: 14 } as const;
