import type { Machine } from '#core/shop/usualFigures.ts';

/** A machine that a shop may have, and what its figures are called. */
export interface MachineSpec {
  key: Machine;
  name: string;
  about: string;
  fields: [key: string, label: string, hint?: string][];
}

export const MACHINES: readonly MachineSpec[] = [
  {
    key: 'jointer',
    name: 'Jointer',
    about: 'Flattens the first face and straightens edges.',
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
    fields: [['base', 'Router base, across', 'It runs along fences and inside jigs']],
  },
];

export const HAND_TOOLS = {
  planes: 'Hand planes',
  beltSander: 'Belt sander',
  orbitalSander: 'Orbital sander',
} as const;
