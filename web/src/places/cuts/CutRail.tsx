import { Button, NumberInput, Switch } from '@mantine/core';
import type { ReactNode } from 'react';
import type { CutSheet } from '#core/cutting/cutSheet.ts';
import { sawSettings } from '#core/steps/sawSettings.ts';
import { useSettledBoard } from '../../data/openBoard.tsx';
import { Length } from '../../quantities/Length.tsx';
import classes from './cuts.module.css';
import type { Cuts } from './useCuts.ts';
import { money } from './words.ts';
import { cutStripsOf, stripsOf } from '#core/board/recipe.ts';

/** Beside the drawing: what the plan costs and why, saw settings, and the wishes that shape it. */
export function CutRail({ cuts, sheets, together }: { cuts: Cuts; sheets: readonly CutSheet[]; together: ReactNode }) {
  const {
    board,
    session,
    plan,
    input: { shop, rack },
  } = useSettledBoard();
  const { score } = cuts.plan;
  const { currency } = shop;
  const wishes = board.cutting;
  const edit = (words: string, change: (c: typeof wishes) => typeof wishes) => {
    cuts.announce(words);
    session.edit((b) => ({ ...b, cutting: change(b.cutting) }));
  };
  const numberOf = (stripId: string) => cutStripsOf(board).findIndex((s) => s.id === stripId) + 1;
  const pins = wishes.pins.filter((p) => numberOf(p.strip) > 0);
  const bans = wishes.bans.flatMap((id) => rack.find((p) => p.id === id) ?? []);
  const groups = wishes.together.map((ids) => ids.map(numberOf).filter((n) => n > 0)).filter((g) => g.length > 1);
  return (
    <aside className={classes.rail} aria-label="About the cut plan">
      <section>
        <h3>What it costs</h3>
        <table>
          <tbody>
            <tr>
              <td>Wood used up</td>
              <td>{money(score.wood, currency)}</td>
            </tr>
            <tr>
              <td>
                {sheets.length} {sheets.length === 1 ? 'piece' : 'pieces'} to fetch and set up
              </td>
              <td>{money(score.pieces, currency)}</td>
            </tr>
            <tr>
              <td>Cutting into bought planks</td>
              <td>{money(score.planks, currency)}</td>
            </tr>
            <tr>
              <td>Carrying leftovers back</td>
              <td>{money(score.leftovers, currency)}</td>
            </tr>
            <tr>
              <td>Together</td>
              <td>{money(score.total, currency)}</td>
            </tr>
          </tbody>
        </table>
        <p className={classes.soft}>
          The last three are the shop&apos;s habits: what you would pay to avoid the trouble.
        </p>
      </section>
      <section>
        <h3>Saw settings</h3>
        <ul className={classes.settings}>
          {sawSettings(plan.operations).map(({ label, tool, value, parts }) => (
            <li key={`${label}${tool}${value.mm}`}>
              {label}{' '}
              <b>
                <Length mm={value.mm} rounding={value.rounding} />
              </b>
              <span>{parts.map((p) => `${p.label}${p.count > 1 ? ` × ${p.count}` : ''}`).join(', ')}</span>
            </li>
          ))}
        </ul>
        {cuts.together.length > 1 && (
          <p className={classes.soft}>Of this board; those of the others stand in their own Cuts.</p>
        )}
        <p className={classes.soft}>
          Equal settings are cut together. Guards on, push stick at hand, no cut-off between blade and fence; the
          machine&apos;s manual comes first.
        </p>
      </section>
      <section>
        <h3>Wishes</h3>
        {together}
        <Switch
          mt={10}
          label="Sections may lie either way round in the stock"
          checked={wishes.eitherWay}
          onChange={(e) =>
            edit(e.currentTarget.checked ? 'Either way round' : 'Only the usual way round', (c) => ({
              ...c,
              eitherWay: !c.eitherWay,
            }))
          }
        />
        <NumberInput
          mt={10}
          label="Spares of every kind of strip"
          description={`Strips up to ${shop.cutting.spareBelow} mm get ${shop.cutting.spares} more by the shop's habit`}
          min={0}
          max={10}
          allowDecimal={false}
          clampBehavior="strict"
          value={wishes.spares}
          onChange={(n) =>
            typeof n === 'number' &&
            n !== wishes.spares &&
            edit(`${n} ${n === 1 ? 'spare' : 'spares'} of each`, (c) => ({ ...c, spares: n }))
          }
        />
        {pins.length + bans.length + groups.length > 0 && (
          <ul className={classes.settings}>
            {pins.map((p) => (
              <li key={p.strip}>
                Strip {numberOf(p.strip)} from {rack.find((r) => r.id === p.piece)?.mark ?? 'a piece that is gone'}{' '}
                <Button
                  size="compact-xs"
                  variant="subtle"
                  onClick={() =>
                    edit(`Strip ${numberOf(p.strip)} from any piece`, (c) => ({
                      ...c,
                      pins: c.pins.filter((x) => x.strip !== p.strip),
                    }))
                  }
                >
                  Any piece
                </Button>
              </li>
            ))}
            {bans.map((p) => (
              <li key={p.id}>
                Leave {p.mark} alone{' '}
                <Button
                  size="compact-xs"
                  variant="subtle"
                  onClick={() =>
                    edit(`With ${p.mark} again`, (c) => ({ ...c, bans: c.bans.filter((x) => x !== p.id) }))
                  }
                >
                  Allow
                </Button>
              </li>
            ))}
            {groups.map((g) => (
              <li key={g.join()}>
                Strips {g.join(', ')} from one blank{' '}
                <Button
                  size="compact-xs"
                  variant="subtle"
                  onClick={() =>
                    edit(`Strips ${g.join(', ')} apart`, (c) => ({
                      ...c,
                      together: c.together.filter((ids) => ids.map(numberOf).join() !== g.join()),
                    }))
                  }
                >
                  Let go
                </Button>
              </li>
            ))}
          </ul>
        )}
        <TogetherWish
          onWish={(from, to) =>
            edit(`Strips ${from} to ${to} from one blank`, (c) => {
              const ids = stripsOf(board)
                .slice(from - 1, to)
                .map((s) => s.id);
              return { ...c, together: [...c.together.filter((g) => !g.some((id) => ids.includes(id))), ids] };
            })
          }
          count={stripsOf(board).length}
          sameSpecies={(from, to) =>
            new Set(
              stripsOf(board)
                .slice(from - 1, to)
                .map((s) => s.species),
            ).size === 1
          }
        />
      </section>
    </aside>
  );
}

function TogetherWish({
  count,
  sameSpecies,
  onWish,
}: {
  count: number;
  sameSpecies(from: number, to: number): boolean;
  onWish(from: number, to: number): void;
}) {
  const submit = (form: HTMLFormElement) => {
    const data = new FormData(form);
    const [from, to] = [Number(data.get('from')), Number(data.get('to'))];
    const last = form.elements.namedItem('to') as HTMLInputElement;
    const problem =
      !Number.isInteger(from) || !Number.isInteger(to) || from < 1 || to > count || from >= to
        ? `Type two strip numbers from 1 to ${count}, the smaller first.`
        : !sameSpecies(from, to)
          ? 'These strips are not all of one species.'
          : '';
    last.setCustomValidity(problem);
    if (!form.reportValidity()) return;
    onWish(from, to);
    form.reset();
  };
  return (
    <form
      style={{ display: 'flex', gap: 6, alignItems: 'center', marginTop: 10, flexWrap: 'wrap' }}
      noValidate
      onSubmit={(e) => {
        e.preventDefault();
        submit(e.currentTarget);
      }}
    >
      <span>Strips</span>
      <input name="from" aria-label="First strip of the group" inputMode="numeric" style={{ width: 40 }} />
      <span>to</span>
      <input
        name="to"
        aria-label="Last strip of the group"
        inputMode="numeric"
        style={{ width: 40 }}
        onInput={(e) => e.currentTarget.setCustomValidity('')}
      />
      <Button type="submit" size="compact-sm" variant="default">
        from one blank
      </Button>
    </form>
  );
}
