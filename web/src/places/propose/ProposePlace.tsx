import { STRENGTHS } from '#core/propose/lead.ts';
import { Button, Loader, SegmentedControl, Select } from '@mantine/core';
import { useMemo, useState } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import { promisedToOthers } from '#core/saw/sawBook.ts';
import type { Proposal } from '#core/propose/propose.ts';
import { contradictions, openWishes, type Wishes } from '#core/propose/wishes.ts';
import { api } from '../../data/api.ts';
import { NO_BOARDS, trouble, useRack, useSawBook, useShop, useSpecies } from '../../data/queries.ts';
import { keys, queryClient } from '../../data/queryClient.ts';
import { BoardMiniature } from '../../drawing/BoardMiniature.tsx';
import { BoardSizeLine } from '../../drawing/BoardSizeLine.tsx';
import { fitScale, scaleWords } from '../../drawing/scale.ts';
import { useProposing } from '../../proposing/useProposing.ts';
import { Say } from '../../quantities/Length.tsx';
import { useDisplay } from '../../quantities/display.tsx';
import { showProblem } from '../../shell/notices.tsx';
import classes from './ProposePlace.module.css';
import { WishesLine } from './WishesLine.tsx';
import { stripsOf } from '#core/board/recipe.ts';

/** The search gives up after this long, seconds; it is done much sooner. */
const MOST_SECONDS = 20;
const ROOM: [number, number] = [280, 190];

/** What proposals are sorted by; the greater first unless said otherwise. */
const ORDERS = {
  /** As they come: the best first, the first six each of a theme of its own. */
  score: { label: 'All measures together', of: null },
  left: { label: 'Least wood used', of: (p: Proposal) => -p.measures.woodUsed },
  contrast: { label: 'Contrast', of: (p: Proposal) => p.measures.contrast },
  rhythm: { label: 'Rhythm', of: (p: Proposal) => p.measures.rhythm },
  glue: { label: 'Fewest glue lines', of: (p: Proposal) => -p.measures.glueLines },
  cost: { label: 'Lowest cost', of: (p: Proposal) => -p.measures.cost },
} as const;
type Order = keyof typeof ORDERS;

function inOrder(proposals: readonly Proposal[], order: Order): readonly Proposal[] {
  const { of } = ORDERS[order];
  return of === null ? proposals : [...proposals].sort((a, b) => of(b) - of(a));
}

/** What could be made from the free rack: varied boards that can all be cut. */
export function ProposePlace() {
  const rack = useRack();
  const shop = useShop();
  const species = useSpecies();
  const book = useSawBook(NO_BOARDS);
  const [params] = useSearchParams();
  const useUp = params.get('useUp');
  const pieces = params.get('pieces')?.split(',') ?? null;
  const { display } = useDisplay();
  const [wishes, setWishes] = useState<Wishes>({ ...openWishes(display.system), useUp, pieces });
  const [seed, setSeed] = useState(1);
  const [order, setOrder] = useState<Order>('score');
  const { answer, running, start, stop } = useProposing('propose');
  const navigate = useNavigate();
  const input = useMemo(
    () =>
      rack.data && shop.data && species.data && book.data
        ? {
            rack: rack.data.map((p) => p.piece),
            shop: shop.data.shop,
            species: species.data,
            promised: promisedToOthers(book.data, []),
          }
        : null,
    [rack.data, shop.data, species.data, book.data],
  );

  const problem = trouble(rack, shop, species, book);
  if (problem)
    return (
      <p className={classes.page} role="alert">
        {problem.message} Cadenza keeps trying.
      </p>
    );
  if (!input)
    return (
      <div className={classes.page}>
        <Loader aria-label="Loading the rack" />
      </div>
    );

  const against = contradictions(wishes, input.rack, input.species);
  const search = (next: number) => {
    setSeed(next);
    start({ kind: 'propose', input: { ...input, wishes, system: display.system }, seed: next, seconds: MOST_SECONDS });
  };
  const make = async (proposal: Proposal) => {
    try {
      const stored = await api.addBoard(proposal.board);
      void queryClient.invalidateQueries({ queryKey: keys.boards });
      await navigate(`/boards/${stored.id}/layout`);
    } catch (error) {
      showProblem(error);
    }
  };
  const proposals = answer?.proposed.ok ? inOrder(answer.proposed.proposals, order) : [];
  const why = answer && !answer.proposed.ok ? answer.proposed.why : [];
  const scale = fitScale(
    [Math.max(1, ...proposals.map((p) => p.board.length)), Math.max(1, ...proposals.map((p) => p.board.width))],
    ROOM,
    1,
  );

  return (
    <div className={classes.page}>
      <header>
        <h1>What could I make?</h1>
        <p>
          From{' '}
          {wishes.pieces
            ? `${wishes.pieces.length} chosen ${wishes.pieces.length === 1 ? 'piece' : 'pieces'}`
            : `the free rack: ${input.rack.length} pieces`}
          , without what is promised to boards.
        </p>
      </header>
      <WishesLine wishes={wishes} onChange={setWishes} species={input.species} rack={input.rack} />
      {against.map((p, i) => (
        <p key={i} role="alert" className={classes.problem}>
          <Say phrase={p} />
        </p>
      ))}
      <div className={classes.search}>
        {running ? (
          <Button key="stop" variant="default" onClick={stop}>
            Stop
          </Button>
        ) : (
          <Button key="start" onClick={() => search(answer ? seed + 1 : seed)} disabled={against.length > 0}>
            {answer ? 'Other proposals' : 'Propose boards'}
          </Button>
        )}
        <span role="status">
          {running
            ? `Looking … ${proposals.length} so far`
            : proposals.length > 0
              ? `${proposals.length} boards, each can be cut; all drawn at ${scaleWords(scale)}`
              : ''}
        </span>
        {proposals.length > 0 && (
          <Select
            size="xs"
            aria-label="Sort by"
            w={190}
            allowDeselect={false}
            value={order}
            onChange={(v) => setOrder(v as Order)}
            data={Object.entries(ORDERS).map(([value, { label }]) => ({ value, label: `By ${label.toLowerCase()}` }))}
          />
        )}
        {answer && (
          <SegmentedControl
            size="xs"
            aria-label="Numbered searches"
            value={String(seed)}
            onChange={(v) => search(Number(v))}
            data={[...new Set([1, 2, 3, 4, 5, seed])].map((n) => ({ value: String(n), label: `No. ${n}` }))}
          />
        )}
      </div>
      {!running &&
        why.map((p, i) => (
          <p key={i} role="alert" className={classes.problem}>
            <Say phrase={p} />
          </p>
        ))}
      <ul className={classes.proposals}>
        {proposals.map((p) => (
          <li
            key={`${p.board.name}/${stripsOf(p.board)
              .map((s) => s.species + s.width)
              .join()}`}
          >
            <ProposalCard
              proposal={p}
              input={input}
              scale={scale}
              currency={input.shop.currency}
              onMake={() => void make(p)}
            />
          </li>
        ))}
      </ul>
    </div>
  );
}

interface ProposalCardProps {
  proposal: Proposal;
  input: Pick<Parameters<typeof BoardMiniature>[0]['input'], 'rack' | 'shop' | 'species'>;
  scale: number;
  currency: string;
  onMake(): void;
}

function ProposalCard({
  proposal: { board, cutting, measures, says, best },
  input,
  scale,
  currency,
  onMake,
}: ProposalCardProps) {
  const planned = useMemo(
    () => ({ ...input, saw: { key: 'proposal', promised: [], chosen: cutting, done: [] } }),
    [input, cutting],
  );
  return (
    <article className={classes.card}>
      <span className={classes.picture} style={{ minHeight: ROOM[1] }}>
        <BoardMiniature board={board} input={planned} scale={scale} />
      </span>
      <h2>{board.name}</h2>
      <p className={classes.size}>
        <BoardSizeLine board={board} />
      </p>
      {best && <p className={classes.best}>{STRENGTHS[best].says}</p>}
      <p>
        <Say phrase={says} />
      </p>
      <dl>
        <dt>Wood</dt>
        <dd>
          {(measures.woodUsed * 1000).toFixed(1)} dm³, {(measures.woodLeft * 1000).toFixed(1)} back
        </dd>
        <dt>Contrast</dt>
        <dd>{measures.contrast.toFixed(0)}</dd>
        <dt>Rhythm</dt>
        <dd>{Math.round(measures.rhythm * 100)} %</dd>
        <dt>Glue lines</dt>
        <dd>{measures.glueLines}</dd>
        <dt>Cost</dt>
        <dd>
          {measures.cost.toFixed(2)} {currency}
        </dd>
      </dl>
      <Button size="xs" onClick={onMake} aria-label={`Make ${board.name}`}>
        Make it a board
      </Button>
    </article>
  );
}
