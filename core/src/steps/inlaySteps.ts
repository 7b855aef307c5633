import { firstOf, lastOf, nth } from '../lists/there.ts';
import { isSide } from '../features/edge.ts';
import type { FeatureOf } from '../features/feature.ts';
import { inlayFit } from '../features/inlay.ts';
import { slowness } from '../shop/gluing.ts';
import { glueOf } from '../shop/shop.ts';
import { length, say } from '../units/phrase.ts';
import type { PlanContext } from '../ladders/context.ts';
import { joined } from './millingWords.ts';
import type { StepDraft } from './operation.ts';
import { spareWood, type SpareWood, type WantedWood } from '../cutting/spareWood.ts';
import { stockThing, type PlugWood } from './instruction.ts';
import type { WorkedBoard } from '../bodies/workedBoard.ts';
import { stripTops } from '../board/board.ts';
import { cutStripsOf, stripsOf, type Strip } from '../board/recipe.ts';
import { boardsOf, cutsOf } from './boardWork.ts';
import { markFigures, MARK_PLACES } from './markSteps.ts';

/** Glue in a pocket sets, and its plug may be flushed, after so long, minutes; a plug is this much larger than its pocket all round, mm (common practice). */
const PLUG_MARGIN_MM = 6;

/** Inlays while the board is flat and its edges are square: pocket, plug, glue, wait, and flush; the sanding that follows takes the rest. */
export function inlaySteps(context: PlanContext, worked: WorkedBoard): StepDraft[] {
  const { board, shop } = context;
  const { features } = worked;
  const glue = glueOf(shop);
  const wait = glue.clampMinutes * slowness(shop.room.temperature);
  const taken: SpareWood[] = [];
  return features.flatMap((m): StepDraft[] => {
    if (m.kind !== 'mark' || m.method !== 'inlay') return [];
    const { glueGap, faceGap } = inlayFit(m);
    const plug = {
      plugLength: m.length + 2 * PLUG_MARGIN_MM,
      plugWidth: m.width + 2 * PLUG_MARGIN_MM,
      plugThickness: m.plugStart + m.plugDepth + PLUG_MARGIN_MM,
    };
    const wood = plugWood(m, context, worked, taken, {
      length: board.count * (plug.plugLength + shop.crosscutSaw.kerf) - shop.crosscutSaw.kerf,
      width: plug.plugWidth,
      thickness: plug.plugThickness,
    });
    if (wood) taken.push(wood.found);
    return [
      {
        kind: 'inlay',
        about: m.id,
        title: say`Inlay: ${m.name}`,
        machine: 'Router',
        waitMinutes: wait,
        waitFor: 'the glue of the inlay',
        instructions: [
          {
            do: 'inlay',
            parts: boardsOf(board.count),
            cuts: cutsOf(worked, m.id),
            plug: wood?.told ?? null,
            feature: m.id,
            glue: glue.id,
            waitMinutes: wait,
            figures: {
              length: m.length,
              width: m.width,
              depth: m.depth,
              plugStart: m.plugStart,
              plugDepth: m.plugDepth,
              glueGap,
              faceGap,
              ...plug,
              ...markFigures(m, { width: Infinity }, 0),
            },
          },
        ],
        lines: [
          joined(
            say`${m.name}, ${MARK_PLACES[m.face]}: its middle `,
            say`${length(m.x)} from the left end and ${length(m.y)} from the far edge`,
          ),
          joined(
            say`Wood for the plug${board.count > 1 ? ', for each board' : ''}: ${length(plug.plugLength)} by ${length(plug.plugWidth)}, ${length(plug.plugThickness)} thick, `,
            wood
              ? joined(
                  say`${wood.species} out of what is left of ${wood.told.part.label}, ${length(wood.told.from)} from its marked end`,
                  wood.told.across > 0 ? say` and ${length(wood.told.across)} from its near edge` : say``,
                )
              : say`of another species: nothing that is left gives it`,
          ),
          say`Pocket with a V-bit of ${m.angle}°, ${length(m.depth)} deep; the plug mirrored, begun ${length(m.plugStart)} below its face and cut ${length(m.plugDepth)} further`,
          say`Glue on the walls of the pocket, the plug pressed in until it goes no further, a block and a clamp over it: it goes ${length(m.plugStart)} deep, ${length(glueGap)} for glue beneath, ${length(faceGap)} between the two faces`,
          say`When the glue has set: saw the plug off between the faces, then flush with a plane or a block; the sanding follows`,
        ],
        why: say`While the edges are square and the face is not sanded yet, the plug can be clamped and flushed, and nothing finished is cut again.`,
      },
    ];
  });
}

/** Another wood for the plug than the strips the mark lies on, out of what the plan leaves. */
function plugWood(
  mark: FeatureOf<'mark'>,
  { board, rack, cutting, shop, species, saw, again, frame }: PlanContext,
  { shift }: WorkedBoard,
  taken: readonly SpareWood[],
  wanted: WantedWood,
): { found: SpareWood; told: PlugWood; species: string } | null {
  // In rows of cells every wood of the board may lie under it.
  const under = new Set(
    again || frame ? cutStripsOf(board).map((s) => s.species) : speciesUnder(mark, stripsOf(board), shift),
  );
  const found = spareWood(
    { rack, cutting, promised: saw?.promised ?? [], taken, shop },
    wanted,
    (code) => !under.has(code),
  );
  if (!found) return null;
  const { piece, unit, place } = found;
  return {
    found,
    told: { part: stockThing(piece, unit), ...place, thickness: wanted.thickness },
    species: species.find((s) => s.code === piece.species)?.name.toLowerCase() ?? piece.species,
  };
}

/** Species of the strips that a mark lies on. @param shift of the board on its panel, mm */
function speciesUnder(mark: FeatureOf<'mark'>, strips: readonly Strip[], shift: number): string[] {
  if (mark.face === 'far') return [firstOf(strips).species];
  if (mark.face === 'near') return [lastOf(strips).species];
  const [middle, half] = isSide(mark.face) ? [mark.x, mark.length / 2] : [mark.y, mark.width / 2];
  const tops = stripTops(strips);
  return strips.flatMap((s, i) => {
    const from = nth(tops, i) - shift;
    return from < middle + half && from + s.width > middle - half ? [s.species] : [];
  });
}
