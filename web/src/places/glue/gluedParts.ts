import { certain } from '#core/lists/there.ts';
import type { Plan } from '#core/plan/plan.ts';
import type { OpenBoard } from '../../data/openBoard.tsx';
import { OF_BACK, OF_BITS, OF_FRAME, OF_PARTS, OF_ROWS, OF_PANEL, OF_STRIPS, type GluedStage } from './gluedWords.ts';
import { backPanelView, backView, blockView, frameView, otherPanelView, panelView, stackView } from './gluedViews.ts';

/** What is glued second, in words. */
const SECOND = { rows: { words: OF_ROWS, label: 'The rows' }, parts: { words: OF_PARTS, label: 'The parts' } } as const;

/** What is glued, one after the other: bits of accents, the panel, the block, and the frame a pair of strips at a time. */
export interface GluedPart {
  id: string;
  kind: 'panel' | 'stack' | 'block' | 'frame' | 'back';
  label: string;
  glued: GluedStage;
  view: (open: OpenBoard) => OpenBoard;
}

/** What is glued of a board, one after the other. */
export function gluedPartsOf({ stacks, again, frame, back }: Plan): GluedPart[] {
  return [
    ...stacks.map((_, k): GluedPart => ({
      id: `stack-${k + 1}`,
      kind: 'stack',
      label: stacks.length > 1 ? `Bits of stack ${k + 1}` : 'The bits',
      glued: { ...OF_BITS, gluing: (plan) => plan.stacks[k]?.gluing ?? plan.gluing },
      view: (open) => stackView(open, k),
    })),
    {
      id: 'panel',
      kind: 'panel',
      label: again && again.otherPanels.length > 0 ? 'Panel 1' : 'The panel of strips',
      glued: OF_PANEL,
      view: panelView,
    },
    ...(again?.otherPanels ?? []).map(({ before }, k): GluedPart => ({
      id: `panel-${k + 2}`,
      kind: 'panel',
      label: `Panel ${before.panels + 1}`,
      glued: { ...OF_STRIPS, gluing: (plan) => plan.again?.otherPanels[k]?.gluing ?? plan.gluing },
      view: (open) => otherPanelView(open, k),
    })),
    ...(again
      ? [
          {
            id: 'block',
            kind: 'block' as const,
            label: SECOND[again.how].label,
            glued: { ...SECOND[again.how].words, gluing: (plan: Plan) => plan.again?.gluing ?? plan.gluing },
            view: blockView,
          },
        ]
      : []),
    ...(frame?.pairs ?? []).map(({ ring, strips }, n): GluedPart => ({
      id: `frame-${n}`,
      kind: 'frame',
      label: `${certain(frame).rings.length > 1 ? `Ring ${ring + 1}: ` : 'Frame: '}${strips[0]?.side === 'far' ? 'sides' : 'ends'}`,
      glued: { ...OF_FRAME, gluing: (plan) => plan.frame?.pairs[n]?.gluing ?? plan.gluing },
      view: (open) => frameView(open, n),
    })),
    ...(back
      ? [
          {
            id: 'back-strips',
            kind: 'back' as const,
            label: 'Strips of the back',
            glued: { ...OF_STRIPS, gluing: (plan: Plan) => plan.back?.panel.gluing ?? plan.gluing },
            view: backPanelView,
          },
          {
            id: 'back',
            kind: 'back' as const,
            label: 'The back under it',
            glued: { ...OF_BACK, gluing: (plan: Plan) => plan.back?.gluing ?? plan.gluing },
            view: backView,
          },
        ]
      : []),
  ];
}
