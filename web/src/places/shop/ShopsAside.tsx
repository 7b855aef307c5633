import { certain } from '#core/lists/there.ts';
import { Button } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import type { ShopAside } from '#contract/shop.ts';
import { api } from '../../data/api.ts';
import { useShop } from '../../data/queries.ts';
import { queryClient } from '../../data/queryClient.ts';
import { showProblem, showUndo } from '../../shell/notices.tsx';
import classes from './ShopPlace.module.css';

const KEY = ['shops aside'];
const WHEN = new Intl.DateTimeFormat(undefined, { day: 'numeric', month: 'short', year: 'numeric' });
const some = (count: number, one: string, many: string) => `${count} ${count === 1 ? one : many}`;

/** Another shop: begun here, and those that were set aside whole. */
export function ShopsAside() {
  const aside = useQuery({ queryKey: KEY, queryFn: api.shopsAside });
  const shop = useShop();
  const attempt = async (work: () => Promise<unknown>) => {
    try {
      await work();
    } catch (error) {
      showProblem(error);
      void shop.refetch();
    }
  };
  // Everything on the page belongs to the shop that goes aside: it begins anew.
  const takeUp = (one: ShopAside) =>
    attempt(async () => {
      await api.takeUpShop(one.id, certain(shop.data).version);
      window.location.assign('/boards');
    });
  const keep = () =>
    attempt(async () => {
      await api.keepDemo(certain(shop.data).version);
      await shop.refetch();
    });
  const throwAway = (one: ShopAside) =>
    attempt(async () => {
      queryClient.setQueryData(KEY, await api.throwShopAway(one.id));
      showUndo(
        `“${one.name}” thrown away.`,
        async () => void queryClient.setQueryData(KEY, await api.bringShopBack(one.id)),
      );
    });
  return (
    <div className={classes.aside}>
      <h3>Other shops</h3>
      <p>
        {shop.data?.demo && 'This one is made up, to look around in. '}
        Beginning another sets this one aside whole, with its boards, its rack and its log.
      </p>
      <div className={classes.asideButtons}>
        <Button size="compact-sm" variant="default" component={Link} to="/setup">
          {shop.data?.demo ? 'Set up my own shop' : 'Set up another shop'}
        </Button>
        {shop.data?.demo && (
          <Button size="compact-sm" variant="default" onClick={() => void keep()}>
            Make this one mine
          </Button>
        )}
      </div>
      <ul>
        {(aside.data ?? []).map((one) => (
          <li key={one.id}>
            <span>
              <b>{one.name}</b>
              {one.demo && ' (made up)'}, {some(one.boards, 'board', 'boards')}, {some(one.pieces, 'piece', 'pieces')},
              {some(one.finished, 'in the log', 'in the log')}; set aside {WHEN.format(new Date(one.setAsideAt))}
            </span>
            <Button size="compact-sm" variant="default" disabled={!shop.data} onClick={() => void takeUp(one)}>
              Take it up again
            </Button>
            <Button size="compact-sm" variant="subtle" color="gray" onClick={() => void throwAway(one)}>
              Throw it away
            </Button>
          </li>
        ))}
      </ul>
    </div>
  );
}
