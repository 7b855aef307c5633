import type { Board } from '../board/board.ts';
import type { FrameSide } from '../board/frame.ts';
import { crossings } from '../board/inset.ts';
import { stripsOf, type FrameFirst, type TurnOperation } from '../board/recipe.ts';
import type { Plan } from './plan.ts';

/** A stage on the way from strips to the board, with what it measures, mm. */
export type Stage =
  | {
      kind: 'stack';
      count: number;
      /** From which strip how many bits of which length one of them has. */
      bits: { strip: number; count: number; length: number }[];
      /** As it is glued, before its sides are made flat and its ends cut off. */
      length: number;
      depth: number;
      kerf: number;
      /** Which strips of the panel it is resawn into, and how many beside them. */
      accents: number[];
      spares: number;
    }
  | { kind: 'panel'; count: number; length: number; width: number; thickness: number; strips: number }
  | { kind: 'slices'; count: number; each: number[]; pitch: number; angle: number; kerf: number }
  | {
      kind: 'rows';
      count: number;
      adds: number;
      runs: 'along' | 'across';
      turns: Pick<TurnOperation, 'turn' | 'pattern'>[];
    }
  | {
      kind: 'parts';
      count: number;
      /** Where each cut begins on the panel, from its left end along both edges, and what is put in there. */
      cuts: { far: number; near: number; kerf: number; angle: number; strip: number; width: number; length: number }[];
    }
  | { kind: 'block'; count: number; length: number; width: number; thickness: number }
  | { kind: 'field'; count: number; length: number; width: number; thickness: number }
  | {
      kind: 'back';
      count: number;
      runs: 'along' | 'across';
      thickness: number;
      strips: { strip: number; width: number }[];
      /** As they are crosscut. */
      length: number;
    }
  | {
      kind: 'frame';
      count: number;
      first: FrameFirst;
      /** Which strip along which side, how wide it is and how long it is crosscut. */
      strips: { side: FrameSide; strip: number; width: number; length: number }[];
      length: number;
      width: number;
    }
  | { kind: 'board'; count: number; length: number; width: number; thickness: number };

/** The stages of a board in order; of a flat one its panel and itself. */
export function stagesOf(
  { stacks, again, frame, back, allowances, panelWidth, ladders }: Plan,
  board: Pick<Board, 'count' | 'recipe'>,
): Stage[] {
  const finished: Stage = {
    kind: 'board',
    count: board.count,
    length: ladders.length.reached,
    width: ladders.width.reached,
    thickness: ladders.thickness.reached,
  };
  const stacked = stacks.map(({ stack }): Stage => ({
    kind: 'stack',
    count: allowances.panels.length,
    bits: stack.sticks.map((s) => ({ strip: s.number, count: s.count, length: s.bit })),
    length: stack.glued,
    depth: stack.depth,
    kerf: stack.layering.kerf,
    accents: stack.accents.map((a) => a.number),
    spares: stack.spares,
  }));
  const panel: Stage = {
    kind: 'panel',
    count: allowances.panels.length,
    length: allowances.panels[0]?.length ?? 0,
    width: panelWidth,
    thickness: again?.thickness ?? frame?.fields.thickness ?? back?.tops.thickness ?? allowances.glueThickness,
    strips: stripsOf(board).length,
  };
  const framed: Stage[] = frame
    ? [
        {
          kind: 'field',
          count: board.count,
          length: frame.fields.ladders.length.reached,
          width: frame.fields.ladders.width.reached,
          thickness: frame.fields.thickness,
        },
        ...frame.rings.map(({ operation, pairs, outer }): Stage => ({
          kind: 'frame',
          count: board.count,
          first: operation.first,
          strips: pairs.flat().map(({ side, number, width, length }) => ({ side, strip: number, width, length })),
          ...outer,
        })),
      ]
    : [];
  if (back)
    framed.push({
      kind: 'back',
      count: board.count,
      runs: back.operation.runs,
      thickness: back.thickness,
      strips: back.strips.map(({ strip, number }) => ({ strip: number, width: strip.width })),
      length: back.length,
    });
  if (!again) return [...stacked, panel, ...framed, finished];
  const { block } = again;
  const glued: Stage = {
    kind: 'block',
    count: board.count,
    length: block.length,
    width: block.width,
    thickness: block.height,
  };
  if (again.how === 'parts')
    return [
      ...stacked,
      panel,
      {
        kind: 'parts',
        count: (again.inserts.length + 1) * board.count,
        cuts: again.inserts.map((i) => ({
          ...crossings(i, again),
          kerf: i.kerf,
          angle: i.angle,
          strip: i.number,
          width: i.width,
          length: i.length,
        })),
      },
      glued,
      ...framed,
      finished,
    ];
  const { slices, pitch, angle, kerf, rows, row, last, turns, all } = again;
  return [
    panel,
    { kind: 'slices', count: all.length, each: slices, pitch, angle, kerf },
    {
      kind: 'rows',
      count: rows,
      adds: row,
      runs: last.runs,
      turns: turns.map(({ turn, pattern }) => ({ turn, pattern })),
    },
    glued,
    ...framed,
    finished,
  ];
}
