import { grooveLines, grooveVolume, jigOpening } from '../features/groove.ts';
import { outlineLength } from '../features/outline.ts';
import { schoolOf } from '../shop/schools.ts';
import { length, say } from '../units/phrase.ts';
import type { PlanContext } from '../ladders/context.ts';
import type { StepDraft } from './operation.ts';
import type { WorkedBoard } from '../bodies/workedBoard.ts';
import { routed, TEMPLATE_MINUTES } from './boardWork.ts';
import { routerPasses } from './routerPasses.ts';

export function grooveSteps(context: PlanContext, worked: WorkedBoard): StepDraft[] {
  const { shop } = context;
  const { size, features, sanded } = worked;
  return features
    .filter((f) => f.kind === 'groove')
    .flatMap((groove): StepDraft[] => {
      const lines = grooveLines(groove, size);
      if (lines.length === 0) return [];
      const deep = groove.depth + sanded;
      const passes = routerPasses(groove.bit, deep);
      const travel = lines.reduce((sum, l) => sum + outlineLength(l), 0) * passes;
      const jig = jigOpening(groove, size, shop.router?.base ?? 0);
      const { byRouter, ...cut } = routed(context, worked, {
        what: 'groove',
        feature: groove.id,
        travel,
        setUp: TEMPLATE_MINUTES,
        byHand: 'gouge',
        byHandName: 'Gouge and scraper',
        passes,
        figures: {
          offset: groove.offset,
          corner: groove.corner,
          bit: groove.bit,
          depth: deep,
          left: groove.depth,
          sanded,
          each: deep / passes,
          fall: groove.fall,
          beneath: size.thickness - groove.depth,
          ...(jig && shop.router
            ? {
                base: shop.router.base,
                jigLength: jig.length,
                jigWidth: jig.width,
                jigCorner: jig.corner,
                jigBeyond: Math.abs(jig.beyond),
              }
            : {}),
        },
      });
      return [
        {
          ...cut,
          kind: 'groove',
          title: say`Juice groove, ${groove.face === 'top' ? 'show side' : 'underside'}`,
          school: 'grooveOrder',
          settings: [
            { label: 'Round-nose bit', value: length(groove.bit) },
            { label: 'Depth', value: length(deep) },
          ],
          lines: [
            ...(sanded > 0
              ? [say`${length(deep)} deep: ${length(sanded)} goes with sanding and ${length(groove.depth)} is left`]
              : []),
            ...(byRouter
              ? [
                  say`${passes} ${passes === 1 ? 'pass' : 'passes'} of at most ${length(deep / passes)}, clockwise inside the jig, against the turn of the bit; the last one light and without a stop`,
                ]
              : [say`Mark both lines, cut across the ends first, then along; scrape to a gauge of the groove`]),
            ...(byRouter && jig && shop.router
              ? [
                  say`Jig for a base of ${length(shop.router.base)}: opening ${length(jig.length)} by ${length(jig.width)}, corners of ${length(jig.corner)}; it lies ${length(Math.abs(jig.beyond))} ${jig.beyond >= 0 ? 'beyond the board on every side' : 'inside the edge on every side'}`,
                ]
              : []),
            ...(byRouter && jig && shop.router
              ? []
              : [
                  say`The middle of the groove runs ${length(groove.offset)} from every edge, its corners ${length(groove.corner)} round${groove.wells === 2 ? say`; two wells, ${length(groove.offset)} between their middles` : say``}`,
                ]),
            ...(groove.spout
              ? [
                  say`It falls ${length(groove.fall)} to the ${groove.spout} end: shim the jig at the other end by as much; then the spout, straight out over the end`,
                ]
              : []),
            say`It holds ${Math.round(grooveVolume(groove, size) / 1000)} ml to the brim; ${length(size.thickness - groove.depth)} of wood is left beneath`,
          ],
          why: say`${schoolOf(shop.schools, 'grooveOrder').why} Burn marks on end grain are slow to sand out: keep moving at the corners.`,
        },
      ];
    });
}
