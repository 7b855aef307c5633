import { Button, Checkbox, NativeSelect, NumberInput, TextInput } from '@mantine/core';
import { IconDownload, IconPrinter } from '@tabler/icons-react';
import { writeCsv } from '#core/format/csv.ts';
import { useMemo, useState } from 'react';
import { sumOf } from '#core/money/amount.ts';
import { shoppingList, type ShoppingLine } from '#core/money/shopping.ts';
import { usesOf } from '#core/money/uses.ts';
import type { Shop } from '#core/shop/shop.ts';
import { nextMark } from '#core/stock/marks.ts';
import { PLAIN_CONDITION, type Piece } from '#core/stock/piece.ts';
import { api } from '../../data/api.ts';
import { keys, queryClient } from '../../data/queryClient.ts';
import { saveFile } from '../../data/saveFile.ts';
import { Length } from '../../quantities/Length.tsx';
import { LengthInput } from '../../quantities/LengthInput.tsx';
import { lengthBetween } from '#core/units/lengthSchema.ts';
import { showProblem, showWord } from '../../shell/notices.tsx';
import { moneyWords } from '../../quantities/moneyWords.ts';
import type { Plan } from '#core/plan/plan.ts';
import { ofKind } from '#core/steps/instruction.ts';
import type { Operation } from '#core/steps/operation.ts';
import { changeShopping, useShopping } from './shopping.ts';
import { takesWood, useShopPlans } from './useShopPlans.ts';
import classes from './money.module.css';

type WoodLine = Extract<ShoppingLine, { kind: 'wood' }>;
type ShelfLine = Exclude<ShoppingLine, { kind: 'wood' }>;

/** What is to be bought for chosen boards: ticked in the yard, and what was bought goes into the rack and onto the shelf from here. */
export function ShoppingList() {
  const shopping = useShopping();
  const { plans, boards, shop, species, chosen, problem, rack } = useShopPlans(shopping?.boards ?? null);
  const lines = useMemo(
    () =>
      plans && shop && species
        ? shoppingList(
            plans.map(({ id, name, count, plan, open }) => ({
              id,
              name,
              // What is cut already is bought already.
              shortages: takesWood({ plan, open }) ? plan.cutting.shortages : [],
              uses: usesOf(open, stillPutOn(plan, open), count, plan.shop),
            })),
            shop.shop,
            species,
          )
        : null,
    [plans, shop, species],
  );
  const choose = (id: string, on: boolean) =>
    changeShopping((s) => {
      const before = s.boards ?? chosen;
      return { ...s, boards: on ? [...before.filter((b) => b !== id), id] : before.filter((b) => b !== id) };
    });
  const tick = (id: string, on: boolean) =>
    changeShopping((s) => ({
      ...s,
      ticked: on ? [...s.ticked.filter((t) => t !== id), id] : s.ticked.filter((t) => t !== id),
    }));
  if (problem) return <p role="alert">{problem.message} Cadenza keeps trying.</p>;
  if (!lines || !shopping || !shop) return <p role="status">Planning what is to be bought …</p>;
  const { currency } = shop.shop;
  const priced = lines.flatMap((l) => (l.kind !== 'wood' && l.cost ? [l.cost] : []));
  const csv = () => {
    const rows = lines.map((line) => {
      const boards = line.boards.join('; ');
      if (line.kind !== 'wood')
        return [line.kind, line.name, line.buy, line.unit, '', boards, line.cost?.toString() ?? ''];
      const { pieces, quarters, width, length } = line.buy;
      return ['wood', line.name, pieces, 'pieces', `${quarters} × ${width} × ${length} mm`, boards, ''];
    });
    const text = writeCsv(['kind', 'name', 'amount', 'unit', 'size', 'boards', 'cost'], rows);
    saveFile(new Blob([text], { type: 'text/csv' }), 'Shopping list', 'csv');
  };
  return (
    <>
      <fieldset className={`${classes.chooser} ${classes.noPrint}`}>
        <legend>For which boards</legend>
        {boards.map((b) => (
          <Checkbox
            key={b.id}
            size="sm"
            label={b.board.name}
            checked={chosen.includes(b.id)}
            onChange={(e) => choose(b.id, e.currentTarget.checked)}
          />
        ))}
      </fieldset>
      <div className={`${classes.row} ${classes.noPrint}`}>
        <Button size="xs" variant="default" leftSection={<IconPrinter size={16} />} onClick={() => window.print()}>
          Print
        </Button>
        <Button size="xs" variant="default" leftSection={<IconDownload size={16} />} onClick={csv}>
          CSV
        </Button>
      </div>
      {lines.length === 0 && <p>Nothing is missing: rack and shelf have it all.</p>}
      <ul className={classes.lines}>
        {lines.map((line) => (
          <LineRow
            key={line.id}
            line={line}
            shop={shop.shop}
            marks={(rack ?? []).map((p) => p.piece.mark)}
            ticked={shopping.ticked.includes(line.id)}
            onTick={(on) => tick(line.id, on)}
          />
        ))}
      </ul>
      {priced.length > 0 && (
        <p>
          Glue, finish, paper and parts come to about <b>{moneyWords(sumOf(priced), currency)}</b>; wood is as the yard
          asks.
        </p>
      )}
    </>
  );
}

/** Finishes whose coats are still to come. */
const stillPutOn = ({ finish }: Plan, open: readonly Operation[]) =>
  finish.coatings.filter(({ finish: f }) =>
    open.some((o) => ofKind(o.instructions, 'coat').some((c) => c.finish === f.kind)),
  );

interface LineRowProps {
  line: ShoppingLine;
  shop: Shop;
  marks: readonly string[];
  ticked: boolean;
  onTick(on: boolean): void;
}

function LineRow({ line, shop, marks, ticked, onTick }: LineRowProps) {
  const [buying, setBuying] = useState(false);
  return (
    <li data-done={ticked || undefined}>
      <div className={classes.line}>
        <input
          type="checkbox"
          aria-label={`${line.name} is in the basket`}
          checked={ticked}
          onChange={(e) => onTick(e.currentTarget.checked)}
        />
        <span>
          <b>{line.name}</b>
          <small>for {line.boards.join(', ')}</small>
        </span>
        <span className={classes.figure}>
          {line.kind === 'wood' ? (
            <>
              {line.buy.pieces} × {line.buy.quarters} (<Length mm={line.buy.thickness} />) rough,{' '}
              <Length mm={line.buy.width} bare /> × <Length mm={line.buy.length} />
            </>
          ) : (
            <>
              {line.buy} {line.unit}
              {line.cost && `, about ${moneyWords(line.cost, shop.currency)}`}
            </>
          )}
        </span>
      </div>
      {line.kind === 'wood' ? (
        line.alternatives.length > 0 && (
          <p className={classes.others}>
            Or:{' '}
            {line.alternatives.map((a, i) => (
              <span key={`${a.buy.species} ${a.buy.width} ${a.buy.thickness}`}>
                {i > 0 && '; '}
                {a.buy.species === line.buy.species ? '' : `${a.name}, `}
                {a.buy.pieces} × {a.buy.quarters}, <Length mm={a.buy.width} bare /> × <Length mm={a.buy.length} />
                {Math.abs(a.wood - 1) > 0.01 &&
                  `, ${a.wood > 1 ? '+' : '−'}${Math.round(Math.abs(a.wood - 1) * 100)} % wood`}
              </span>
            ))}
          </p>
        )
      ) : (
        <p className={classes.others}>
          {line.needed} {line.unit} needed,{' '}
          {line.shelf === null ? 'the shelf was not counted' : `${line.shelf} on the shelf`}
        </p>
      )}
      {ticked && !buying && (
        <Button
          size="xs"
          mt={6}
          ml={44}
          variant="default"
          onClick={() => setBuying(true)}
          aria-label={`${line.name} is bought`}
        >
          {line.kind === 'wood' ? 'Into the rack' : 'Onto the shelf'}
        </Button>
      )}
      {buying &&
        (line.kind === 'wood' ? (
          <WoodBought line={line} shop={shop} marks={marks} onDone={() => (setBuying(false), onTick(false))} />
        ) : (
          <ShelfBought line={line} shop={shop} onDone={() => (setBuying(false), onTick(false))} />
        ))}
    </li>
  );
}

const lengths = { thickness: lengthBetween(2, 300), width: lengthBetween(5, 1200), length: lengthBetween(20, 8000) };

function WoodBought({
  line,
  shop,
  marks,
  onDone,
}: {
  line: WoodLine;
  shop: Shop;
  marks: readonly string[];
  onDone(): void;
}) {
  const { buy, alternatives, name } = line;
  const woods = [...new Map([[buy.species, name], ...alternatives.map((a) => [a.buy.species, a.name] as const)])];
  const [size, setSize] = useState({ thickness: buy.thickness, width: buy.width, length: buy.length });
  const [species, setSpecies] = useState(buy.species);
  const [mark, setMark] = useState(() => nextMark('Y1', new Set(marks.map((m) => m.toLowerCase()))));
  const [count, setCount] = useState<number | string>(buy.pieces);
  const [price, setPrice] = useState<number | string>('');
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const store = async () => {
    const pieces = Number(count);
    if (!Number.isInteger(pieces) || pieces < 1 || pieces > 999)
      return setProblem('How many must be a whole number from 1 to 999.');
    const amount = price === '' ? null : Number(price);
    if (amount !== null && !(amount >= 0 && amount <= 1e6))
      return setProblem('A piece cost must be an amount, at least 0.');
    setBusy(true);
    setProblem(null);
    const piece: Omit<Piece, 'id'> = {
      ...PLAIN_CONDITION,
      defects: [],
      ...size,
      mark,
      species,
      surface: 'rough',
      count: pieces,
      price: amount === null ? null : { amount, per: 'piece' },
    };
    try {
      await api.addPiece(piece);
      await queryClient.invalidateQueries({ queryKey: keys.rack });
      showWord(`${mark} lies in the rack.`);
      onDone();
    } catch (error) {
      setBusy(false);
      setProblem(error instanceof Error ? error.message : String(error));
    }
  };
  return (
    <div className={classes.buy} role="group" aria-label={`${name} bought`}>
      {woods.length > 1 && (
        <NativeSelect
          size="xs"
          label="Wood"
          value={species}
          onChange={(e) => setSpecies(e.currentTarget.value)}
          data={woods.map(([value, label]) => ({ value, label }))}
        />
      )}
      <TextInput size="xs" label="Mark" value={mark} onChange={(e) => setMark(e.currentTarget.value)} />
      <NumberInput size="xs" label="How many" value={count} hideControls onChange={setCount} />
      {(['thickness', 'width', 'length'] as const).map((side) => (
        <LengthInput
          key={side}
          size="xs"
          field={`Bought ${side}`}
          mm={size[side]}
          schema={lengths[side]}
          onCommit={(mm) => setSize((s) => ({ ...s, [side]: mm }))}
        />
      ))}
      <NumberInput
        size="xs"
        label="A piece cost"
        suffix={` ${shop.currency}`}
        value={price}
        hideControls
        onChange={setPrice}
      />
      <Button size="xs" disabled={busy} onClick={() => void store()}>
        Into the rack
      </Button>
      {problem && (
        <p role="alert" className={classes.bad}>
          {problem}
        </p>
      )}
    </div>
  );
}

function ShelfBought({ line, shop, onDone }: { line: ShelfLine; shop: Shop; onDone(): void }) {
  const [amount, setAmount] = useState<number | string>(line.buy);
  const [paid, setPaid] = useState<number | string>('');
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const store = async () => {
    const more = Number(amount);
    if (!(more > 0 && more <= 1e6)) return setProblem('Bought must be more than 0.');
    const cost = paid === '' ? null : Number(paid);
    if (cost !== null && !(cost >= 0 && cost <= 1e6)) return setProblem('Paid must be an amount, at least 0.');
    setBusy(true);
    try {
      const own = await api.shop();
      await api.saveShop(own.version, onShelf(own.shop, line, more, cost === null ? null : cost / more));
      await queryClient.invalidateQueries({ queryKey: keys.shop });
      showWord(`${line.name}: ${more} ${line.unit} more on the shelf.`);
      onDone();
    } catch (error) {
      setBusy(false);
      showProblem(error);
    }
  };
  return (
    <div className={classes.buy} role="group" aria-label={`${line.name} bought`}>
      <NumberInput size="xs" label={`Bought, ${line.unit}`} value={amount} hideControls onChange={setAmount} />
      <NumberInput size="xs" label="Paid" suffix={` ${shop.currency}`} value={paid} hideControls onChange={setPaid} />
      <Button size="xs" disabled={busy} onClick={() => void store()}>
        Onto the shelf
      </Button>
      {problem && (
        <p role="alert" className={classes.bad}>
          {problem}
        </p>
      )}
    </div>
  );
}

/** The shop with more of something, and what one unit of it cost; null leaves the price. */
function onShelf(shop: Shop, { kind, what }: ShelfLine, more: number, each: number | null): Shop {
  const perThousand = (before: number | null) => (each === null ? before : Math.round(each * 1000 * 100) / 100);
  const perOne = (before: number | null) => (each === null ? before : Math.round(each * 100) / 100);
  const { prices } = shop;
  switch (kind) {
    case 'glue':
      return {
        ...shop,
        glues: shop.glues.map((g) =>
          g.id === what ? { ...g, shelfGrams: (g.shelfGrams ?? 0) + more, pricePerKg: perThousand(g.pricePerKg) } : g,
        ),
      };
    case 'finish':
      return {
        ...shop,
        finishes: shop.finishes.map((f) =>
          f.id === what ? { ...f, shelfMl: (f.shelfMl ?? 0) + more, pricePerLitre: perThousand(f.pricePerLitre) } : f,
        ),
      };
    case 'paper':
      return {
        ...shop,
        prices: {
          ...prices,
          paperShelf: (prices.paperShelf ?? 0) + Math.round(more),
          paperSheet: perOne(prices.paperSheet),
        },
      };
    case 'feet':
      return {
        ...shop,
        prices: { ...prices, footShelf: (prices.footShelf ?? 0) + Math.round(more), foot: perOne(prices.foot) },
      };
    case 'fittings':
      return {
        ...shop,
        prices: {
          ...prices,
          fittingShelf: (prices.fittingShelf ?? 0) + Math.round(more),
          fitting: perOne(prices.fitting),
        },
      };
  }
}
