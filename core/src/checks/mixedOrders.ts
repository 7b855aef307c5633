import { say } from '../units/phrase.ts';
import type { Found, Rule } from './finding.ts';

/** Short blanks that are flattened as part of their plank cost the long ones beside them what they were to gain by being cut first. */
export const mixedOrders: Rule = ({ cutting }, { rack }) =>
  rack.flatMap((piece): Found[] => {
    const strips = cutting.blanks.filter((b) => !b.done && b.pieceId === piece.id).flatMap((b) => b.strips);
    const full = strips.filter((s) => s.order === 'fullLength');
    if (full.length === 0 || full.length === strips.length) return [];
    return [
      {
        rule: 'mixed-orders',
        severity: 'caution',
        at: 'flatten',
        strips: [
          ...new Set(strips.filter((s) => s.order !== 'fullLength' && s.demand.spare === 0).map((s) => s.demand.strip)),
        ].sort((a, b) => a - b),
        what: say`${piece.mark} is flattened at full length for its short parts; its long ones reckon with being cut out first.`,
        why: say`Flattened whole, the plank loses more: strips may come out thinner than planned.`,
        waysOut: [say`Take the short parts from another piece.`, say`Make the panels equally long.`],
      },
    ];
  });
