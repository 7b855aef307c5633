import { workOfPlan } from '#core/plan/boardWork.ts';
import { makePlan } from '#core/plan/plan.ts';
import { shopProblem } from '#core/schedule/shopProblem.ts';
import type { ScheduleProblem } from '#core/schedule/task.ts';
import { nth } from '#core/lists/there.ts';
import type { Shop } from '#core/shop/shop.ts';
import { HANDBOOK_SPECIES } from '#core/wood/handbookSpecies.ts';
import { seeded } from './cuttingInstances.ts';
import { tramShedBoards, tramShedRack, tramShedShop } from '../../server/src/demo/tramShed.ts';

/** Monday evening, 2026-11-30 18:00 in Vienna, minutes since 1970. */
const FROM = Date.UTC(2026, 10, 30, 17) / 60_000;
const ZONE = 'Europe/Vienna';

/** A shop of a seed: evenings and weekends or whole days, mostly one pair of hands, clamps for three panels at least, two dozen places to dry. */
function shopOf(random: () => number): Shop {
  const opens = 16 + Math.floor(random() * 3);
  const evening = { from: `${opens}:00`, to: `${opens + 3 + Math.floor(random() * 2)}:00` };
  const day = { from: '08:00', to: '17:00' };
  const workshop = random() < 0.4;
  const usual = workshop ? day : evening;
  const weekend = random() < 0.7 ? { from: '09:00', to: '17:00' } : null;
  const [pipe, f] = [nth(tramShedShop.clamps, 0), nth(tramShedShop.clamps, 1)];
  return {
    ...tramShedShop,
    space: { glueUps: null, drying: 24 },
    hours: [usual, usual, usual, usual, usual, weekend, workshop ? null : weekend],
    clamps: [
      { ...pipe, count: 15 + Math.floor(random() * 16) },
      { ...f, count: 4 + Math.floor(random() * 9) },
    ],
    people:
      random() < 0.1
        ? [
            { id: 'a', name: 'First pair of hands', hours: null },
            { id: 'b', name: 'Second pair of hands', hours: null },
          ]
        : [{ id: 'a', name: 'One pair of hands', hours: null }],
  };
}

/** So many boards in a seeded shop, each a design of the demo made by somebody slower or quicker, about thirty steps each. */
export function scheduleInstance(boards: number, seed: number): ScheduleProblem {
  const random = seeded(seed * 104_729 + boards);
  const shop = shopOf(random);
  const plans = tramShedBoards.map((board) =>
    makePlan({ board, rack: tramShedRack, shop, species: [...HANDBOOK_SPECIES] }),
  );
  const works = Array.from({ length: boards }, (_, i) => {
    const k = Math.floor(random() * plans.length);
    const plan = nth(plans, k);
    const pace = 0.7 + random();
    const operations = plan.operations.map((o) => ({ ...o, minutes: o.minutes * pace }));
    const work = workOfPlan(`b${i}`, { board: nth(tramShedBoards, k) }, { ...plan, operations });
    return { work, due: null };
  });
  return shopProblem(works, shop, ZONE, FROM);
}
