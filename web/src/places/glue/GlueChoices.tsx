import { Select, Switch } from '@mantine/core';
import { useMemo } from 'react';
import { shopFor } from '#core/board/differences.ts';
import { makePlan } from '#core/plan/plan.ts';
import { glueOf } from '#core/shop/shop.ts';
import { useOpenBoard, useSettledBoard } from '../../data/openBoard.tsx';
import { useGluedStage } from './gluedWords.ts';
import { durationWords } from '../../quantities/duration.ts';
import { Scrolled } from '../../shell/Scrolled.tsx';
import classes from '../../planning/figureTable.module.css';

const OF_SHOP = '';

/** Another glue, or a second pair of hands: what each changes, before it is taken. */
export function GlueChoices() {
  const { board, input, session } = useSettledBoard();
  const { board: whole } = useOpenBoard();
  const { gluing: ofStage } = useGluedStage();
  const options = useMemo(
    () =>
      input.shop.glues.flatMap((glue) =>
        [false, true].map((helper) => {
          const plan = makePlan({
            ...input,
            board: {
              ...whole,
              differs: { ...whole.differs, glue: glue.id },
              gluing: { ...whole.gluing, helper },
            },
          });
          return { glue, helper, gluing: ofStage(plan) };
        }),
      ),
    [input, whole, ofStage],
  );
  const now = glueOf(shopFor(board, input.shop));
  return (
    <>
      <Select
        size="sm"
        label="Glue of this board"
        allowDeselect={false}
        value={board.differs.glue ?? OF_SHOP}
        data={[
          { value: OF_SHOP, label: `As the shop: ${glueOf(input.shop).name}` },
          ...input.shop.glues.map((g) => ({ value: g.id, label: `${g.name}, ${g.class}` })),
        ]}
        onChange={(id) => session.edit((b) => ({ ...b, differs: { ...b.differs, glue: id === OF_SHOP ? null : id } }))}
      />
      <Switch
        mt={8}
        label="A second pair of hands spreads and places"
        checked={board.gluing.helper}
        onChange={(e) => {
          const helper = e.currentTarget.checked;
          session.edit((b) => ({ ...b, gluing: { ...b.gluing, helper } }));
        }}
      />
      <Scrolled name="Glues">
        <table className={classes.table}>
          <thead>
            <tr>
              <th>Glue</th>
              <th>Hands</th>
              <th>At once</th>
              <th>Glue-ups</th>
              <th>In clamps</th>
            </tr>
          </thead>
          <tbody>
            {options.map(({ glue, helper, gluing }) => (
              <tr key={`${glue.id}${helper}`}>
                <th scope="row" data-taken={(glue.id === now.id && helper === board.gluing.helper) || undefined}>
                  {glue.name}
                  {glue.id === now.id && helper === board.gluing.helper && ', taken'}
                </th>
                <td>{helper ? 'two pairs' : 'alone'}</td>
                <td>{gluing.mostParts}</td>
                <td>{gluing.glueUps.length}</td>
                <td>{durationWords(gluing.clampMinutes)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </Scrolled>
      <p className={classes.note}>
        Type II holds where a board is never soaked; Type I because boards do end up in the sink. Classes are what the
        bottle says.
      </p>
    </>
  );
}
