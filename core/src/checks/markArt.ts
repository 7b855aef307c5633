import { entryOf } from '../lists/there.ts';
import { artOutlines } from '../features/artPlace.ts';
import type { Art } from '../features/art.ts';
import type { FeatureOf } from '../features/feature.ts';
import { inlayFit } from '../features/inlay.ts';
import { tightPlaces } from '../features/lineSpacing.ts';
import { ofKind } from '../steps/instruction.ts';
import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import { length, say } from '../units/phrase.ts';
import type { Found, Rule } from './finding.ts';

const TIGHT = new WeakMap<Art, Map<string, number>>();

/** A drawing is searched once for each size it is drawn at. */
function tightOf(mark: FeatureOf<'mark'>, art: Art): number {
  const known = TIGHT.get(art) ?? new Map<string, number>();
  TIGHT.set(art, known);
  const key = `${mark.length} ${mark.width} ${mark.bit}`;
  if (!known.has(key)) known.set(key, tightPlaces(artOutlines(mark, art), mark.bit).length);
  return entryOf(known, key);
}

/** Whether the bit can cut the drawing of a mark, and whether an inlay's plug goes into its pocket. */
export const markArt: Rule = (plan) =>
  plan.worked.features.flatMap((f): Found[] => {
    if (f.kind !== 'mark') return [];
    const finding = (
      rule: string,
      severity: Found['severity'],
      what: Found['what'],
      why: Found['why'],
      waysOut: Found['waysOut'],
    ): Found => ({
      rule,
      severity,
      strips: [],
      part: f.id,
      at: f.method === 'inlay' ? 'inlay' : 'engrave',
      what,
      why,
      waysOut,
    });
    const tight = f.art && !f.filled && (f.method === 'router' || f.method === 'laser') ? tightOf(f, f.art) : 0;
    const { glueGap } = inlayFit(f);
    // Half of what is sanded off comes off the face the plug sits in.
    const sanded =
      Math.max(0, ...plan.operations.flatMap((o) => ofKind(o.instructions, 'sand')).map((i) => i.take)) / 2;
    const told = plan.operations.flatMap((o) => ofKind(o.instructions, 'inlay'));
    return [
      ...(f.art === null && f.method !== 'brand'
        ? [
            finding(
              'mark-drawing',
              'note',
              say`${f.name} has no drawing yet.`,
              say`Without one there is no file for the machine.`,
              [say`Take a drawing from an SVG file at Trim.`, say`Burn it in with a brand.`],
            ),
          ]
        : []),
      ...(tight > 0 && f.art
        ? [
            finding(
              'mark-lines',
              'caution',
              say`${f.name}: in ${tight} ${tight === 1 ? 'place' : 'places'} lines run nearer to each other than ${length(f.bit)}.`,
              say`What is finer than the bit runs together.`,
              [say`Make the mark larger.`, say`Use a finer bit.`],
            ),
          ]
        : []),
      ...(f.method === 'inlay' && glueGap < -LENGTH_TOLERANCE_MM
        ? [
            finding(
              'inlay-deep',
              'stop',
              say`${f.name}: the plug goes ${length(f.plugStart)} deep and the pocket is ${length(f.depth)}.`,
              say`It would stand on the bottom before its walls close.`,
              [say`Begin the plug at most ${length(f.depth)} below its face, or make the pocket deeper.`],
            ),
          ]
        : []),
      ...(f.method === 'inlay' && glueGap >= -LENGTH_TOLERANCE_MM && glueGap < LEAST_GLUE
        ? [
            finding(
              'inlay-glue',
              'caution',
              say`${f.name}: ${length(Math.max(0, glueGap))} is left for glue under the plug.`,
              say`Trapped glue keeps the walls from closing.`,
              [say`Leave at least ${length(LEAST_GLUE)}.`],
            ),
          ]
        : []),
      ...(f.method === 'inlay' && told.some((i) => i.feature === f.id && i.plug === null)
        ? [
            finding(
              'plug-wood',
              'caution',
              say`${f.name}: nothing that this board leaves in the rack gives wood for its plug.`,
              say`The plug wants another wood than the strips it lies in, sound and thick enough.`,
              [say`Add a piece for it to the rack.`, say`Make the mark smaller.`],
            ),
          ]
        : []),
      ...(f.method === 'inlay' && f.plugStart <= sanded
        ? [
            finding(
              'inlay-sanded',
              'stop',
              say`${f.name}: the plug goes ${length(f.plugStart)} deep, and sanding takes ${length(sanded)} off the face.`,
              say`Nothing of the drawing would be left.`,
              [say`Begin the plug deeper than ${length(sanded)} below its face.`, say`Plan with less for sanding.`],
            ),
          ]
        : []),
    ];
  });

/** Room for glue under a plug, mm (common practice). */
const LEAST_GLUE = 0.3;
