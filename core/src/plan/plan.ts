import { firstOf } from '../lists/there.ts';
import { aboveBack, backOf, type Back } from '../board/back.ts';
import { frameOf, framedAround, type Frame } from '../board/frame.ts';
import { allowancesFor, stacksOfPanel, type Allowances } from '../board/allowances.ts';
import { shopFor } from '../board/differences.ts';
import type { Board } from '../board/board.ts';
import { madeFor, madeOnTheWay, panelWidthMade } from '../board/madeFor.ts';
import type { CutPlan } from '../cutting/cutPlan.ts';
import { sectionsFor, type Section } from '../cutting/sections.ts';
import type { GluePlan } from '../gluing/glueUps.ts';
import type { Shop } from '../shop/shop.ts';
import { NOTHING_SAWN, type PlanInput } from '../saw/planInput.ts';
import { withoutFailed } from '../saw/failedStrips.ts';
import { piecesCut } from '../saw/piecesCut.ts';
import type { PlanContext } from '../ladders/context.ts';
import { trimLayout, type Block, type TrimLayout } from '../trim/trimLayout.ts';
import { cutForBoard } from '../saw/cutForBoard.ts';
import { gluingOf } from './gluingOf.ts';
import { inTurn, NONE_BEFORE } from './panelsInTurn.ts';
import { readLadders } from '../ladders/readLadders.ts';
import type { Workpiece } from '../recipe/workpiece.ts';
import type { Ladder } from '../ladders/ladder.ts';
import { materialsOf, type Materials } from '../money/materials.ts';
import { ofKind } from '../steps/instruction.ts';
import type { Operation } from '../steps/operation.ts';
import type { ToolId } from '../shop/tools.ts';
import { operationsFor } from '../steps/operations.ts';
import { panelFlatteningWays } from '../steps/panelSteps.ts';
import { moistureOf, type StockMoisture } from './stockMoisture.ts';
import { doneSteps } from '../facts/doneSteps.ts';
import type { WayOfWork } from '../steps/ways.ts';
import { seasonMovement, type SeasonMovement } from '../bodies/seasonMovement.ts';
import { dirtySideUp, shareOf, stripBodies, type StripBody } from '../bodies/stripBody.ts';
import { plannedStrips, type PlannedStrip } from '../bodies/strips.ts';
import { workedBoardOf, type WorkedBoard } from '../bodies/workedBoard.ts';
import { stripsOf } from '../board/recipe.ts';
import { againOf, asMade, fieldOf, panelBoardOf, type Again } from '../board/again.ts';
import type { Inset } from '../board/inset.ts';
import type { Recut } from '../board/recut.ts';
import { bodiesOfPanel, woodOf } from '../bodies/cells.ts';
import { recutMovement } from '../bodies/recutMovement.ts';
import { boardOfBlock, stripsInBoard } from '../bodies/recutWood.ts';
import { backLadders } from '../ladders/backLadders.ts';
import { finishPlanOf, type FinishPlan } from '../finish/finishPlan.ts';
import { surfacesOf } from '../finish/surfaces.ts';
import { flatThickness } from '../ladders/gluedThickness.ts';
import { frameLadders } from '../ladders/frameLadders.ts';
import { asMeasured } from '../ladders/measuredRungs.ts';
import { insetLadders } from '../ladders/insetLadders.ts';
import { recutLadders } from '../ladders/recutLadders.ts';
import { againOperations, type FirstPanels } from '../steps/againOperations.ts';
import { blockGluing, blocksOf, blockToTrim } from './blocks.ts';
import { cellsOfBoard } from './boardCells.ts';
import { backedContext, backGluing, backPanels, backToTrim } from './backing.ts';
import { stacksGlued } from './stacking.ts';
import type { StackKnown } from '../steps/stackSteps.ts';
import { framedContext, frameGluing, frameProud, frameToTrim, type FramePair } from './framing.ts';

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
  /** How its sides are sanded, and what goes on them. */
  finish: FinishPlan;
  movement: SeasonMovement;
  operations: Operation[];
  /** Every way to flatten the panel, and what each costs. */
  flattening: WayOfWork[];
  /** Hands-on work that is not done yet, for all boards, minutes. */
  handsMinutes: number;
  /** Stock whose moisture was measured, against the room. */
  moisture: StockMoisture[];
  materials: Materials;
  /** Accents resawn from bits glued end to end, and how those are glued; none for most boards. */
  stacks: readonly StackKnown[];
  /** How it is cut and glued again, with its first panel as a board of its own; null for a flat board. Strips, cuts, gluing and bodies are then those of the first panel. */
  again: RecutPlan | InsetPlan | null;
  /** The same where slices of it are rows; null for any other board. */
  recut: RecutPlan | null;
  /** The frame round it, with what is inside; null for a board without. */
  frame: FramePlan | null;
  /** The back under it, with what is above; null for a board without. */
  back: BackPlan | null;
  /** What boards are trimmed from, and with which figures; null where it is the panels of strips. */
  lastly: (Pick<PlanContext, 'board' | 'shop' | 'allowances'> & { block: Block }) | null;
}

/** The first panel of a board that is cut and glued again, and what is known of its block. */
interface AgainPlan {
  board: Board;
  trim: TrimLayout;
  ladders: Plan['ladders'];
  wood: Plan['wood'];
  /** Of the block, and of the strips of its panel. */
  gluing: GluePlan;
  panelGluing: GluePlan;
  /** The other panels that rows come from in turn, each as a board of its own; none for most boards. */
  otherPanels: (Pick<PlanContext, 'board' | 'trim' | 'allowances' | 'before'> & {
    gluing: GluePlan;
    bodies: StripBody[];
  })[];
  /** The block of the first board in cells. */
  glued: Workpiece | null;
}
/** A board of rows. */
export type RecutPlan = Recut & AgainPlan;
/** A board of parts with strips between them. */
export type InsetPlan = Inset & AgainPlan;
/** A frame round a field: where fields lie on the panels or blocks they are cut from, with the ladders up to them. */
export interface FramePlan extends Frame {
  /** The panel that the field, or what it is cut again from, is glued as. */
  board: Board;
  trim: TrimLayout;
  ladders: Plan['ladders'];
  fields: { trim: TrimLayout; ladders: Plan['ladders']; thickness: number };
  /** The first of them in cells, and with its frame on before it is trimmed. */
  inside: Workpiece | null;
  framed: Workpiece | null;
  pairs: FramePair[];
  /** How far its strips stand over the field when they are glued on. */
  proud: number;
  /** What the field would move along and across by itself between the dry and the damp month, mm. */
  movement: Pick<SeasonMovement, 'along' | 'across'>;
}

/** A back under what is above it. */
export interface BackPlan extends Back {
  /** The panel that what is above is glued as, or is cut again from. */
  board: Board;
  trim: TrimLayout;
  ladders: Plan['ladders'];
  tops: { trim: TrimLayout; ladders: Plan['ladders']; thickness: number };
  /** Of the back under the board, and of its own strips. */
  gluing: GluePlan | null;
  panel: Pick<PlanContext, 'board' | 'allowances' | 'before' | 'panelWidth'> & { gluing: GluePlan };
  /** What is above would move along and across by itself between the dry and the damp month, mm. */
  movement: Pick<SeasonMovement, 'along' | 'across'>;
}

/**
 * The one entry of the engine: what it takes to make this board from this rack in this shop.
 * Pure: the same input gives the same plan. Never throws for valid input; what cannot be done is in the plan as shortages and short ladders.
 *
 * @example makePlan({ board, rack, shop: DEFAULT_SHOP, species: HANDBOOK_SPECIES }).ladders.thickness.reached
 */
export function makePlan(input: PlanInput): Plan {
  const given = withoutFailed(input);
  const { board, rack } = given;
  const saw = given.saw ?? NOTHING_SAWN;
  const shop = shopFor(board, given.shop);
  const asked = againOf(board, given.shop);
  const askedFrame = frameOf(board, given.shop);
  const askedBack = backOf(board, given.shop);
  const inside = fieldOf(board, given.shop);
  // What is cut out of the panels, or the blocks, is a board, or goes into a frame, or onto a back.
  const next = askedFrame ? 'frame' : askedBack ? 'back' : null;
  const first = firstPanels(given, panelBoardOf(board, given.shop), asked, asked ? null : next);
  const others = asked?.how === 'rows' ? asked.kinds.slice(1).map((_, k) => otherPanels(first, given, k + 1)) : [];
  const firsts = [first, ...others];
  const thickness = thinnest(firsts);
  const again =
    asked &&
    asMade(
      asked,
      thickness.reached,
      firsts.map((f) => f.ladders.width.reached),
    );
  const { cutting, allowances } = first.context;
  const field = again
    ? blocksOf(
        first.context,
        { board: inside, shop, again, field: next },
        (next ? madeOnTheWay : madeFor)(inside, given.facts),
      )
    : first.context;
  const fieldLadders = again
    ? asMeasured(againLadders(field, again, { ...first.ladders, thickness }), field.made)
    : first.ladders;
  const frame =
    askedFrame && framedAround(askedFrame, { length: fieldLadders.length.reached, width: fieldLadders.width.reached });
  const above = aboveBack(board, given.shop);
  const top = frame
    ? framedContext(field, frame, above, (askedBack ? madeOnTheWay : madeFor)(above, given.facts), askedBack !== null)
    : field;
  const topLadders = frame ? asMeasured(frameLadders(top, frame, fieldLadders), top.made) : fieldLadders;
  const size = { length: topLadders.length.reached, width: topLadders.width.reached };
  const last = askedBack ? backedContext(top, askedBack, size, board, madeFor(board, given.facts)) : top;
  const ladders = askedBack ? asMeasured(backLadders(last, askedBack, topLadders), last.made) : topLadders;
  const more = again !== null || frame !== null || askedBack !== null;
  const fields = { trim: field.trim, ladders: fieldLadders, thickness: flatThickness(field) };
  const tops = { trim: top.trim, ladders: topLadders, thickness: flatThickness(top) };
  const cells = cellsOfBoard(
    {
      contexts: firsts.map((f) => f.context),
      again,
      frame: frame && { ...frame, fields },
      back: askedBack && { ...askedBack, tops },
    },
    1,
    first.wood?.panel,
  );
  const wood = more ? boardOfBlock(last, cells.whole, ladders) : first.wood;
  const strips = more ? stripsInBoard(first.strips, wood?.board, first.context) : first.strips;
  const gluing = again ? blockGluing(field, again) : first.gluing;
  const worked = workedBoardOf(last, ladders);
  const surfaces = surfacesOf(worked, wood?.board ?? null);
  const pairs = frame ? frameGluing(top, frame) : [];
  const back = askedBack && {
    back: askedBack,
    panels: backPanels(first.context, askedBack, board, panelsBefore(firsts)),
    gluing: backGluing(top, askedBack, size),
    size,
  };
  const backPanelGluing = back && gluingOf(back.panels);
  const proud = frame ? frameProud(first.context, frame, fields.thickness) : 0;
  const operations = more
    ? againOperations(
        firsts,
        { context: field, ladders: fieldLadders, gluing, stacks: [], worked },
        { context: top, ladders: topLadders, worked },
        { context: last, ladders, worked, surfaces },
        again,
        frame && { frame, pairs, proud },
        back && backPanelGluing && { ...back, panelGluing: backPanelGluing },
      )
    : operationsFor(last, ladders, gluing, worked, surfaces, first.stacks);
  const planned: AgainPlan | null = again && {
    board: first.context.board,
    trim: first.context.trim,
    ladders: first.ladders,
    wood: first.wood,
    gluing,
    panelGluing: first.gluing,
    otherPanels: others.map(({ context, gluing: own, bodies }) => ({
      board: context.board,
      trim: context.trim,
      allowances: context.allowances,
      gluing: own,
      bodies,
      before: context.before,
    })),
    glued: cells.block,
  };
  const trimmedFrom = askedBack
    ? backToTrim(askedBack, size)
    : frame
      ? frameToTrim(frame)
      : again && blockToTrim(again);
  return {
    shop,
    allowances,
    panelWidth: first.context.panelWidth,
    strips,
    ladders,
    cutting,
    outdated: first.outdated,
    gluing: first.gluing,
    trim: last.trim,
    bodies: first.bodies,
    wood,
    worked,
    movement:
      more || first.stacks.length > 0
        ? recutMovement(given, shop, wood?.board, ladders)
        : seasonMovement({ ...given, shop }, strips, first.bodies, ladders.thickness.reached),
    // Asked for by the shelf alone; the work of a shop is planned without.
    get sections() {
      return sectionsFor(first.context.board, allowances, rack, shop, saw.promised);
    },
    operations,
    finish: finishPlanOf(last, worked, surfaces, flattenedWith(operations)),
    flattening: panelFlatteningWays(field, gluing.sectionWidth !== null),
    handsMinutes: stillToDo(operations, given.facts).reduce((sum, o) => sum + o.minutes * o.repeats, 0),
    moisture: moistureOf(first.context),
    materials: materialsOf({ ...first.context, board: last.board }, strips, wood?.board),
    again: again && planned && { ...again, ...planned },
    recut: again?.how === 'rows' && planned ? { ...again, ...planned } : null,
    frame: frame && {
      ...frame,
      board: first.context.board,
      trim: first.context.trim,
      ladders: first.ladders,
      fields,
      inside: cells.field,
      framed: cells.framed,
      pairs,
      proud,
      movement: recutMovement(given, shop, cells.field ?? undefined, fieldLadders),
    },
    back: back &&
      backPanelGluing && {
        ...back.back,
        board: first.context.board,
        trim: first.context.trim,
        ladders: first.ladders,
        tops,
        gluing: back.gluing,
        panel: {
          board: back.panels.board,
          allowances: back.panels.allowances,
          before: back.panels.before,
          panelWidth: back.panels.panelWidth,
          gluing: backPanelGluing,
        },
        movement: recutMovement(given, shop, cells.top ?? undefined, topLadders),
      },
    stacks: first.stacks,
    lastly: trimmedFrom && { board: last.board, shop: last.shop, allowances: last.allowances, block: trimmedFrom },
  };
}

/** Of several panels that rows come from in turn the thinnest decides. */
const thinnest = (firsts: readonly FirstPanels[]): Ladder =>
  firsts.map((f) => f.ladders.thickness).reduce((least, own) => (own.reached < least.reached ? own : least));

/** How many panels are numbered before those of a back. */
const panelsBefore = (firsts: readonly FirstPanels[]): number =>
  firsts.reduce((most, { context }) => Math.max(most, context.before.panels + context.allowances.panels.length), 0);

/** With what the faces of the boards were made flat last. */
function flattenedWith(operations: readonly Operation[]): ToolId {
  const flattened = operations
    .filter((o) => o.kind === 'flattenPanel')
    .flatMap((o) => ofKind(o.instructions, 'flatten'));
  return flattened.at(-1)?.tool ?? 'orbitalSander';
}

/** What is not done yet: it waits for nothing that is. */
export function stillToDo(operations: readonly Operation[], facts: PlanInput['facts'] = []): readonly Operation[] {
  const done = doneSteps(facts, new Map(operations.map((o) => [o.id, o.repeats])));
  if (done.size === 0) return operations;
  return operations.filter((o) => !done.has(o.id)).map((o) => ({ ...o, after: o.after.filter((id) => !done.has(id)) }));
}

/** The ladders of a board that is cut and glued again. */
function againLadders(last: PlanContext, again: Again, first: Plan['ladders']): Plan['ladders'] {
  return again.how === 'rows' ? recutLadders(last, again, first) : insetLadders(last, again, first);
}

/** All that is planned of the panels that are glued of strips, as if each were a board. */
function firstPanels(given: PlanInput, board: Board, again: Again | null, field: PlanContext['field']): FirstPanels {
  const shop = shopFor(board, given.shop);
  const input: PlanInput = { ...given, board, shop };
  const made = (again || field ? madeOnTheWay : madeFor)(board, input.facts);
  const allowances = allowancesFor(given.board, given.shop, made);
  const { cutting, outdated } = cutForBoard(given, allowances);
  const pieces = piecesCut(input, cutting);
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
    stacks: stacksOfPanel(board, allowances, shop),
    turnedOver: over,
    panelWidth: panelWidthMade(board, made),
    again: null,
    frame: null,
    back: null,
    field,
    before: NONE_BEFORE,
    ahead: again?.how === 'rows' && again.panel.stagger ? again.offsets : null,
    wished: board,
  };
  const ladders = asMeasured(readLadders(context), made);
  // Where nothing is turned over they lie as they were laid.
  const bodies = firstOf(over).size === 0 ? firstOf(asLaid) : bodiesOfPanel(context, 1);
  const wood = woodOf(context, bodies, ladders);
  return {
    context,
    outdated,
    ladders,
    bodies,
    wood,
    strips: plannedStrips(context, ladders, wood),
    gluing: gluingOf(context),
    stacks: stacksGlued(context),
    // Nothing is worked into it before it is a board.
    worked: workedBoardOf(context, ladders),
  };
}

/** The same of another of the panels that rows come from in turn. @param kind which, from 1 */
function otherPanels(first: FirstPanels, given: PlanInput, kind: number): FirstPanels {
  const context = inTurn(first.context, given, kind);
  const ladders = asMeasured(readLadders(context), context.made);
  return { ...first, context, ladders, bodies: bodiesOfPanel(context, 1), wood: null, gluing: gluingOf(context) };
}
