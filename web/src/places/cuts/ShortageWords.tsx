import { buyWords } from '#core/checks/stockShortage.ts';
import type { Shortage } from '#core/cutting/cutPlan.ts';
import type { Species } from '#core/wood/species.ts';
import { Say } from '../../quantities/Length.tsx';

/** Strips that cannot be had, why, and what would have to be bought for them. */
export function ShortageWords({ shortage, species }: { shortage: Shortage; species: readonly Species[] }) {
  const name = species.find((s) => s.code === shortage.species)?.name ?? shortage.species;
  return (
    <>
      <p>
        <b>
          {name}: {shortage.parts === 1 ? '1 strip' : `${shortage.parts} strips`} cannot be had
        </b>{' '}
        (number {shortage.strips.join(', ')}). <Say phrase={shortage.say} />
      </p>
      <p>
        To buy: <Say phrase={buyWords(shortage)} />.
      </p>
    </>
  );
}
