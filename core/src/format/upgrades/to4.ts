import { isRecord, type Json, type VersionStep } from './step.ts';

const GLUES = [
  {
    id: 'water-resistant',
    name: 'Water-resistant wood glue',
    class: 'Type II',
    openMinutes: 5,
    closedMinutes: 10,
    handleMinutes: 30,
    clampMinutes: 120,
    fullMinutes: 1440,
    leastTemperature: 10,
    gramsPerM2: 200,
  },
  {
    id: 'waterproof',
    name: 'Waterproof wood glue',
    class: 'Type I',
    openMinutes: 5,
    closedMinutes: 10,
    handleMinutes: 30,
    clampMinutes: 180,
    fullMinutes: 1440,
    leastTemperature: 10,
    gramsPerM2: 200,
  },
  {
    id: 'long-open',
    name: 'Long-open-time wood glue',
    class: 'Type I',
    openMinutes: 12,
    closedMinutes: 25,
    handleMinutes: 60,
    clampMinutes: 300,
    fullMinutes: 1440,
    leastTemperature: 13,
    gramsPerM2: 200,
  },
];
const JOINTER = { width: 260, passDepth: 1.5, leastLength: 250 };
const REST = {
  drumSander: null,
  routerSled: null,
  handTools: { planes: true, beltSander: false, orbitalSander: true },
  clamps: [{ id: 'pipe', kind: 'pipe', opening: 900, reach: 45, force: 4.5, count: 8 }],
  hours: [
    { from: '09:00', to: '18:00' },
    { from: '09:00', to: '18:00' },
    { from: '09:00', to: '18:00' },
    { from: '09:00', to: '18:00' },
    { from: '09:00', to: '18:00' },
    { from: '10:00', to: '16:00' },
    null,
  ],
  room: { temperature: 20, humidity: 50 },
  schools: {
    straightEdge: 'jointer',
    rip: 'once',
    thin: 'bandSaw',
    edgeMarks: 'alternate',
    measuring: 'numbers',
    level: 'cauls',
    squeezeOut: 'scrape',
    flatten: 'planer',
    snipe: 'trim',
    edge: 'chamfer',
    lastGrit: '220',
    raiseGrain: 'once',
    oil: 'flood',
    topCoat: 'wax',
    feet: 'none',
  },
};

/**
 * The shop's machines, clamps, glues, hours and schools became things of their own; a board may differ from its shop, and says how it is glued, how a batch is
 * cut from panels, and which stops it goes on with.
 */
export const TO_4 = {
  version: 4,
  board: (board: Json): Json => ({
    differs: { habits: {}, schools: {}, glue: null },
    gluing: { groups: null, helper: false },
    perPanel: 1,
    accepted: [],
    ...board,
  }),
  shop: (shop: Json): Json => {
    const planer = isRecord(shop.planer) ? shop.planer : null;
    const glue = isRecord(shop.glue) ? shop.glue : null;
    // One glue with one assembly time until now; half of it is taken as its open time, as on most bottles.
    const own =
      glue && typeof glue.assemblyMinutes === 'number'
        ? [
            {
              ...GLUES[0]!,
              id: 'own',
              name: glue.name,
              openMinutes: glue.assemblyMinutes / 2,
              closedMinutes: glue.assemblyMinutes,
              clampMinutes: glue.clampMinutes,
            },
          ]
        : [];
    return {
      // One machine served as jointer and planer.
      jointer: planer
        ? { ...JOINTER, width: planer.width, passDepth: planer.passDepth, leastLength: planer.leastLength }
        : JOINTER,
      ...REST,
      glues: [...own, ...GLUES],
      ...shop,
      saw: isRecord(shop.saw) ? { kind: 'table', ...shop.saw } : shop.saw,
      crosscutSaw: isRecord(shop.crosscutSaw) ? { kind: 'sled', ...shop.crosscutSaw } : shop.crosscutSaw,
      planer: planer ? { head: 'straight', ...planer } : shop.planer,
      glue: own[0]?.id ?? shop.glue ?? 'water-resistant',
      habits: isRecord(shop.habits) ? { ripFat: 6, ...shop.habits } : shop.habits,
      pace: isRecord(shop.pace) ? { clampInset: 40, helperShare: 0.6, work: 1, ...shop.pace } : shop.pace,
    };
  },
} satisfies VersionStep;
