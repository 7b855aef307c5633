import { Radio } from '@mantine/core';
import { QUESTION_IDS, QUESTIONS } from '#core/shop/schools.ts';
import type { Shop } from '#core/shop/shop.ts';
import type { EditShop } from './editShop.ts';
import classes from './ShopPlace.module.css';

/** Questions on which makers differ, with the reason of each school. A board may differ from the shop, at the step where it matters. */
export function SchoolList({ shop, onChange }: { shop: Shop; onChange: EditShop }) {
  return (
    <div className={classes.schools}>
      {QUESTION_IDS.map((q) => (
        <Radio.Group
          key={q}
          label={QUESTIONS[q].asks}
          value={shop.schools[q]}
          onChange={(id) => onChange((s) => ({ ...s, schools: { ...s.schools, [q]: id } }))}
        >
          {QUESTIONS[q].schools.map((s) => (
            <Radio key={s.id} mt={5} size="sm" value={s.id} label={s.name} description={s.why} />
          ))}
        </Radio.Group>
      ))}
    </div>
  );
}
