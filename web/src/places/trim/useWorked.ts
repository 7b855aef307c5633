import { useMemo } from 'react';
import { edgesFor, featuresFor } from '#core/board/workedByHabit.ts';
import type { Feature, Worked } from '#core/features/feature.ts';
import { solidsOf } from '#core/features/solids.ts';
import { outlineOf } from '#core/bodies/workedBoard.ts';
import { useOpenBoard } from '../../data/openBoard.tsx';

/** What is worked into the open board as it is this moment, and how it is changed. Sizes are those of the plan. */
export function useWorked() {
  const { board, plan, session } = useOpenBoard();
  const { worked, thickness, width, recipe } = board;
  const { size, shift } = plan.worked;
  const now = useMemo(() => {
    const features = featuresFor({ worked, thickness, width, recipe }, plan.shop);
    return {
      size,
      shift,
      edges: edgesFor({ worked, thickness }, plan.shop),
      features,
      solids: solidsOf({ features }, size),
      outline: outlineOf(size, worked.corners),
    };
  }, [worked, thickness, width, recipe, plan.shop, size, shift]);
  const change = (edit: (w: Worked) => Worked, mergeKey?: string) =>
    session.edit((b) => ({ ...b, worked: edit(b.worked) }), mergeKey);
  return {
    worked,
    now,
    change,
    endMerge: () => session.endMerge(),
    /** A feature that the shop's habit put there becomes the board's own when it is changed. */
    setFeature: (feature: Feature, mergeKey?: string) =>
      change(
        (w) => ({
          ...w,
          features: w.features.some((f) => f.id === feature.id)
            ? w.features.map((f) => (f.id === feature.id ? feature : f))
            : [...w.features, feature],
        }),
        mergeKey,
      ),
    removeFeature: (id: string) => change((w) => ({ ...w, features: w.features.filter((f) => f.id !== id) })),
  };
}

/** An id that nothing in a list has. */
export function freshId(list: readonly { id: string }[], prefix: string): string {
  let n = 1;
  while (list.some((one) => one.id === `${prefix}${n}`)) n += 1;
  return `${prefix}${n}`;
}
