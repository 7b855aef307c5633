import { useQuery } from '@tanstack/react-query';
import { Navigate } from 'react-router';
import { api } from '../../data/api.ts';
import { keys } from '../../data/queryClient.ts';
import { BoardsPlace } from '../boards/BoardsPlace.tsx';

/** The page that opens first: the work of today once there is any, all boards before. */
export function StartPlace() {
  const { data, isPending } = useQuery({ queryKey: keys.schedule, queryFn: api.schedule, retry: false });
  if (isPending) return null;
  return data && data.boards.length > 0 ? <Navigate to="/today" replace /> : <BoardsPlace />;
}
