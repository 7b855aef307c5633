import { firstOf } from '#core/lists/there.ts';
import { orderChoices } from '#core/plan/orderChoices.ts';
import type { MillingOrder, OrderOutcome } from '#core/cutting/millingOrder.ts';
import { useSettledBoard } from '../../data/openBoard.tsx';
import { HabitButton, SchoolButton } from '../../habits/HabitButton.tsx';
import { Length } from '../../quantities/Length.tsx';
import { Scrolled } from '../../shell/Scrolled.tsx';
import classes from '../../planning/figureTable.module.css';

const WORDS: Record<MillingOrder, string> = {
  crosscutFirst: 'Crosscut first',
  ripFirst: 'Crosscut and rip first',
  fullLength: 'Full length first',
};
const FORBIDDEN: Record<NonNullable<OrderOutcome['forbidden']>, string> = {
  tooShort: 'too short',
  tooNarrow: 'too narrow',
  tooWide: 'too wide',
  noBandSaw: 'no band saw',
  tapers: 'it tapers',
};

/** What each order leaves of each piece in use, and which is taken. */
export function OrderTable() {
  const { plan, input } = useSettledBoard();
  const choices = orderChoices(plan, input);
  if (choices.length === 0) return <p className={classes.note}>No piece of the rack is in use yet.</p>;
  const orders = firstOf(choices).outcomes.map((o) => o.order);
  return (
    <>
      <Scrolled name="Thickness lost to flattening">
        <table className={classes.table}>
          <caption>Thickness lost to flattening, a part at its own size</caption>
          <thead>
            <tr>
              <th>Piece</th>
              {orders.map((o) => (
                <th key={o}>{WORDS[o]}</th>
              ))}
            </tr>
          </thead>
          <tbody>
            {choices.map(({ piece, taken, outcomes }) => (
              <tr key={piece.id}>
                <th scope="row">{piece.mark}</th>
                {outcomes.map((o) => (
                  <td key={o.order} data-taken={o.order === taken || undefined}>
                    <Length mm={o.loss.total} />
                    {o.order === taken ? ' taken' : o.forbidden ? `, ${FORBIDDEN[o.forbidden]}` : ''}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </Scrolled>
      <p className={classes.note}>
        Crosscut first, unless another order that the machines allow leaves at least a millimetre more.
      </p>
      <p className={classes.chips}>
        <SchoolButton question="rip" /> {plan.shop.schools.rip === 'fat' && <HabitButton habit="ripFat" />}{' '}
        <HabitButton habit="flattenRough" />
      </p>
    </>
  );
}
