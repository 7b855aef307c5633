import { firstOf } from '../lists/there.ts';
import { allowancesFor, type Allowances } from '../board/allowances.ts';
import { shopFor } from '../board/differences.ts';
import { panelWidth } from '../board/board.ts';
import { madeFor } from '../board/madeFor.ts';
import type { CutPlan } from '../cutting/cutPlan.ts';
import type { Piece } from '../stock/piece.ts';
import { sectionsFor, type Section } from '../cutting/sections.ts';
import type { GluePlan } from '../gluing/glueUps.ts';
import type { Shop } from '../shop/shop.ts';
import { NOTHING_SAWN, type PlanInput } from '../saw/planInput.ts';
import type { PlanContext } from '../ladders/context.ts';
import { trimLayout, type TrimLayout } from '../trim/trimLayout.ts';
import { cutForBoard } from '../saw/cutForBoard.ts';
import { gluingOf } from './gluingOf.ts';
import { readLadders } from '../ladders/readLadders.ts';
import type { Workpiece } from '../recipe/workpiece.ts';
import type { Ladder } from '../ladders/ladder.ts';
import { materialsOf, type Materials } from '../money/materials.ts';
import type { Operation } from '../steps/operation.ts';
import { operationsFor } from '../steps/operations.ts';
import { panelFlatteningWays } from '../steps/panelSteps.ts';
import { moistureOf, type StockMoisture } from './stockMoisture.ts';
import { timelineOf, type Timeline } from '../schedule/timeline.ts';
import type { WayOfWork } from '../steps/ways.ts';
import { seasonMovement, type SeasonMovement } from '../bodies/seasonMovement.ts';
import { dirtySideUp, shareOf, stripBodies, type StripBody } from '../bodies/stripBody.ts';
import { plannedStrips, type PlannedStrip } from '../bodies/strips.ts';
import { workedBoardOf, type WorkedBoard } from '../bodies/workedBoard.ts';
import { stripsOf } from '../board/recipe.ts';
import { bodiesOfPanel, woodOf } from '../bodies/cells.ts';

/** Everything a screen or a sheet shows of a board; computed, never stored. Lengths in mm. */
export interface Plan {
  /** The shop as this board is made in it: with what the board does in another way. */
  shop: Shop;
  allowances: Allowances;
  /** Width of the panel as glued, mm. */
  panelWidth: number;
  strips: PlannedStrip[];
  sections: Section[];
  ladders: { thickness: Ladder; width: Ladder; length: Ladder };
  cutting: CutPlan;
  /** Whether a plan that was improved or kept before no longer fits the board or the rack. */
  outdated: boolean;
  gluing: GluePlan;
  /** Where the boards lie on their panels: the one placement that every drawing, check, step and file reads. */
  trim: TrimLayout;
  /** Where each strip lies in its piece, and so which faces and grain it shows. */
  bodies: StripBody[];
  /** All the wood of the first panel, and of the first board out of it before edges and features, in cells; null while there are no strips. */
  wood: { panel: Workpiece; board: Workpiece } | null;
  /** The finished board with its edges and features. */
  worked: WorkedBoard;
  movement: SeasonMovement;
  operations: Operation[];
  /** Every way to flatten the panel, and what each costs. */
  flattening: WayOfWork[];
  timeline: Timeline;
  /** Stock whose moisture was measured, against the room. */
  moisture: StockMoisture[];
  materials: Materials;
}

/**
 * The one entry of the engine: what it takes to make this board from this rack in this shop.
 * Pure: the same input gives the same plan. Never throws for valid input; what cannot be done is in the plan as shortages and short ladders.
 *
 * @example makePlan({ board, rack, shop: DEFAULT_SHOP, species: HANDBOOK_SPECIES }).ladders.thickness.reached
 */
export function makePlan(given: PlanInput): Plan {
  const { board, rack } = given;
  const shop = shopFor(board, given.shop);
  const input: PlanInput = { ...given, shop };
  const saw = input.saw ?? NOTHING_SAWN;
  const made = madeFor(board, input.facts);
  const allowances = allowancesFor(board, shop, made);
  const { cutting, outdated } = cutForBoard(input, allowances);
  const pieces = piecesOf(input);
  const trim = trimLayout(board, allowances, shop, made);
  const share = shareOf(board, allowances, trim);
  const asLaid = allowances.panels.map((_, k) => stripBodies(board, cutting, pieces, share, k + 1));
  const over = asLaid.map((bodies) => dirtySideUp(stripsOf(board), bodies));
  const context: PlanContext = {
    ...input,
    made,
    allowances,
    cutting,
    pieces,
    trim,
    turnedOver: over,
    panelWidth: panelWidth(board),
  };
  const ladders = readLadders(context);
  // Where nothing is turned over they lie as they were laid.
  const bodies = firstOf(over).size === 0 ? firstOf(asLaid) : bodiesOfPanel(context, 1);
  const wood = woodOf(context, bodies, ladders);
  const strips = plannedStrips(context, ladders, wood);
  const gluing = gluingOf(context);
  const worked = workedBoardOf(context, ladders);
  const operations = operationsFor(context, ladders, gluing, worked);
  return {
    shop,
    allowances,
    panelWidth: context.panelWidth,
    strips,
    ladders,
    cutting,
    outdated,
    gluing,
    trim,
    bodies,
    wood,
    worked,
    movement: seasonMovement(input, strips, bodies, ladders.thickness.reached),
    sections: sectionsFor(board, allowances, rack, shop, saw.promised),
    operations,
    flattening: panelFlatteningWays(context, gluing.sectionWidth !== null),
    timeline: timelineOf(operations, shop),
    moisture: moistureOf(context),
    materials: materialsOf(context, strips),
  };
}

/** Pieces that are cut already are no longer in the rack; what came of them is known from how they were. */
function piecesOf({ rack, saw = NOTHING_SAWN }: PlanInput): ReadonlyMap<string, Piece> {
  return new Map([...saw.done.map(({ piece }) => piece), ...rack].map((piece) => [piece.id, piece]));
}
