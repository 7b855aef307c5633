import { useMemo, type ReactNode } from 'react';
import type { Board } from '#core/board/board.ts';
import { asPanelSees, fromPanel } from '#core/board/panels.ts';
import { stripsOf } from '#core/board/recipe.ts';
import { LiveAs, useOpenBoard, useSettledBoard, type OpenBoard } from '../../data/openBoard.tsx';

/** Shows what is inside one of several panels that rows come from in turn, as if it were the first: hands lay its strips as those of any board. @param panel from 0 */
export function PanelLens({ panel, children }: { panel: number; children: ReactNode }) {
  const live = useOpenBoard();
  const settled = useSettledBoard();
  const seen = useMemo(() => seenBy(live, panel), [live, panel]);
  const seenSettled = useMemo(() => seenBy(settled, panel), [settled, panel]);
  return panel === 0 ? (
    children
  ) : (
    <LiveAs open={seen} settled={seenSettled}>
      {children}
    </LiveAs>
  );
}

function seenBy(open: OpenBoard, panel: number): OpenBoard {
  const { again } = open.plan;
  const other = again?.otherPanels[panel - 1];
  if (!again || !other) return open;
  const board = asPanelSees(open.board, panel);
  // While hands move, the plan is of a moment ago.
  const own = new Set(stripsOf(other.board).map((s) => s.id));
  const session = new Proxy(open.session, {
    get(target, name) {
      if (name === 'edit')
        return (change: (b: Board) => Board, mergeKey?: string) =>
          target.edit((b) => fromPanel(change(asPanelSees(b, panel)), panel), mergeKey);
      if (name === 'snapshot')
        return () => {
          const state = target.snapshot();
          return { ...state, board: asPanelSees(state.board, panel) };
        };
      const value: unknown = Reflect.get(target, name, target);
      return typeof value === 'function' ? (value.bind(target) as unknown) : value;
    },
  });
  return {
    ...open,
    board,
    session,
    input: { ...open.input, board },
    numbersFrom: other.before.strips,
    panel,
    plan: {
      ...open.plan,
      strips: open.plan.strips.filter((s) => own.has(s.id)),
      bodies: other.bodies,
      allowances: { ...other.allowances, wantedPanelWidth: open.plan.allowances.wantedPanelWidth },
      gluing: other.gluing,
      panelWidth: other.trim.width,
      again: { ...again, board: other.board },
    },
  };
}
