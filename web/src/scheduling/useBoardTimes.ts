import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { isRunOf } from '#core/gluing/glueRun.ts';
import { workOfPlan } from '#core/plan/boardWork.ts';
import { glueUpsOf } from '#core/plan/trimAgain.ts';
import { timesOfBoard, type BoardTimes } from '#core/schedule/oneBoard.ts';
import { useSettledBoard } from '../data/openBoard.tsx';
import { useRuns } from '../data/useRuns.ts';
import { useClock } from '../quantities/useClock.ts';
import { zoneOf } from '../quantities/zone.ts';
import { scheduleQuery } from './useShopSchedule.ts';

const MINUTE_MS = 60_000;

/** When the steps of the open board are done, in the shop's work where it is taken up, else as if it were alone. */
export interface OpenBoardTimes extends BoardTimes {
  zone: string;
  /** It is in work: its steps lie among those of the other boards. */
  inShop: boolean;
  /** Milliseconds since 1970. */
  now: number;
}

/** The same dates on Glue, Finish and the care card as on Today and in the calendar: all of them are those of one schedule. */
export function useBoardTimes(): OpenBoardTimes {
  const { id, plan, input } = useSettledBoard();
  const now = useClock(MINUTE_MS);
  const { data: work } = useQuery({ ...scheduleQuery, retry: false });
  const {
    query: { data: clocks },
  } = useRuns(id);
  return useMemo(() => {
    const glueUps = glueUpsOf(plan);
    const running = (clocks?.runs ?? []).flatMap((stored) => {
      const planned = glueUps.find((g) => isRunOf(stored, g));
      if (!planned || stored.endedAt !== null) return [];
      const from = Date.parse(stored.startedAt) / MINUTE_MS;
      return [{ glueUp: planned.id, copy: stored.copy, from, until: from + stored.run.due.outOfClamps }];
    });
    const own = { work: workOfPlan(id, input, plan, running), due: input.board.due };
    const inShop = work?.boards.some((b) => b.id === id) ?? false;
    const zone = work?.zone ?? zoneOf(input.shop);
    const times =
      work && inShop
        ? timesOfBoard(
            own,
            { boards: work.boards, order: work.schedule.order },
            work.shop,
            zone,
            Math.floor(Date.parse(work.now) / MINUTE_MS),
          )
        : timesOfBoard(own, null, input.shop, zone, Math.floor(now / MINUTE_MS));
    return { ...times, zone, inShop, now };
  }, [id, plan, input, work, clocks, now]);
}
