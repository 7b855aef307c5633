import { Button, Menu } from '@mantine/core';
import { IconPlus } from '@tabler/icons-react';
import { withBack } from '#core/board/backs.ts';
import { ringOf, withFrame } from '#core/board/frames.ts';
import { withInsert } from '#core/board/inserts.ts';
import { accentOf, USUAL_FRAME_MM, USUAL_ROW, withSlices } from '#core/board/looks.ts';
import { stripsOf, type Recipe } from '#core/board/recipe.ts';
import { fieldOf } from '#core/board/again.ts';
import { fromPanelsThatFit } from '#core/plan/panelsThatFit.ts';
import { useOpenBoard } from '../../data/openBoard.tsx';
import { useDisplay } from '../../quantities/display.tsx';
import type { RecutStage } from './recut/stage.ts';

/** A band begins as wide as this, mm. */
const NEW_BAND_MM = 20;
/** And a back is as thick, mm: a quarter inch (common practice). */
const NEW_BACK_MM = 6.35;
const has = (recipe: Recipe, kind: Recipe[number]['kind']): boolean => recipe.some((o) => o.kind === kind);

/** One more operation for the recipe: what is done with the panel, with what it is then, or round it. */
export function AddOperation({ onStage }: { onStage(stage: RecutStage): void }) {
  const { board, input, session } = useOpenBoard();
  const { display } = useDisplay();
  const { recipe } = board;
  const sliced = has(recipe, 'slice');
  const putIn = has(recipe, 'insert');
  const none = stripsOf(board).length === 0;
  return (
    <Menu position="bottom-end" withinPortal>
      <Menu.Target>
        <Button size="compact-xs" variant="subtle" leftSection={<IconPlus size={15} />} disabled={none}>
          Cut and glue again
        </Button>
      </Menu.Target>
      <Menu.Dropdown>
        <Menu.Item
          disabled={sliced}
          onClick={() => {
            session.edit((b) =>
              withInsert(b, {
                species: accentOf(b),
                width: NEW_BAND_MM,
                at: fieldOf(b, input.shop).length / 2,
                angle: 0,
                jog: 0,
              }),
            );
            onStage('parts');
          }}
        >
          Saw through, put a strip in{sliced && ': not into slices'}
        </Menu.Item>
        <Menu.Item
          disabled={sliced || putIn}
          onClick={() => {
            session.edit((b) => fromPanelsThatFit(input, withSlices(b, USUAL_ROW[display.system])));
            onStage('slices');
          }}
        >
          Saw into slices, turn them up{putIn ? ': not what strips were put into' : sliced && ': done already'}
        </Menu.Item>
        <Menu.Item
          onClick={() => {
            session.edit((b) => withFrame(b, ringOf(accentOf(b), USUAL_FRAME_MM)));
            onStage('frame');
          }}
        >
          Glue a frame round it
        </Menu.Item>
        <Menu.Item
          disabled={has(recipe, 'back')}
          onClick={() => {
            session.edit((b) =>
              withBack(b, input.shop, { species: accentOf(b), runs: 'along', thickness: NEW_BACK_MM }),
            );
            onStage('back');
          }}
        >
          Glue a back under it{has(recipe, 'back') && ': done already'}
        </Menu.Item>
      </Menu.Dropdown>
    </Menu>
  );
}
