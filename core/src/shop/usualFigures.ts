import { certain } from '../lists/there.ts';
import type { UnitSystem } from '../units/length.ts';
import { MM_PER_INCH } from '../units/length.ts';
import { DEFAULT_SHOP, type Habits, type Shop } from './shop.ts';

/** A length of so many inches, mm. */
const inches = (many: number): number => many * MM_PER_INCH;

/** Machines that a shop may have or not. */
export type Machine = 'jointer' | 'planer' | 'drumSander' | 'routerSled' | 'bandSaw' | 'router';

/** Figures that a shop begins with, in round ones of its own units. All common practice. */
export interface UsualFigures {
  machines: { readonly [M in Machine]: NonNullable<Shop[M]> };
  /** Of every saw but the band saw, by how it rips or crosscuts. */
  ripKerf: Readonly<Record<Shop['saw']['kind'], number>>;
  cutDepth: Readonly<Record<Shop['saw']['kind'], number>>;
  crosscutKerf: Readonly<Record<Shop['crosscutSaw']['kind'], number>>;
  clamp: { opening: number; reach: number };
  habits: Habits;
  /** Narrowest offcut that is kept, and strips up to this thin get spares. */
  cutting: { keepWidth: number; spareBelow: number };
  clampSpacing: number;
  clampInset: number;
}

const METRIC: UsualFigures = {
  machines: {
    jointer: certain(DEFAULT_SHOP.jointer),
    planer: certain(DEFAULT_SHOP.planer),
    drumSander: { width: 400, passDepth: 0.3, leastLength: 60 },
    routerSled: { width: 600, bit: 30, passDepth: 1 },
    bandSaw: certain(DEFAULT_SHOP.bandSaw),
    router: certain(DEFAULT_SHOP.router),
  },
  ripKerf: { table: 3, circular: 2.4, hand: 1.5 },
  cutDepth: { table: 80, circular: 60, hand: 100 },
  crosscutKerf: { mitre: 3, sled: 3, track: 2.4, circular: 2.4, hand: 1.5 },
  clamp: { opening: 900, reach: 45 },
  habits: DEFAULT_SHOP.habits,
  cutting: DEFAULT_SHOP.cutting,
  clampSpacing: DEFAULT_SHOP.pace.clampSpacing,
  clampInset: DEFAULT_SHOP.pace.clampInset,
};

/**
 * In whole sixteenths and thirty-seconds; what is taken off each of two faces or edges may be a sixty-fourth, two of which make a thirty-second.
 * 4/4 rough stock planes to 7/8 with them, as it does with the metric ones.
 */
const INCH: UsualFigures = {
  machines: {
    jointer: { width: inches(8), passDepth: inches(1 / 16), leastLength: inches(10) },
    planer: {
      width: inches(13),
      passDepth: inches(1 / 16),
      leastLength: inches(12),
      leastWidth: inches(3 / 4),
      leastThickness: inches(1 / 4),
      snipe: inches(3 / 8),
      head: 'straight',
    },
    drumSander: { width: inches(16), passDepth: inches(1 / 64), leastLength: inches(2.25) },
    routerSled: { width: inches(24), bit: inches(1.25), passDepth: inches(1 / 32) },
    bandSaw: { kerf: inches(1 / 32), resawHeight: inches(6), clean: inches(1 / 32) },
    router: { base: inches(6) },
  },
  ripKerf: { table: inches(1 / 8), circular: inches(3 / 32), hand: inches(1 / 16) },
  cutDepth: { table: inches(3.125), circular: inches(2.375), hand: inches(4) },
  crosscutKerf: {
    mitre: inches(1 / 8),
    sled: inches(1 / 8),
    track: inches(3 / 32),
    circular: inches(3 / 32),
    hand: inches(1 / 16),
  },
  clamp: { opening: inches(36), reach: inches(1.75) },
  habits: {
    stockEndTrim: inches(1 / 2),
    panelEndTrim: inches(5 / 16),
    creep: inches(1 / 8),
    panelEdgeTrim: inches(1 / 8),
    stockEdgeJoint: inches(1 / 16),
    glueEdgeJoint: inches(1 / 64),
    ripFat: inches(1 / 4),
    flattenRough: inches(1 / 16),
    flattenSurfaced: 0,
    skimRough: inches(1 / 32),
    skimSurfaced: inches(1 / 64),
    panelFlatten: inches(1 / 16),
    endGrainFlatten: inches(3 / 32),
    sanding: inches(1 / 32),
    keepLength: inches(10),
    edgeTreatment: inches(1 / 8),
    leaveBeneath: inches(3 / 8),
    leaveBeside: inches(1 / 4),
  },
  cutting: { keepWidth: inches(1.5), spareBelow: inches(1 / 4) },
  clampSpacing: inches(4),
  clampInset: inches(1.5),
};

const FIGURES: Readonly<Record<UnitSystem, UsualFigures>> = { metric: METRIC, inch: INCH };

/** What a shop begins with that reads its rules in these units. */
export function usualFigures(system: UnitSystem): UsualFigures {
  return FIGURES[system];
}
