import type { Habits } from '#core/shop/shop.ts';

/** What each habit is called, in the order the work meets them. */
export const HABIT_WORDS: Record<keyof Habits, string> = {
  stockEndTrim: 'Trim off each stock end',
  flattenRough: 'Bow, cup and twist of rough stock',
  flattenSurfaced: 'Bow, cup and twist of surfaced stock',
  skimRough: 'Skim off each rough face',
  skimSurfaced: 'Skim off each surfaced face',
  stockEdgeJoint: 'Straighten one stock edge',
  ripFat: 'Fatter than needed, where strips rest',
  glueEdgeJoint: 'Joint off each ripped edge',
  creep: 'Creep of strips in the clamps',
  panelFlatten: 'Flatten the panel, both faces',
  endGrainFlatten: 'Flatten end grain, both faces',
  panelEdgeTrim: 'Trim off each long edge',
  panelEndTrim: 'Trim off each panel end, at least',
  sanding: 'Sanding, both faces',
  keepLength: 'Keep offcuts from this length',
  edgeTreatment: 'Reach of the edge treatment',
  leaveBeneath: 'Wood left beneath a groove or bore',
  leaveBeside: 'Wood left beside a groove or bore',
};
