import { widthReached } from '../board/allowances.ts';
import { flattenerLimits } from '../shop/flattener.ts';
import { panelSaw } from '../shop/tools.ts';
import { firstOf } from '../lists/there.ts';
import { length, say } from '../units/phrase.ts';
import type { Rungs } from './ladder.ts';
import { sandedOff } from './gluedThickness.ts';
import { faceRungs } from './measuredRungs.ts';

/** What a board takes of the panel that it comes out of. */
export const boardRungs: Rungs = {
  thickness: (context) => ({
    specs: faceRungs(
      context,
      {
        id: 'flatten-panel',
        label: say`Flatten the panel`,
        taken: context.shop.habits.panelFlatten,
        why: say`Strips never lie quite level; both faces of the panel are flattened.`,
        habit: 'panelFlatten',
      },
      {
        id: 'sand',
        label: say`Sand both faces`,
        taken: sandedOff(context),
        why: say`Sanding marks and the planer's ripples go, half off each face.`,
        habit: 'sanding',
      },
    ),
  }),
  width: ({ board, panelWidth, shop }) => ({
    specs: [
      {
        id: 'trim-edges',
        label: say`Trim both long edges`,
        taken: panelWidth - widthReached(board, panelWidth, shop),
        habit: 'panelEdgeTrim',
        why: say`The outer strips carry the extra: at least ${length(shop.habits.panelEdgeTrim)} a side makes the edges straight, parallel and free of glue.`,
      },
    ],
  }),
  length: ({ allowances, board, shop, panelWidth }) => {
    const panel = firstOf(allowances.panels);
    const { kerf } = panelSaw(shop, panelWidth);
    const { snipe } = flattenerLimits(shop);
    const snipeDecides = snipe > shop.habits.panelEndTrim;
    const end = {
      taken: allowances.endTrim + kerf,
      habit: snipeDecides ? undefined : ('panelEndTrim' as const),
      ...(snipeDecides ? { source: 'machine' as const } : {}),
      why: snipeDecides
        ? say`The planer snipes ${length(snipe)} at each end, more than the usual trim; the kerf goes too.`
        : say`The end is squared; the kerf goes too.`,
    };
    return {
      specs: [
        { id: 'first-end', label: say`Trim the first end`, ...end },
        { id: 'second-end', label: say`Turn end for end, trim the second`, ...end },
        {
          id: 'spare',
          label: say`Off for bad places`,
          taken: allowances.spareLength,
          source: 'piece' as const,
          why: say`The panel was glued for longer boards than now come out of it.`,
        },
        {
          id: 'others',
          label: say`Other boards of this panel`,
          taken: board.worked.others.reduce((sum, o) => sum + o.length + kerf, 0),
          source: 'machine',
          why: say`They come out of the same panel, each behind a kerf of ${length(kerf)}.`,
        },
        {
          id: 'cut-apart',
          label: say`Cut ${panel.boards} boards apart`,
          taken: (panel.boards - 1) * (board.length + kerf),
          source: 'machine',
          why: say`The panel holds ${panel.boards} boards end to end; each cut between them takes a kerf.`,
        },
      ],
    };
  },
};
