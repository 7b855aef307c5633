import type { Allowances } from '../board/allowances.ts';
import type { Board } from '../board/board.ts';
import type { StripDemand } from '../cutting/cutPlan.ts';

/**
 * What the board asks of the rack: one demand for each strip of each copy. Edge grain takes the visible width from the stock's
 * thickness and rips the board's thickness; face grain the other way round.
 */
export function demandsFor(board: Board, allowances: Allowances): StripDemand[] {
  const demands: StripDemand[] = [];
  for (let copy = 1; copy <= board.count; copy += 1) {
    board.strips.forEach((strip, i) => {
      const section = board.construction === 'edge'
        ? { rip: allowances.glueThickness, thickness: strip.width }
        : { rip: strip.width + allowances.ripExtra, thickness: allowances.glueThickness };
      demands.push({ strip: i + 1, copy, species: strip.species, length: allowances.roughLength, ...section });
    });
  }
  return demands;
}
