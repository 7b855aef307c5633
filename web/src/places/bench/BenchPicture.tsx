import { useQuery } from '@tanstack/react-query';
import { api } from '../../data/api.ts';
import { heldPicture } from '../../data/pictures.ts';
import classes from './bench.module.css';

/** So often a picture that is not there yet is asked for. */
const UNTIL_IT_COMES_MS = 3000;

/** A picture that was taken at the bench, here or on another device. */
export function BenchPicture({ board, picture }: { board: string; picture: string }) {
  const { data, isError } = useQuery({
    queryKey: ['picture', board, picture],
    queryFn: () => heldPicture(board, picture) ?? api.picture(board, picture),
    staleTime: Infinity,
    retry: false,
    // What it is named by is sent first and is small: the picture itself may come long after it.
    refetchInterval: ({ state }) => (state.data ? false : UNTIL_IT_COMES_MS),
  });
  if (isError) return <span>A picture that has not arrived yet</span>;
  return data ? (
    <img className={classes.picture} src={`data:${data.type};base64,${data.data}`} alt="Taken at the bench" />
  ) : (
    <span>A picture</span>
  );
}
