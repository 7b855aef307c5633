import { glueOf } from '../shop/shop.ts';
import { say } from '../units/phrase.ts';
import type { Rule } from './finding.ts';

/** What each class withstands by its own standard (ANSI/HPVA HP-1 and EN 204, names and meaning from memory). */
const DRY_ONLY: readonly string[] = ['D2', 'unclassed'];

/** A board is washed: the glue must stand water. */
export const glueClass: Rule = ({ gluing }, { shop }) => {
  const glue = glueOf(shop);
  if (gluing.glueUps.length === 0 || !DRY_ONLY.includes(glue.class)) return [];
  return [
    {
      rule: 'glue-not-for-water',
      severity: 'caution',
      strips: [],
      at: 'glue',
      what:
        glue.class === 'D2'
          ? say`${glue.name} is class D2: for rooms where water seldom and shortly reaches it.`
          : say`${glue.name} has no class for water.`,
      why: say`Boards are washed, and sooner or later one lies in the sink: its joints open along the glue lines.`,
      waysOut: [
        say`Take a water-resistant glue, Type II or D3: enough for a board that is never soaked.`,
        say`Take a waterproof one, Type I or D4, because boards do end up in the sink.`,
      ],
      source: 'Classes of ANSI/HPVA HP-1 and EN 204, from memory; the bottle decides',
    },
  ];
};
