import { useQuery } from '@tanstack/react-query';
import { Navigate } from 'react-router';
import { scheduleQuery } from '../../scheduling/useShopSchedule.ts';
import { BoardsPlace } from '../boards/BoardsPlace.tsx';

/** The page that opens first: the work of today once there is any, all boards before. */
export function StartPlace() {
  const { data, isPending } = useQuery({ ...scheduleQuery, refetchInterval: false, retry: false });
  if (isPending) return null;
  if (data && data.boards.length === 0 && !data.upToDate) return <p role="status">Looking for what is to be done …</p>;
  return data && data.boards.length > 0 ? <Navigate to="/today" replace /> : <BoardsPlace />;
}
