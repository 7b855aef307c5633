import type { Shop } from '#core/shop/shop.ts';
import { HABIT_WORDS } from '../../habits/habitWords.ts';

type FigureGroup = 'cutting' | 'habits' | 'pace';
type FigureUnit = 'length' | 'minutes' | 'number' | 'money';

/** A figure of the shop: where it stands, what it is called, its unit, and a hint. */
export type FigureSpec = {
  [G in FigureGroup]: [group: G, key: keyof Shop[G] & string, label: string, unit: FigureUnit, hint?: string];
}[FigureGroup];

export const CUTTING_FIGURES: readonly FigureSpec[] = [
  ['cutting', 'openPiece', 'Fetching one more piece', 'money', 'What you would pay to set up one piece less'],
  ['cutting', 'openPlank', 'Cutting into a bought plank', 'money', 'On top, rather than an offcut or salvage'],
  ['cutting', 'leftoverEach', 'Carrying a leftover back', 'money', 'One long one is better than two short ones'],
  [
    'cutting',
    'unpricedPerM3',
    'Wood without a price, a cubic metre',
    'money',
    'So that salvage is not burnt for nothing',
  ],
  ['cutting', 'keepWidth', 'Offcut beside rips kept from', 'length', 'If it is at least the keep length long'],
  ['cutting', 'sideShare', 'It still counts for', 'number', "Share of its wood's value"],
  ['cutting', 'spareBelow', 'Thin strips are up to', 'length', 'They get spares: a blade wanders'],
  ['cutting', 'spares', 'Spares of each kind', 'number'],
];

export const PACE_FIGURES: readonly FigureSpec[] = [
  ['pace', 'work', 'Your minutes for one usual', 'number', '1 is the usual pace; 1.5 takes half as long again'],
  ['pace', 'reserve', "Share of the glue's time planned with", 'number', '0.7 leaves three tenths for surprises'],
  ['pace', 'spreadMinutesPerM2', 'Spreading, minutes per m² of joint', 'number'],
  ['pace', 'placeMinutes', 'Placing a strip', 'minutes'],
  [
    'pace',
    'helperShare',
    'With a second pair of hands',
    'number',
    'Share of the time that spreading and placing still take',
  ],
  ['pace', 'clampMinutes', 'Closing a clamp', 'minutes'],
  ['pace', 'clampSpacing', 'A clamp every', 'length'],
  ['pace', 'clampInset', 'Outermost clamps stand in by', 'length'],
];

export const HABIT_FIGURES: readonly FigureSpec[] = Object.entries(HABIT_WORDS).map(([key, label]): FigureSpec => [
  'habits',
  key as keyof Shop['habits'],
  label,
  'length',
]);
