import { ActionIcon, Button, Select } from '@mantine/core';
import { IconArrowDown, IconArrowUp, IconTrash } from '@tabler/icons-react';
import { Link } from 'react-router';
import { bathFor, lieTogether } from '#core/finish/bath.ts';
import { finishesOf } from '#core/finish/coats.ts';
import { tellGrams } from '#core/finish/surfaces.ts';
import type { Coating } from '#core/finish/finishPlan.ts';
import { finishCost } from '#core/money/cost.ts';
import { finishUses } from '#core/money/uses.ts';
import { figurePath } from '../../habits/figurePath.ts';
import { useAllBoards } from '../../data/queries.ts';
import { moneyWords } from '../../quantities/moneyWords.ts';
import { useSettledBoard } from '../../data/openBoard.tsx';
import classes from './FinishPlace.module.css';
import { Length } from '../../quantities/Length.tsx';

/** More finishes over each other nobody puts on. */
const MOST = 4;

/** What goes on the board, in order: as the shop's ways of working have it, or as this board wants it. */
export function FinishCoats() {
  const { board, plan, session } = useSettledBoard();
  const { coatings } = plan.finish;
  const { finishes } = plan.shop;
  const ids = coatings.map((c) => c.finish.id);
  // From the board as it is now: pressed twice quickly both count.
  const change = (of: (ids: readonly string[]) => string[]) =>
    session.edit((b) => ({ ...b, finish: of(b.finish ?? finishesOf(b, plan.shop).map((f) => f.id)) }));
  const shift = (id: string, by: number) =>
    change((now) => {
      const at = now.indexOf(id);
      const next = now.filter((o) => o !== id);
      next.splice(Math.max(0, at + by), 0, id);
      return next;
    });
  const more = finishes.filter((f) => !ids.includes(f.id));
  return (
    <section>
      <h2>What goes on it</h2>
      <p className={classes.soft}>
        {board.finish === null ? (
          <>
            As the shop does it: <Link to={figurePath('ways', 'Oil')}>Oil and Top coat</Link>. Change it here for this
            board alone.
          </>
        ) : (
          <>
            For this board alone.{' '}
            <Button size="compact-sm" variant="default" onClick={() => session.edit((b) => ({ ...b, finish: null }))}>
              As the shop does it
            </Button>
          </>
        )}
      </p>
      {coatings.length === 0 && <p>Bare wood: nothing goes on it.</p>}
      <ol className={classes.coats}>
        {coatings.map((coating, i) => (
          <li key={coating.finish.id}>
            <div className={classes.coatHead}>
              <b>{coating.finish.name}</b>
              {coating.finish.coats > 1 && `${coating.finish.coats} coats`}
              <span>
                <ActionIcon
                  variant="default"
                  aria-label={`${coating.finish.name} earlier`}
                  disabled={i === 0}
                  onClick={() => shift(coating.finish.id, -1)}
                >
                  <IconArrowUp size={16} />
                </ActionIcon>
                <ActionIcon
                  variant="default"
                  aria-label={`${coating.finish.name} later`}
                  disabled={i === coatings.length - 1}
                  onClick={() => shift(coating.finish.id, 1)}
                >
                  <IconArrowDown size={16} />
                </ActionIcon>
                <ActionIcon
                  variant="default"
                  aria-label={`Leave ${coating.finish.name} out`}
                  onClick={() => change((now) => now.filter((id) => id !== coating.finish.id))}
                >
                  <IconTrash size={16} />
                </ActionIcon>
              </span>
            </div>
            <CoatFigures coating={coating} />
          </li>
        ))}
      </ol>
      {ids.length < MOST && more.length > 0 && (
        <Select
          size="sm"
          maw={320}
          aria-label="Put another finish over it"
          placeholder="Put another finish over it"
          value={null}
          data={more.map((f) => ({ value: f.id, label: f.name }))}
          onChange={(id) => id && change((now) => [...now.filter((o) => o !== id), id].slice(-MOST))}
        />
      )}
    </section>
  );
}

/** How much of it, on what, and from where. */
function CoatFigures({ coating }: { coating: Coating }) {
  const { finish, amount } = coating;
  const { board, plan } = useSettledBoard();
  const { currency } = plan.shop;
  const cost = finishCost(finishUses([coating], board.count), plan.shop, currency);
  const all = amount.total * board.count;
  const ml = all / finish.density;
  const [l, w, t] = plan.wood?.board.size ?? [0, 0, 0];
  const size = plan.worked.size;
  const bath =
    finish.method === 'bath' && plan.shop.bath ? bathFor(plan.shop.bath, size, l * w * t, board.count) : undefined;
  return (
    <>
      <p className={classes.amount}>
        About <b>{tellGrams(all)} g</b> ({Math.round(ml)} ml)
        {board.count > 1 && `, ${tellGrams(amount.total)} g a board`}: faces {tellGrams(amount.faces * board.count)},
        edges {tellGrams(amount.edges * board.count)}, ends {tellGrams(amount.ends * board.count)} g
        {amount.intoEndGrain > 0.005 &&
          `; ${Math.round((100 * amount.intoEndGrain) / amount.total)} % of it into end grain`}
        .{cost.rows.length > 0 && ` It costs ${moneyWords(cost.amount, currency)}.`}
      </p>
      {finish.shelfMl !== null && finish.shelfMl < ml && (
        <p className={classes.bad}>
          The shelf has {Math.round(finish.shelfMl)} ml: {Math.ceil(ml - finish.shelfMl)} ml are missing.
        </p>
      )}
      {finish.method === 'bath' && plan.shop.bath === null && (
        <p>
          How many litres it takes follows from the tray:{' '}
          <Link to={figurePath('finishes', 'A tray for soaking')}>enter yours</Link>.
        </p>
      )}
      {bath === null && (
        <p className={classes.bad}>The board does not go into the tray, lying or standing: flood it.</p>
      )}
      {bath && (
        <p className={classes.amount}>
          In the tray {bath.how}, {bath.atOnce} at a time{bath.times > 1 && `, ${bath.times} times`}:{' '}
          <b>{bath.litres.toFixed(1)} l</b> cover them, <Length mm={bath.depth} /> deep; {finish.soakMinutes} min a
          side, then on edge over it, {bath.atOnce === 1 ? 'one place' : `${bath.atOnce} places`} to drip. About{' '}
          {Math.max(0, bath.litres - ml / 1000).toFixed(1)} l go back into the can.
        </p>
      )}
      {bath && bath.how === 'lying' && <Together />}
      <p className={classes.soft}>
        {finish.food !== '' && `${finish.food}. `}
        {finish.source}; weigh a board before and after to know yours.
      </p>
    </>
  );
}

/** Other boards of the shop that would lie in the tray beside those of this batch. */
function Together() {
  const { id, board, plan } = useSettledBoard();
  const boards = useAllBoards();
  const { bath } = plan.shop;
  if (!bath) return null;
  const own = Array.from({ length: board.count }, () => plan.worked.size);
  const others = (boards.data ?? []).filter(
    (b) => b.id !== id && lieTogether(bath, [...own, ...Array.from({ length: b.board.count }, () => b.board)]),
  );
  return others.length === 0 ? null : (
    <p className={classes.soft}>
      Beside {board.count === 1 ? 'it' : 'them'} would lie: {others.map((b) => b.board.name).join('; ')}.
    </p>
  );
}
