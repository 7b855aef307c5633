import { Button, Menu } from '@mantine/core';
import { IconPlus } from '@tabler/icons-react';
import { withBack } from '#core/board/backs.ts';
import { accentOf, USUAL, withSlices } from '#core/board/looks.ts';
import { stripsOf, type Recipe } from '#core/board/recipe.ts';
import { noStackBecause } from '#core/board/stacks.ts';
import { fromPanelsThatFit } from '#core/plan/panelsThatFit.ts';
import { useOpenBoard } from '../../data/openBoard.tsx';
import { useDisplay } from '../../quantities/display.tsx';
import type { RecutStage } from './recut/stage.ts';
import { useFrames } from './recut/useFrames.ts';
import { useInserts } from './recut/useInserts.ts';
import { useStacks } from './recut/useStacks.ts';

const has = (recipe: Recipe, kind: Recipe[number]['kind']): boolean => recipe.some((o) => o.kind === kind);

const NO_STACK = { sliced: ': not into slices', narrow: ': between two strips at least' } as const;

/** One more operation for the recipe: what is done with the panel, with what it is then, or round it. */
export function AddOperation({ onStage }: { onStage(stage: RecutStage): void }) {
  const { board, input, session } = useOpenBoard();
  const { display } = useDisplay();
  const inserts = useInserts();
  const frames = useFrames();
  const stacks = useStacks();
  const { recipe } = board;
  const { back } = USUAL[display.system];
  const sliced = has(recipe, 'slice');
  const putIn = has(recipe, 'insert');
  const none = stripsOf(board).length === 0;
  const stacked = has(recipe, 'stack');
  const noStack = noStackBecause(board);
  return (
    <Menu position="bottom-end" withinPortal>
      <Menu.Target>
        <Button size="compact-xs" variant="subtle" leftSection={<IconPlus size={15} />} disabled={none}>
          Cut and glue again
        </Button>
      </Menu.Target>
      <Menu.Dropdown>
        <Menu.Item
          disabled={noStack !== null}
          onClick={() => {
            stacks.add();
            onStage('bits');
          }}
        >
          Lay accents of stacked bits in{noStack !== null && NO_STACK[noStack]}
        </Menu.Item>
        <Menu.Item
          disabled={sliced}
          onClick={() => {
            inserts.add(undefined);
            onStage('parts');
          }}
        >
          Saw through, put a strip in{sliced && ': not into slices'}
        </Menu.Item>
        <Menu.Item
          disabled={sliced || putIn || stacked}
          onClick={() => {
            session.edit((b) => fromPanelsThatFit(input, withSlices(b, display.system)));
            onStage('slices');
          }}
        >
          Saw into slices, turn them up
          {putIn
            ? ': not what strips were put into'
            : stacked
              ? ': not with accents of bits'
              : sliced && ': done already'}
        </Menu.Item>
        <Menu.Item
          onClick={() => {
            frames.add(undefined);
            onStage('frame');
          }}
        >
          Glue a frame round it
        </Menu.Item>
        <Menu.Item
          disabled={has(recipe, 'back')}
          onClick={() => {
            session.edit((b) =>
              withBack(b, input.shop, { species: accentOf(b), runs: 'along', thickness: back }, display.system),
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
