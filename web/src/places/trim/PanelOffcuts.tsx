import { firstOf } from '#core/lists/there.ts';
import { Button } from '@mantine/core';
import { useState } from 'react';
import { PLAIN_CONDITION, type PieceFields } from '#core/stock/piece.ts';
import { api } from '../../data/api.ts';
import { useSettledBoard } from '../../data/openBoard.tsx';
import { keys, queryClient } from '../../data/queryClient.ts';
import { Length } from '../../quantities/Length.tsx';
import { showProblem } from '../../shell/notices.tsx';
import { nextMark } from '#core/stock/marks.ts';
import classes from './SpotList.module.css';
import { stripsOf } from '#core/board/recipe.ts';

/** The note of such a piece: by it the rack is asked whether one is there already. */
const NOTE = 'Glued panel';

/** What is left of the panel and long enough to keep: of one species it goes into the rack as a piece; strips cannot be ripped from a mixed one, so that becomes a board of its own or nothing. */
export function PanelOffcuts({ lengths }: { lengths: readonly number[] }) {
  const { board, plan, input } = useSettledBoard();
  const [busy, setBusy] = useState(false);
  if (lengths.length === 0) return null;
  const species = new Set(stripsOf(board).map((s) => s.species));
  const inRack = (length: number) =>
    input.rack.find((p) => p.origin.of === board.name && p.note === NOTE && Math.abs(p.length - length) < 0.5);
  const keep = async (length: number) => {
    const piece: PieceFields = {
      ...PLAIN_CONDITION,
      defects: [],
      mark: nextMark('G1', new Set(input.rack.map((p) => p.mark.toLowerCase()))),
      species: firstOf(stripsOf(board)).species,
      length: Math.round(length * 10) / 10,
      width: Math.round(plan.panelWidth * 10) / 10,
      thickness: Math.round((plan.worked.size.thickness + plan.shop.habits.sanding) * 10) / 10,
      surface: 'twoFaces',
      origin: { kind: 'offcut', of: board.name },
      note: NOTE,
    };
    setBusy(true);
    try {
      await api.addPieces([piece], []);
      await queryClient.invalidateQueries({ queryKey: keys.rack });
    } catch (error) {
      showProblem(error);
    } finally {
      setBusy(false);
    }
  };
  return (
    <p className={classes.head}>
      <b>Left of the panel</b>
      {lengths.map((length, i) => {
        const there = inRack(length);
        return (
          <span key={i}>
            {' '}
            <Length mm={length} />{' '}
            {there ? (
              <>in the rack as {there.mark}</>
            ) : species.size > 1 ? (
              <>of several species: add another board for it</>
            ) : (
              <Button size="compact-xs" variant="default" loading={busy} onClick={() => void keep(length)}>
                Into the rack
              </Button>
            )}
          </span>
        );
      })}
    </p>
  );
}
