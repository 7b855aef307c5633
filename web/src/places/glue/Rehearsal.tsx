import { Checkbox, Stack } from '@mantine/core';
import { useState } from 'react';
import type { GlueUp } from '#core/gluing/glueUps.ts';
import { glueOf } from '#core/shop/shop.ts';
import { amount, formatQuantity } from '#core/units/quantity.ts';
import { useDisplay } from '../../quantities/display.tsx';
import { useGluedStage } from './gluedWords.ts';
import { useSettledBoard } from '../../data/openBoard.tsx';
import classes from './GluePlace.module.css';
import { stripsOf } from '#core/board/recipe.ts';
import { woodsOf } from '#core/board/accents.ts';

/** What is ready before the first glue; ticks are for now only. */
export function Rehearsal({ glueUp }: { glueUp: GlueUp }) {
  const { board, plan, input, numbersFrom = 0 } = useSettledBoard();
  const { display } = useDisplay();
  const [ticked, setTicked] = useState<ReadonlySet<string>>(new Set());
  const { clamps } = glueUp;
  const { many } = useGluedStage();
  const oily = stripsOf(board)
    .slice(glueUp.firstStrip - 1, glueUp.lastStrip)
    .flatMap((s) => woodsOf(board, s))
    .some((code) => input.species.find((w) => w.code === code)?.oily);
  const items = [
    `${many} ${numbersFrom + glueUp.firstStrip} to ${numbersFrom + glueUp.lastStrip} in order, triangle whole, best side up`,
    `${clamps.wanted} clamps opened to the width, ${Math.ceil(clamps.wanted / 2)} lying below, the others at hand`,
    `${2 * clamps.placed.length} pads`,
    ...(clamps.cauls.length > 0
      ? [`${2 * clamps.cauls.length} cauls, taped where they cross a joint, none in the way of a clamp`]
      : []),
    'All joints close dry, without force',
    `${formatQuantity(amount(Math.ceil(glueUp.grams)), display)} of ${glueOf(plan.shop).name.toLowerCase()}, roller or card, a wet rag`,
    ...(oily ? ['Acetone, gloves, air moving: oily faces are wiped 5 min before glue'] : []),
    ...(glueUp.parts > 8 ? ['Somebody to help'] : []),
    'The clock below at hand',
  ];
  return (
    <Stack gap={6}>
      {items.map((item) => (
        <Checkbox
          key={item}
          label={item}
          checked={ticked.has(item)}
          onChange={(e) => {
            const on = e.currentTarget.checked;
            setTicked((old) => new Set(on ? [...old, item] : [...old].filter((o) => o !== item)));
          }}
        />
      ))}
      {ticked.size === items.length && (
        <p className={classes.note} role="status">
          All is ready.
        </p>
      )}
    </Stack>
  );
}
