import { firstOf } from '#core/lists/there.ts';
import { clampCount } from '#core/shop/gluing.ts';
import { DEFAULT_SHOP, glueOf, type Shop } from '#core/shop/shop.ts';
import { QUESTION_IDS, QUESTIONS } from '#core/shop/schools.ts';
import { CROSSCUT_NAMES, RIP_NAMES } from '#core/steps/toolWays.ts';
import { length, say, type Phrase } from '#core/units/phrase.ts';
import { HABIT_WORDS } from '../../habits/habitWords.ts';
import { CUTTING_FIGURES, PACE_FIGURES } from './figures.ts';
import { FINISH_FIGURES } from './finishFigures.ts';
import { HAND_TOOLS, MACHINES } from './machines.ts';
import { PRICE_FIGURES } from './priceFigures.ts';

export const roomIds = [
  'about',
  'machines',
  'clamps',
  'glues',
  'finishes',
  'room',
  'people',
  'prices',
  'ways',
  'allowances',
  'pace',
  'pieces',
  'year',
  'backup',
] as const;
export type RoomId = (typeof roomIds)[number];

/** A part of the shop: what it is for, what is in it at a glance, and what its figures are called, to be searched. */
interface ShopRoom {
  title: string;
  about: string;
  glance(shop: Shop): Phrase;
  fields: readonly string[];
}

const DAY_NAMES = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'];

/** Every room of the shop: a new one is one more entry here, and its fields in `ShopRoomBody`. */
export const SHOP_ROOMS: Readonly<Record<RoomId, ShopRoom>> = {
  about: {
    title: 'Name and units',
    about: 'What the shop is called, what it pays with, and the units that are neither millimetres nor inches.',
    glance: (shop) => say`${shop.name}, ${shop.currency}`,
    fields: ['Name of the shop', 'Currency', 'Pressure, weight and warmth in'],
  },
  machines: {
    title: 'Machines',
    about: 'The figures that decide a plan. What is not here is planned round, with what that costs.',
    glance: machinesWords,
    fields: [
      'Ripping',
      'Rip kerf',
      'Saw cuts up to',
      'Crosscutting',
      'Crosscut saw kerf',
      ...MACHINES.flatMap((m) => [m.name, ...m.fields.map(([, label]) => label)]),
      'Cutter head',
      ...Object.values(HAND_TOOLS),
    ],
  },
  clamps: {
    title: 'Clamps',
    about: 'How wide a panel, how many glue-ups at once, and the pressure on the joints follow from them.',
    glance: ({ clamps }) =>
      clamps.length === 0
        ? say`none`
        : say`${clampCount(clamps)}, opening to ${length(Math.max(...clamps.map((c) => c.opening)))}`,
    fields: ['Kind', 'Opens to', 'Reach', 'Force', 'Count'],
  },
  glues: {
    title: 'Glues',
    about: 'Times as the bottle has them. A glue for boards is Type II or Type I, D3 or D4.',
    glance: (shop) => say`${glueOf(shop).name}${shop.glues.length > 1 ? `, and ${shop.glues.length - 1} more` : ''}`,
    fields: [
      'Glue',
      'Class',
      'At least',
      'Spread',
      'Open',
      'Until pressed',
      'Handled after',
      'In clamps',
      'Full strength after',
      'Glue on the shelf',
      'A kilogram costs',
    ],
  },
  finishes: {
    title: 'Finishes and papers',
    about:
      'What goes on boards, with the figures on its tin, the papers in the drawer, the tray they soak in, and what owners are told.',
    glance: ({ finishes, papers }) =>
      say`${finishes.length} finishes, ${papers === null ? 'any paper' : `papers ${papers.join(', ')}`}`,
    fields: [
      'Papers in the drawer',
      'Finish',
      'Kind of finish',
      'Put on by',
      ...FINISH_FIGURES.map(([, label]) => label),
      'On the shelf',
      'A litre costs',
      'Keeps, once opened',
      'Food, as its maker states',
      'Renewed with',
      'Where its figures are from',
      'Rags can ignite',
      'Rubbed back between coats',
      'A tray for soaking',
      'On every care card',
    ],
  },
  room: {
    title: 'Hours and room',
    about:
      'Hands-on work is planned within these hours; glue and oil dry at night. In a cold room glue takes longer; wood comes to the moisture of the air.',
    glance: ({ hours, room }) =>
      say`open ${hours.filter((h) => h !== null).length} days of the week, air of ${room.humidity} %`,
    fields: [...DAY_NAMES, 'Room, warmth', 'Room, humidity'],
  },
  people: {
    title: 'People and days',
    about:
      'Who works here and when, days away and evenings more: the work of all boards is planned within them, with the room there is for what takes its time.',
    glance: ({ people, away }) =>
      say`${people.length === 1 ? 'one pair of hands' : `${people.length} pairs of hands`}${away.length > 0 ? `, ${away.length} times away` : ''}`,
    fields: [
      'Pair of hands',
      'First day away',
      'Last day away',
      'Who is away',
      'Evening on',
      'Evening from',
      'Evening to',
      'Glue-ups at once',
      'Places for boards to dry',
      'Time zone',
    ],
  },
  prices: {
    title: 'Prices',
    about:
      'What things cost the shop and what it wants for its work: boards tell their cost and their price with them.',
    glance: ({ prices, currency }) =>
      prices.wage === null
        ? say`no wage yet`
        : say`${prices.wage} ${currency} an hour, ${Math.round(prices.markup * 100)} % on costs`,
    fields: [
      ...PRICE_FIGURES.map(([, label]) => label),
      'A sheet does',
      'Boards made in a month',
      'Put on all costs',
      'Tax on prices',
      'Another: an hour of a machine',
      'Another: machines that are thought of',
    ],
  },
  ways: {
    title: 'Ways of working',
    about:
      'Makers differ, each with a reason. The steps follow what is chosen here; a board can differ, at the step where it matters.',
    glance: ({ schools }) => {
      const other = QUESTION_IDS.filter((q) => schools[q] !== DEFAULT_SHOP.schools[q]).length;
      return say`${QUESTION_IDS.length} questions, ${other === 0 ? 'all' : other} answered ${other === 0 ? 'as usual' : 'in a way of your own'}`;
    },
    fields: [...QUESTION_IDS.map((q) => QUESTIONS[q].asks), 'Own grits'],
  },
  allowances: {
    title: 'Allowances',
    about: 'What each operation takes. Usual figures to begin with; yours are better.',
    glance: ({ habits }) =>
      say`panel ends ${length(habits.panelEndTrim)}, flattening ${length(habits.panelFlatten)}, sanding ${length(habits.sanding)}`,
    fields: Object.values(HABIT_WORDS),
  },
  pace: {
    title: 'Pace',
    about: 'How fast hands are: how many strips close before the glue skins over, and how long the work takes.',
    glance: ({ pace }) => (pace.work === 1 ? say`the usual` : say`${pace.work} minutes for one usual`),
    fields: PACE_FIGURES.map(([, , label]) => label),
  },
  pieces: {
    title: 'Choosing pieces',
    about:
      'The cut plan uses the least value of wood; then these decide. Amounts are what you would pay to avoid the trouble.',
    glance: ({ cutting, habits }) =>
      say`offcuts kept from ${length(habits.keepLength)} long, ${length(cutting.keepWidth)} wide`,
    fields: CUTTING_FIGURES.map(([, , label]) => label),
  },
  year: {
    title: 'Air through the year',
    about:
      'Boards are made for these two months unless a board says where it will live; how they move follows from it.',
    glance: ({ seasons: { dry, damp } }) => say`${dry.humidity} % in the dry month, ${damp.humidity} % in the damp one`,
    fields: ['Climate', 'Dry month, humidity', 'Dry month, warmth', 'Damp month, humidity', 'Damp month, warmth'],
  },
  backup: {
    title: 'Backup',
    about: 'All that is stored, taken out, copied every day, brought back, or brought along to another Cadenza.',
    glance: () => say`download, daily copies, restore`,
    fields: ['Download all', 'Make a copy every day', 'Copies kept', 'Open a backup'],
  },
};

function machinesWords(shop: Shop): Phrase {
  const owned = MACHINES.filter((m) => shop[m.key] !== null).map((m) => m.name.toLowerCase());
  const tools = (Object.keys(HAND_TOOLS) as (keyof typeof HAND_TOOLS)[])
    .filter((tool) => shop.handTools[tool])
    .map((tool) => HAND_TOOLS[tool].toLowerCase());
  return say`${[RIP_NAMES[shop.saw.kind], CROSSCUT_NAMES[shop.crosscutSaw.kind].toLowerCase(), ...owned, ...tools].join(', ')}`;
}

/** Figures whose names hold every word that was typed, those that begin with the first one first. */
export function findFigures(typed: string): { room: RoomId; label: string }[] {
  const words = typed
    .toLowerCase()
    .split(/\s+/)
    .filter((word) => word !== '');
  if (words.length === 0) return [];
  const hits = roomIds.flatMap((room) =>
    [...new Set(SHOP_ROOMS[room].fields)]
      .filter((label) => words.every((word) => `${label} ${SHOP_ROOMS[room].title}`.toLowerCase().includes(word)))
      .map((label) => ({ room, label })),
  );
  const begins = ({ label }: { label: string }) => (label.toLowerCase().startsWith(firstOf(words)) ? 0 : 1);
  return hits.sort((a, b) => begins(a) - begins(b));
}
