import { certain, firstOf, lastOf, nth } from '../lists/there.ts';
import { hasStop, panelSaw, ripTool, TOOL_NAMES } from '../shop/tools.ts';
import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import { atLeast, length, say, type Phrase } from '../units/phrase.ts';
import type { PlanContext } from '../ladders/context.ts';
import { joined } from './millingWords.ts';
import type { StepDraft } from './operation.ts';
import { panelThing, type InstructionOf, type SawUse } from './instruction.ts';
import { cutThing, panelsOf, panelWords, wholeWord } from './panelThings.ts';

/** What steps that cut something other than boards are about. */
export const CUT_WORDS = { frame: 'field', back: 'top' } as const;

/** What the guide of a saw is set by, in words. */
const GUIDE_WORDS: Readonly<Record<string, string>> = { tableSaw: 'Fence', circularSaw: 'Guide', handSaw: 'Line' };

export function trimStep(context: PlanContext, reached: number): StepDraft[] {
  const { made, shop, panelWidth } = context;
  const whole = context.again !== null || context.frame !== null || context.back !== null;
  // Round bad places boards lie where they can: what is cut off first is told from there.
  const { far } = context.trim;
  const near = Math.max(0, panelWidth - far - reached);
  const parts = panelsOf(context);
  const saw = { tool: ripTool(shop), kerf: shop.saw.kerf };
  const guide =
    shop.saw.kind === 'table'
      ? ('fence' as const)
      : shop.saw.kind === 'circular'
        ? ('guide' as const)
        : ('line' as const);
  // The first cut is measured from an edge that is only as straight as the strips; a straight edge or a strip's glue line guides it.
  const sides: InstructionOf<'trimEdge'>[] = [
    { do: 'trimEdge', parts, side: 'far', from: panelWidth, off: far, leaves: reached + near, saw, guide },
    { do: 'trimEdge', parts, side: 'near', from: reached + near, off: near, leaves: reached, saw, guide },
  ];
  // An edge that carries a mark, or has nothing to spare, stays as it is.
  const instructions = sides.filter((i) => i.off > LENGTH_TOLERANCE_MM);
  if (instructions.length === 0) return [];
  const kept = sides.filter((i) => !instructions.includes(i)).map((i) => i.side);
  const label = certain(GUIDE_WORDS[saw.tool]);
  return [
    {
      kind: 'trimEdges',
      ...(whole ? { about: context.back ? 'back' : context.frame ? 'frame' : context.again?.how } : {}),
      title: joined(
        kept.length > 0 ? say`Trim the ${firstOf(instructions).side} edge` : say`Trim both long edges`,
        whole ? say` of the ${wholeWord(context)}` : say``,
      ),
      habit: 'panelEdgeTrim',
      machine: TOOL_NAMES[saw.tool],
      instructions,
      settings: instructions.map((i) => ({ label: `${label}, ${i.side} edge off`, value: atLeast(i.leaves) })),
      parts: [
        {
          part: panelWords(parts.length, context),
          dimension: 'width',
          before: panelWidth,
          after: reached,
          passes: null,
        },
      ],
      lines: [
        joined(
          ...instructions.map(
            (i, k) =>
              say`${k > 0 ? ', then ' : ''}${length(i.off)} off the ${i.side} side${i.side === 'far' && !whole ? `, strip ${context.before.strips + 1}` : ''}`,
          ),
          say`${made.spots.length > 0 ? ', clear of bad places' : ''}; kerf within the waste; the first cut edge is the reference`,
        ),
        ...kept.map((side) => say`The ${side} edge stays as it was glued`),
        ...(guide === 'fence'
          ? [
              context.again && !context.frame && !context.back
                ? say`The ends of the ${context.again.how === 'rows' ? 'rows' : 'parts'} make no straight edge: a straight edge stuck on along the near side runs at the fence for the first cut`
                : context.back
                  ? say`The back reaches over all round: a straight edge stuck on along the near edge of the show face runs at the fence for the first cut`
                  : say`The near edge is as straight as its strip; if it rocks along the fence, a straight edge stuck on guides the first cut`,
            ]
          : []),
      ],
      why: say`One straight long edge squares everything after it.`,
    },
  ];
}

/** Ends squared, and boards cut apart where a panel holds several. */
export function endSteps(context: PlanContext, reached: number): StepDraft[] {
  const { allowances, board, shop } = context;
  const { habits } = shop;
  const saw = panelSaw(shop, context.panelWidth);
  const longest = firstOf(allowances.panels);
  const instructions = panelCuts(context, reached, saw);
  const first = firstOf(instructions);
  const stops = hasStop(saw);
  const label = stops ? 'Stop' : 'Mark';
  const edge = stops ? 'the same long edge to the fence' : 'square to the same long edge';
  // Only what finds room is cut; a check tells what does not.
  const others = first.cuts.filter((c) => c.part.id.startsWith('other '));
  const parts = [
    {
      part: longest.boards > 1 ? `each of ${longest.boards} boards` : panelWords(allowances.panels.length, context),
      dimension: 'length' as const,
      before: longest.length,
      after: board.length,
      passes: null,
    },
  ];
  if (longest.boards + others.length > 1) {
    return [
      {
        kind: 'cutApart',
        title: context.field
          ? say`Cut the ${context.field === 'back' ? 'tops' : 'fields'} apart`
          : say`Cut the boards apart`,
        machine: TOOL_NAMES[saw.tool],
        instructions,
        settings: [
          { label, value: atLeast(board.length) },
          ...others.map((o) => ({ label: `${label}, ${o.part.label}`, value: atLeast(o.length) })),
        ],
        parts,
        lines: [
          say`Square one end ${length(first.first)} in, then ${longest.boards === 1 ? say`one board` : say`${longest.boards} boards`} of ${atLeast(board.length)}, ${edge}, ${length(saw.kerf)} for each cut`,
          ...gapLines(first, saw.kerf),
          ...others.map(
            (o) =>
              say`${o.part.label}: ${atLeast(o.length)} by ${atLeast(o.width)}${o.width < reached ? say`, ripped to its width once it is cut off` : say``}; edges and finish as the others`,
          ),
          ...shorterPanels(context),
          ...holding(longest.length, first.part.label),
        ],
        why: say`Creep, snipe and trim are lost at the ends of a panel once, not once for each board.`,
      },
    ];
  }
  return [
    {
      kind: 'trimEnds',
      ...(context.field ? { about: CUT_WORDS[context.field] } : {}),
      title: say`Trim both ends`,
      habit: allowances.endTrim > habits.panelEndTrim ? null : 'panelEndTrim',
      school: 'snipe',
      machine: TOOL_NAMES[saw.tool],
      instructions: [
        ...instructions,
        {
          do: 'sneak',
          parts: instructions.flatMap((i) => i.cuts.map((c) => c.part)),
          by: SNEAK,
          first: board.length + SNEAK,
        },
      ],
      settings: [
        { label: `${label}, first try`, value: atLeast(board.length + SNEAK) },
        { label, value: atLeast(board.length) },
      ],
      parts,
      lines: [
        stops
          ? say`Cut one end ${length(first.first)} in, turn end for end keeping ${edge}, cut the other to ${atLeast(board.length)}`
          : say`Cut one end ${length(first.first)} in, ${edge}; measure from it and cut the other to ${atLeast(board.length)}`,
        say`Each cut takes ${length(saw.kerf)} more for its kerf. Sneak up on the last: ${length(SNEAK)} long first, measure both sides, then to size`,
        ...holding(longest.length, first.part.label),
      ],
      why: say`The same edge to the fence makes both ends square to it, even if the fence is not perfect.`,
    },
  ];
}

/** Where the boards of each panel are cut from it. */
function panelCuts(context: PlanContext, reached: number, saw: SawUse): InstructionOf<'crosscutPanel'>[] {
  const { allowances, board, shop, panelWidth } = context;
  const layout = context.trim;
  let number = 0;
  return allowances.panels.map(({ boards, length: long }, k) => {
    const firstX = shop.habits.creep / 2 + allowances.endTrim + saw.kerf;
    const all =
      k === 0 && layout.missing + layout.missingOthers === 0
        ? [
            ...layout.boards.map((b) => ({ x: b.x, length: b.length, width: reached, other: null as string | null })),
            ...layout.others.map((o) => ({ x: o.x, length: o.length, width: o.width, other: o.name })),
          ].sort((a, b) => a.x - b.x)
        : Array.from({ length: boards }, (_, i) => ({
            x: firstX + i * (board.length + saw.kerf),
            length: board.length,
            width: reached,
            other: null as string | null,
          }));
    const cuts = all.map((b): InstructionOf<'crosscutPanel'>['cuts'][number] => {
      const part = b.other === null ? cutThing(context, (number += 1)) : { id: `other ${b.other}`, label: b.other };
      return { part, at: b.x, length: b.length, width: b.width };
    });
    return {
      do: 'crosscutPanel',
      part: panelThing(k + 1),
      panelLength: long,
      panelWidth,
      saw,
      width: reached,
      first: firstOf(cuts).at - saw.kerf,
      cuts,
    };
  });
}

/** Waste between boards that lie apart, clear of bad places. */
function gapLines({ cuts }: InstructionOf<'crosscutPanel'>, kerf: number): Phrase[] {
  return cuts.slice(1).flatMap((cut, i) => {
    const gap = cut.at - nth(cuts, i).at - nth(cuts, i).length;
    return gap > kerf + LENGTH_TOLERANCE_MM
      ? [say`${cut.part.label} begins ${length(cut.at)} from the left end of the panel`]
      : [];
  });
}

/** The last panel of a batch may hold fewer boards. */
function shorterPanels({ allowances: { panels } }: PlanContext): Phrase[] {
  const last = lastOf(panels);
  return last.boards < firstOf(panels).boards
    ? [say`The last panel holds ${last.boards} ${last.boards === 1 ? 'board' : 'boards'}: square it alike`]
    : [];
}

/** Left on the last cut until it has been measured, mm (common practice). */
const SNEAK = 1;
/** Panels longer than this are not held by one pair of hands at a saw, mm (common practice). */
const ONE_PAIR_OF_HANDS = 1000;

/** Who holds a long panel. */
function holding(panel: number, label: string): Phrase[] {
  return panel > ONE_PAIR_OF_HANDS
    ? [
        say`So long a panel (${label}): a second pair of hands or a stand holds its far end, level with the table, and lets it go with the cut`,
      ]
    : [];
}
