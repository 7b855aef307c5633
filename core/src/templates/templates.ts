import { certain, firstOf, nth } from '../lists/there.ts';
import { stripTops, type Board } from '../board/board.ts';
import { artOutlines } from '../features/artPlace.ts';
import { isSide } from '../features/edge.ts';
import { FEATURE_NAMES, type Feature, type FeatureOf } from '../features/feature.ts';
import { grooveLines, jigOpening } from '../features/groove.ts';
import { circle, line, rectangle, type Outline } from '../features/outline.ts';
import { fenceMark, solidsOfFeature } from '../features/solids.ts';
import { flatOf, type WorkedBoard } from '../bodies/workedBoard.ts';
import type { Shop } from '../shop/shop.ts';
import { formatLength, type LengthDisplay } from '../units/formatLength.ts';
import { numberTwins } from '../units/numberTwins.ts';
import type { Drawing, Layer } from './drawing.ts';
import { isCutAgain, stripsOf } from '../board/recipe.ts';

/** Something at full size that can be printed or cut, and laid on the wood. */
export interface Template {
  id: string;
  name: string;
  /** How it is used. */
  use: string;
  drawing: Drawing;
}

/** Wood round the opening of a jig, mm, and letters on templates (common practice). */
const RIM = 60;
const LETTERS = 4;
/** Half of a cross that marks a middle. */
const CROSS = 6;

const on = (layer: Layer, ...outlines: Outline[]): Drawing['lines'] => outlines.map((outline) => ({ layer, outline }));
const cross = (x: number, y: number): Outline[] => [
  line({ x: x - CROSS, y }, { x: x + CROSS, y }),
  line({ x, y: y - CROSS }, { x, y: y + CROSS }),
];

/** Every template that a board has use for, the board itself first. Words in the reader's unit. */
export function templatesOf(
  board: Board,
  worked: WorkedBoard,
  shop: Pick<Shop, 'router'>,
  display: LengthDisplay,
): Template[] {
  const templates = [
    boardTemplate(board, worked, display),
    ...(board.worked.corners.kind === 'square' || board.worked.corners.size === 0
      ? []
      : [cornerTemplate(board, display)]),
    ...worked.features.flatMap((f) => featureTemplates(f, worked, shop, display)),
    ...gaugeTemplate(worked, display),
  ];
  const names = numberTwins(templates.map((t) => t.name));
  return templates.map((t, i) =>
    t.name === names[i] ? t : { ...t, name: nth(names, i), drawing: { ...t.drawing, title: nth(names, i) } },
  );
}

function boardTemplate(board: Board, worked: WorkedBoard, display: LengthDisplay): Template {
  const { size, outline, solids, shift, features } = worked;
  // Of rows of cells no joint runs from end to end.
  const joints = (isCutAgain(board) ? [] : stripTops(stripsOf(board)))
    .slice(1)
    .map((top) => top - shift)
    .filter((y) => y > 0 && y < size.width);
  const flats = (['top', 'bottom'] as const).flatMap((face) => flatOf(worked, face, board.worked.corners) ?? []);
  return {
    id: 'board',
    name: 'The board',
    use: 'Full size, with its joints, the flats of both faces and everything that is cut into it.',
    drawing: {
      title: board.name,
      lines: [
        ...on('cut', outline),
        ...on('guide', ...joints.map((y) => line({ x: 0, y }, { x: size.length, y })), ...flats),
        ...solids.flatMap((s) => on(s.part === 'screw' ? 'guide' : s.kind === 'mark' ? 'mark' : 'cut', ...s.outlines)),
        ...features.flatMap((f) =>
          f.kind === 'mark' && f.art && !isSide(f.face) ? on('mark', ...artOutlines(f, f.art)) : [],
        ),
      ],
      words: [
        {
          x: size.length / 2,
          y: size.width + 8,
          size: LETTERS,
          anchor: 'middle',
          text: `${board.name}: ${[size.length, size.width, size.thickness].map((mm) => formatLength(mm, display)).join(' × ')}`,
        },
      ],
    },
  };
}

/** The far left corner of the board with wood enough to hold it by. */
function cornerTemplate({ worked: { corners } }: Board, display: LengthDisplay): Template {
  const side = corners.size + RIM;
  return {
    id: 'corner',
    name: 'Corner',
    use: 'Lay it on two edges of the board and mark the corner.',
    drawing: {
      title: 'Corner',
      // One corner is shaped, the others stay.
      lines: on('cut', {
        closed: true,
        vertices: [
          ...(corners.kind === 'round'
            ? [{ x: 0, y: corners.size, bulge: Math.tan(Math.PI / 8) }]
            : [{ x: 0, y: corners.size, bulge: 0 }]),
          { x: corners.size, y: 0, bulge: 0 },
          { x: side, y: 0, bulge: 0 },
          { x: side, y: side, bulge: 0 },
          { x: 0, y: side, bulge: 0 },
        ],
      }),
      words: [
        {
          x: side / 2,
          y: side / 2 + 4,
          size: LETTERS,
          anchor: 'middle',
          text: `${corners.kind === 'round' ? 'Radius' : 'Clipped'} ${formatLength(corners.size, display)}`,
        },
      ],
    },
  };
}

function featureTemplates(
  feature: Feature,
  { size }: WorkedBoard,
  shop: Pick<Shop, 'router'>,
  display: LengthDisplay,
): Template[] {
  const mm = (value: number) => formatLength(value, display);
  if (feature.kind === 'groove') {
    const jig = shop.router && jigOpening(feature, size, shop.router.base);
    if (!jig) return [];
    const outer = { length: jig.length + 2 * RIM, width: jig.width + 2 * RIM };
    const at = { x: RIM, y: RIM };
    // The board lies under the frame, as far in as the frame goes beyond it.
    const board = { x: RIM + jig.beyond, y: RIM + jig.beyond };
    return [
      {
        id: `jig-${feature.id}`,
        name: 'Groove jig',
        use: 'A frame that guides the base of the router; the board lies where it is outlined, held by strips under the frame.',
        drawing: {
          title: 'Groove jig',
          lines: [
            ...on(
              'cut',
              rectangle(0, 0, outer.length, outer.width),
              rectangle(at.x, at.y, jig.length, jig.width, jig.corner),
            ),
            ...on('guide', rectangle(board.x, board.y, size.length, size.width)),
            ...on(
              'guide',
              ...grooveLines(feature, size).map((o) => ({
                ...o,
                vertices: o.vertices.map((v) => ({ ...v, x: v.x + board.x, y: v.y + board.y })),
              })),
            ),
          ],
          words: [
            {
              x: outer.length / 2,
              y: RIM / 2,
              size: LETTERS,
              anchor: 'middle',
              text: `Opening ${mm(jig.length)} × ${mm(jig.width)}, corners ${mm(jig.corner)}, for a base of ${mm(certain(shop.router).base)}`,
            },
          ],
        },
      },
    ];
  }
  if (feature.kind === 'finger') {
    const mark = fenceMark(feature, size);
    const half = mark + 20;
    return [
      {
        id: `fence-${feature.id}`,
        name: 'Fence marks',
        use: 'Stuck on the fence of the router table, its middle line over the middle of the bit: the board is pivoted in at one mark and out at the other.',
        drawing: {
          title: 'Fence marks',
          lines: [
            ...on('cut', rectangle(-half, 0, 2 * half, 40)),
            ...on(
              'mark',
              line({ x: -mark, y: 0 }, { x: -mark, y: 40 }),
              line({ x: 0, y: 0 }, { x: 0, y: 40 }),
              line({ x: mark, y: 0 }, { x: mark, y: 40 }),
            ),
          ],
          words: [
            { x: 0, y: 48, size: LETTERS, anchor: 'middle', text: 'Middle of the bit' },
            { x: -mark + 2, y: 36, size: LETTERS, text: mm(mark) },
            { x: mark - 2, y: 36, size: LETTERS, anchor: 'end', text: mm(mark) },
          ],
        },
      },
    ];
  }
  if (feature.kind === 'hole' || feature.kind === 'handle') return [sideTemplate(feature, size, mm)];
  if (feature.kind === 'feet') {
    const side = feature.inset + RIM / 2;
    return [
      {
        id: `feet-${feature.id}`,
        name: 'Feet',
        use: 'Laid into each corner of the underside: prick through the middle.',
        drawing: {
          title: 'Feet',
          lines: [
            ...on('cut', rectangle(0, 0, side, side)),
            ...on('mark', circle(feature.inset, feature.inset, feature.bore), ...cross(feature.inset, feature.inset)),
          ],
          words: [
            {
              x: side / 2,
              y: side + 7,
              size: LETTERS,
              anchor: 'middle',
              text: `Corner at the upper left; ${mm(feature.inset)} from both edges`,
            },
          ],
        },
      },
    ];
  }
  return [];
}

/** A piece that is laid on an end or a long edge, with what is cut behind it. */
function sideTemplate(
  feature: FeatureOf<'hole'> | FeatureOf<'handle'>,
  size: WorkedBoard['size'],
  mm: (value: number) => string,
): Template {
  const run = feature.on === 'ends' ? size.width : size.length;
  // Drawn as behind the left end of a board that is as wide as that side is long.
  const solids = solidsOfFeature(
    { ...feature, on: 'ends' },
    { length: 10_000, width: run, thickness: size.thickness },
  ).filter((s) => firstOf(firstOf(s.outlines).vertices).x < 5000 && s.part !== 'screw');
  const deep = feature.inset + RIM + (feature.kind === 'hole' ? feature.width : 0);
  return {
    id: `${feature.kind}-${feature.id}`,
    name: FEATURE_NAMES[feature.kind],
    use: `Its straight edge flush with the ${feature.on === 'ends' ? 'end' : 'long edge'} of the board, its middle line on the middle of the board.`,
    drawing: {
      title: FEATURE_NAMES[feature.kind],
      lines: [
        ...on('cut', rectangle(0, 0, deep, run), ...solids.flatMap((s) => s.outlines)),
        ...on('guide', line({ x: 0, y: run / 2 }, { x: deep, y: run / 2 })),
      ],
      words: [{ x: deep / 2, y: run + 7, size: LETTERS, anchor: 'middle', text: `${mm(feature.inset)} from the edge` }],
    },
  };
}

/** A strip with a line for every distance from an edge: held against it, a pencil at the notch marks it along the board. */
function gaugeTemplate({ features }: WorkedBoard, display: LengthDisplay): Template[] {
  const named = features.flatMap((f) =>
    'offset' in f
      ? [{ mm: f.offset, of: FEATURE_NAMES[f.kind] }]
      : 'inset' in f
        ? [{ mm: f.inset, of: FEATURE_NAMES[f.kind] }]
        : [],
  );
  if (named.length === 0) return [];
  const end = Math.max(...named.map((n) => n.mm)) + 30;
  return [
    {
      id: 'gauge',
      name: 'Marking gauge',
      use: 'Its left end flush with the edge of the board: a pencil at each line marks along it.',
      drawing: {
        title: 'Marking gauge',
        lines: [
          ...on('cut', rectangle(0, 0, end, 25 + 6 * named.length)),
          ...on('mark', ...named.map((n) => line({ x: n.mm, y: 0 }, { x: n.mm, y: 12 }))),
        ],
        words: named.map((n, i) => ({
          x: 3,
          y: 20 + 6 * i,
          size: LETTERS,
          text: `${formatLength(n.mm, display)} ${n.of.toLowerCase()}`,
        })),
      },
    },
  ];
}
