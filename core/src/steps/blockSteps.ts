import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import { atLeast, length, say, type Phrase } from '../units/phrase.ts';
import type { PlanContext } from '../ladders/context.ts';
import { firstOf, nth } from '../lists/there.ts';
import { hasStop, panelSaw, TOOL_NAMES } from '../shop/tools.ts';
import type { InstructionOf } from './instruction.ts';
import type { StepDraft } from './operation.ts';
import { CUT_WORDS } from './trimSteps.ts';
import { cutThing, panelsOf, panelWords } from './panelThings.ts';

/** Both ends of a block, or of a framed board, cut to length, as far as there is anything to cut. @param whole how long it is before */
export function blockEnds(context: PlanContext, whole: number, width: number): StepDraft[] {
  const { allowances, board, trim, panelWidth, shop, again, frame, back } = context;
  const squared = frame !== null || back !== null;
  const saw = panelSaw(shop, panelWidth);
  const blocks = allowances.panels.length;
  const instructions = allowances.panels.map(({ length: long }, k): InstructionOf<'crosscutPanel'> => {
    const at = nth(trim.panels, k)[0]?.x ?? Math.max(0, long - board.length) / 2;
    return {
      do: 'crosscutPanel',
      part: nth(panelsOf(context), k),
      panelLength: long,
      panelWidth,
      saw,
      width,
      first: at,
      cuts: [{ part: cutThing(context, k + 1), at, length: board.length, width }],
    };
  });
  const { first } = firstOf(instructions);
  const along = !squared && again?.how === 'rows' && again.last.runs === 'along';
  const off = whole - board.length - first;
  const nothing = first <= LENGTH_TOLERANCE_MM && off <= LENGTH_TOLERANCE_MM;
  const lines: Phrase[] = nothing
    ? [
        squared
          ? say`Both ends are as they were glued, and the board is as long: nothing is cut`
          : say`Both ends are clean faces of the outer rows, and the board is as long as its rows: nothing is cut`,
      ]
    : [
        along
          ? say`From the line at which every row is whole ${length(first)} more off the first end, then the other to ${atLeast(board.length)}, the same long edge to the fence`
          : say`${length(first)} off the first end, then the other to ${atLeast(board.length)}, the same long edge to the fence; the kerf lies in what falls off`,
      ];
  return [
    {
      kind: 'trimEnds',
      ...(context.field ? { about: CUT_WORDS[context.field] } : {}),
      title: nothing ? say`Look over both ends` : say`Trim both ends`,
      machine: nothing ? null : TOOL_NAMES[saw.tool],
      instructions,
      settings: nothing ? [] : [{ label: hasStop(saw) ? 'Stop' : 'Mark', value: atLeast(board.length) }],
      parts: [
        {
          part: panelWords(blocks, context),
          dimension: 'length',
          before: whole,
          after: board.length,
          passes: null,
        },
      ],
      lines,
      why: squared
        ? say`Squared once more, what was glued on is as wide all round as it was meant.`
        : say`Cut only now, all rows end in one line and the corners are square.`,
    },
  ];
}
