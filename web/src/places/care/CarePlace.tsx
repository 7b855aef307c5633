import { Button, SegmentedControl } from '@mantine/core';
import { IconPrinter } from '@tabler/icons-react';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { cutStripsOf, stripsOf } from '#core/board/recipe.ts';
import { careLines } from '#core/finish/care.ts';
import { resandings, USUAL_SCARS_MM } from '#core/finish/resanding.ts';
import { pitRun } from '#core/shop/grits.ts';
import { useSettledBoard } from '../../data/openBoard.tsx';
import { useSpecies } from '../../data/queries.ts';
import { figurePath } from '../../habits/figurePath.ts';
import { NoStrips } from '../../planning/NoStrips.tsx';
import { Length } from '../../quantities/Length.tsx';
import { useFinishDates } from '../finish/useFinishDates.ts';
import { useCodes, type Code } from '../labels/useCodes.ts';
import classes from './CarePlace.module.css';

const DAY = new Intl.DateTimeFormat(undefined, { dateStyle: 'long' });
const FORMATS = [
  { value: 'a6', label: 'A6, four to a sheet' },
  { value: 'a5', label: 'Folded A5' },
] as const;
type Format = (typeof FORMATS)[number]['value'];

/** The card that goes with the board: printed as small cards, or as one that is folded and stands. */
export function CarePlace() {
  const { id, board } = useSettledBoard();
  const [format, setFormat] = useState<Format>('a6');
  const addresses = useMemo(() => [`${window.location.origin}/boards/${id}/care`], [id]);
  const [code] = useCodes(addresses);
  if (stripsOf(board).length === 0) return <NoStrips />;
  const copies = format === 'a6' ? 4 : 1;
  return (
    <div className={classes.page}>
      <div className={classes.tools}>
        <h2>Care card</h2>
        <SegmentedControl size="sm" aria-label="Paper" value={format} onChange={setFormat} data={[...FORMATS]} />
        <Button leftSection={<IconPrinter size={17} />} disabled={!code} onClick={() => window.print()}>
          Print
        </Button>
        <Link to={figurePath('finishes', 'On every care card')}>Words of the shop</Link>
        <Link to="../finish" relative="path">
          Back to Finish
        </Link>
      </div>
      <div className={classes.sheet} data-format={format}>
        {Array.from({ length: copies }, (_, k) => (
          <CareCard key={k} code={code} number={(k % board.count) + 1} hidden={k > 0} />
        ))}
      </div>
    </div>
  );
}

/** By what the shop finds it again: the beginning of its id, in what can be read aloud. */
const numberOf = (id: string): string =>
  id
    .replace(/[^A-Za-z0-9]/g, '')
    .slice(0, 6)
    .toUpperCase();

/** @param hidden the same card again, for the paper alone */
function CareCard({ code, number, hidden }: { code: Code | undefined; number: number; hidden: boolean }) {
  const { id, board, plan } = useSettledBoard();
  const species = useSpecies();
  const { now, ...dates } = useFinishDates();
  const grooves = plan.worked.features.flatMap((f) => (f.kind === 'groove' && f.face === 'top' ? [f.depth] : []));
  const resanding = resandings(
    plan.ladders.thickness.reached,
    grooves.length > 0 ? Math.max(...grooves) : null,
    pitRun(plan.shop, USUAL_SCARS_MM).steps.map((s) => s.grit),
  );
  const used = new Set(cutStripsOf(board).map((s) => s.species));
  const lines = careLines({
    finish: plan.finish,
    resanding,
    woodNotes: [...new Set(species.data?.flatMap((s) => (used.has(s.code) && s.foodNote !== '' ? [s.foodNote] : [])))],
    curesUntil:
      Number.isFinite(dates.used) && dates.used > Math.max(now, dates.handled)
        ? DAY.format(new Date(dates.used))
        : null,
    careWords: plan.shop.careWords,
  });
  const woods = [...used].map((c) => species.data?.find((s) => s.code === c)?.name ?? c);
  const { length, width, thickness } = plan.worked.size;
  return (
    <article className={classes.card} aria-hidden={hidden || undefined}>
      <header>
        <div>
          <h3>{board.name}</h3>
          <p>
            {woods.join(', ')}. <Length mm={length} /> × <Length mm={width} /> × <Length mm={thickness} />.
          </p>
          <p>
            Made by {plan.shop.name}, {DAY.format(new Date(dates.handled))}.{' '}
            <span className={classes.number}>No. {numberOf(id)}</span>
            {board.count > 1 && `, ${number} of ${board.count}`}
          </p>
        </div>
        {code && (
          <svg
            className={classes.code}
            viewBox={`-2 -2 ${code.modules + 4} ${code.modules + 4}`}
            role="img"
            aria-label="Code that opens this page in the shop’s network"
          >
            <path d={code.path} />
          </svg>
        )}
      </header>
      <dl>
        {lines.map((l) => (
          <div key={l.heading}>
            <dt>{l.heading}</dt>
            <dd>{l.text}</dd>
          </div>
        ))}
        {board.pack.length > 0 && (
          <div>
            <dt>With it</dt>
            <dd>{board.pack.join(', ')}</dd>
          </div>
        )}
      </dl>
    </article>
  );
}
