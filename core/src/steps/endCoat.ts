import type { Shop } from '../shop/shop.ts';
import { say, type Phrase } from '../units/phrase.ts';

/** How glue goes on what is sawn across the grain, by the shop's school. @param what is coated, as in "every cut face" */
export function endCoatLine({ schools }: Pick<Shop, 'schools'>, what: string): Phrase {
  return schools.endCoat === 'sized'
    ? say`Sawn ends drink: a thin coat of glue on ${what} first, rubbed in; a minute later the second`
    : say`Sawn ends drink: one full coat of glue on ${what}, brushed well in, and closed while it is wet`;
}
