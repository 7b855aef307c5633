import { DEFAULT_SHOP, type Shop } from '#core/shop/shop.ts';

export type Machine = 'jointer' | 'planer' | 'drumSander' | 'routerSled' | 'bandSaw' | 'router';

/** A machine that a shop may have, and what its figures are called. */
export interface MachineSpec {
  key: Machine;
  name: string;
  about: string;
  fields: [key: string, label: string, hint?: string][];
  /** Figures to begin with when somebody gets one (common practice). */
  usual: NonNullable<Shop[Machine]>;
}

export const MACHINES: readonly MachineSpec[] = [
  {
    key: 'jointer',
    name: 'Jointer',
    about: 'Flattens the first face and straightens edges.',
    usual: DEFAULT_SHOP.jointer!,
    fields: [
      ['width', 'Jointer width'],
      ['passDepth', 'Jointer, deepest pass'],
      ['leastLength', 'Jointer, shortest piece', 'From its manual'],
    ],
  },
  {
    key: 'planer',
    name: 'Planer',
    about: 'Makes the second face parallel.',
    usual: DEFAULT_SHOP.planer!,
    fields: [
      ['width', 'Planer width'],
      ['passDepth', 'Deepest pass', 'On a piece of half the width or less; half of it at full width'],
      ['leastLength', 'Shortest piece it may take', "From the machine's manual"],
      ['leastWidth', 'Narrowest piece it may take'],
      ['leastThickness', 'Thinnest it planes', 'Without a carrier board'],
      ['snipe', 'Snipe at each end'],
    ],
  },
  {
    key: 'drumSander',
    name: 'Drum sander',
    about: 'For panels wider than the planer, and for thin strips.',
    usual: { width: 400, passDepth: 0.3, leastLength: 60 },
    fields: [
      ['width', 'Drum sander width'],
      ['passDepth', 'Drum sander, deepest pass'],
      ['leastLength', 'Drum sander, shortest piece'],
    ],
  },
  {
    key: 'routerSled',
    name: 'Router sled',
    about: 'A router on rails over the panel.',
    usual: { width: 600, bit: 30, passDepth: 1 },
    fields: [
      ['width', 'Widest under the rails'],
      ['bit', 'Bit, across'],
      ['passDepth', 'Router sled, deepest pass'],
    ],
  },
  {
    key: 'bandSaw',
    name: 'Band saw',
    about: 'Resaws thick strips into thin ones, and rips rough stock.',
    usual: DEFAULT_SHOP.bandSaw!,
    fields: [
      ['kerf', 'Band saw kerf'],
      ['resawHeight', 'Resaws up to'],
      ['clean', 'Planed off each sawn face'],
    ],
  },
  {
    key: 'router',
    name: 'Router',
    about: 'Edges, with a bit for each shape.',
    usual: DEFAULT_SHOP.router!,
    fields: [['base', 'Router base, across', 'It runs along fences and inside jigs']],
  },
];

export const HAND_TOOLS = {
  planes: 'Hand planes',
  beltSander: 'Belt sander',
  orbitalSander: 'Orbital sander',
} as const;
