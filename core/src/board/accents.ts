import { certain } from '../lists/there.ts';
import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import { panelRecipe, type Recipe, type StripOperation } from './recipe.ts';
import { stackOperationsOf, sticksIn, type Stack } from './stack.ts';

/** The woods of a strip: of an accent those of all bits of its stack. */
export function woodsOf(
  { recipe }: { readonly recipe: Recipe },
  strip: Pick<StripOperation, 'stack' | 'species'>,
): string[] {
  if (strip.stack === null) return [strip.species];
  const operation = stackOperationsOf(recipe).find((o) => o.id === strip.stack);
  return operation ? [...new Set(sticksIn(operation, recipe).map((s) => s.species))] : [strip.species];
}

/** How much deeper a stack should be for its accents alone, mm; 0 where it is deep enough. */
export function missingDepth({ accents, trued, gap }: Stack): number {
  const needed = accents.reduce((sum, a) => sum + a.strip.width, 0) + Math.max(0, accents.length - 1) * gap;
  return needed - trued > LENGTH_TOLERANCE_MM ? needed - trued : 0;
}

/** Where an accent lies in what is resawn, from the side that is sawn off first, mm. */
export function depthOf({ accents, gap }: Stack, strip: string): number {
  const before = accents.slice(
    0,
    accents.findIndex((a) => a.strip.id === strip),
  );
  return before.reduce((sum, a) => sum + a.strip.width + gap, 0);
}

/** The accents that come out of a stack before it is used up: all of them, but of one that is too shallow. */
export function accentsGiven(stack: Stack): Stack['accents'] {
  return stack.accents.filter(
    ({ strip }) => depthOf(stack, strip.id) + strip.width <= stack.trued + LENGTH_TOLERANCE_MM,
  );
}

/** What lies along an accent as it lies in its panel, from the panel's left end: which wood, from where to where, mm. */
export function bitsAlong(
  { bits, off, length, sticks }: Stack,
  { endForEnd }: Pick<StripOperation, 'endForEnd'>,
): { species: string; from: number; to: number }[] {
  const along = bits.map(({ stick, at, length: long }) => {
    const [from, to] = [Math.max(0, at - off), Math.min(length, at + long - off)];
    const { species } = certain(sticks[stick]).strip;
    return endForEnd ? { species, from: length - to, to: length - from } : { species, from, to };
  });
  return endForEnd ? along.reverse() : along;
}

/** The recipe of the first panel with the stacks that its accents are resawn from: a flat board. */
export function flatPart(recipe: Recipe): Recipe {
  const sticks = new Set(recipe.flatMap((o) => (o.kind === 'stack' ? o.takes : [])));
  return [...recipe.filter((o) => o.kind === 'stack' || sticks.has(o.id)), ...panelRecipe(recipe)];
}
