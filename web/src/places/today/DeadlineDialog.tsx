import { Button, Modal } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { BoardInWork } from '#contract/schedule.ts';
import { boardWith, rescuesFor, shopWith, type Rescue, type RescueChange } from '#core/propose/rescue.ts';
import { sawStateFor } from '#core/saw/sawBook.ts';
import { api } from '../../data/api.ts';
import { boardQuery } from '../../data/queries.ts';
import { keys, queryClient } from '../../data/queryClient.ts';
import { durationWords } from '../../quantities/duration.ts';
import { momentWords } from '../../scheduling/momentWords.ts';
import { decideWork, putOff, type ShopSchedule } from '../../scheduling/useShopSchedule.ts';
import { showProblem, showWord } from '../../shell/notices.tsx';
import classes from './TodayPlace.module.css';

interface DeadlineDialogProps {
  data: ShopSchedule;
  board: BoardInWork;
  onClose(): void;
}

/** Everything a plan of the board is made from, and the ways that save its day. */
async function waysFor({ work, problem }: ShopSchedule, { id }: BoardInWork): Promise<Rescue[]> {
  const [stored, rack, species, book] = await Promise.all([
    queryClient.fetchQuery(boardQuery(id)),
    api.rack(),
    api.species(),
    api.saw([id]),
  ]);
  return rescuesFor({
    board: id,
    input: {
      board: stored.board,
      rack: rack.map((p) => p.piece),
      shop: work.shop,
      species,
      saw: sawStateFor(book, id),
      facts: stored.facts,
    },
    boards: work.boards.map((b) => ({ work: b.work, due: b.due })),
    shop: work.shop,
    zone: work.zone,
    from: problem.from,
    order: work.schedule.order,
  });
}

/** Can it be done? The least changes that would do it, each with its figure, taken by one press. */
export function DeadlineDialog({ data, board, onClose }: DeadlineDialogProps) {
  const { work, problem } = data;
  const ways = useQuery({
    queryKey: ['rescues', board.id, work.version, board.revision, problem.from],
    queryFn: () => waysFor(data, board),
    staleTime: Infinity,
  });
  const [busy, setBusy] = useState(false);
  const words = momentWords(work.zone, problem.from);
  const names = new Map(work.boards.map((b) => [b.id, b.work.name]));
  const due = problem.dues.get(board.id);
  const take = async (rescue: Rescue) => {
    setBusy(true);
    try {
      await taken(data, board, rescue.changes);
      showWord('Taken. The plan follows; Undo at the board or in the shop takes it back.');
      onClose();
    } catch (error) {
      showProblem(error);
    } finally {
      setBusy(false);
    }
  };
  return (
    <Modal
      opened
      onClose={onClose}
      size="lg"
      title={`Can ${board.work.name} be done${due ? ` by ${words.due(due.at)}` : ''}?`}
    >
      {ways.isPending && <p role="status">Trying finishes, glues, clamps and evenings …</p>}
      {ways.error && <p className={classes.bad}>{ways.error.message}</p>}
      {ways.data?.length === 0 && (
        <p>Not by any change that Cadenza knows of. A later day, or a board like it from the rack, is what is left.</p>
      )}
      <ul className={classes.due}>
        {ways.data?.map((rescue) => (
          <li key={JSON.stringify(rescue.changes)} data-late={rescue.late > 0 || undefined}>
            <p>
              {rescue.changes.map((c) => changeWords(c, data)).join(', and ')}
              <span>
                {rescue.late <= 0
                  ? `${durationWords(-rescue.late)} to spare`
                  : `still ${durationWords(rescue.late)} late`}
              </span>
            </p>
            <p className={classes.soft}>
              Dry {words.moment(rescue.times.handled)}
              {rescue.times.used > rescue.times.handled + 1 && `, usable ${words.moment(rescue.times.used)}`}
              {rescue.makesLate.length > 0 &&
                `; then late: ${rescue.makesLate.map((id) => names.get(id) ?? '').join(', ')}`}
            </p>
            <p className={classes.buttons}>
              <Button
                size="xs"
                variant={rescue.late <= 0 ? 'filled' : 'default'}
                disabled={busy}
                onClick={() => void take(rescue)}
              >
                Take this
              </Button>
            </p>
          </li>
        ))}
      </ul>
    </Modal>
  );
}

/** A change as a maker would say it. */
function changeWords(change: RescueChange, { work }: ShopSchedule): string {
  switch (change.what) {
    case 'finish':
      return `Finish it with ${change.name.toLowerCase()} instead`;
    case 'glue':
      return `Glue it with ${change.name.toLowerCase()}`;
    case 'uncured':
      return 'Give it dry but not hardened, with a note';
    case 'clamps': {
      const clamp = work.shop.clamps.find((c) => c.id === change.clamp);
      return `${change.more} more ${clamp?.kind ?? ''} ${change.more === 1 ? 'clamp' : 'clamps'}, bought or borrowed`;
    }
    case 'evenings': {
      const { length } = change.open;
      const days = change.open.map((o) => o.day).join(', ');
      return `${length === 1 ? 'One evening' : `${length} evenings`} more: ${days}`;
    }
    case 'later':
      return `${change.name} waits`;
  }
}

/** Changes the board, the shop or what waits. @throws ApiProblem */
async function taken({ work }: ShopSchedule, { id }: BoardInWork, changes: readonly RescueChange[]): Promise<void> {
  const stored = await api.board(id);
  const board = changes.reduce(boardWith, stored.board);
  if (JSON.stringify(board) !== JSON.stringify(stored.board))
    await api.saveBoard(id, stored.revision, [{ board, undo: stored.revision, redo: null }]);
  const own = await api.shop();
  const shop = changes.reduce(shopWith, own.shop);
  if (JSON.stringify(shop) !== JSON.stringify(own.shop)) await api.saveShop(own.version, shop);
  const later = changes.flatMap((c) => (c.what === 'later' ? [c.board] : []));
  if (later.length > 0) await decideWork(work, putOff(later));
  await Promise.all([
    queryClient.invalidateQueries({ queryKey: keys.schedule }),
    queryClient.invalidateQueries({ queryKey: keys.boards }),
    queryClient.invalidateQueries({ queryKey: keys.shop }),
    queryClient.invalidateQueries({ queryKey: boardQuery(id).queryKey }),
  ]);
}
