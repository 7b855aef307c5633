import { Button, Checkbox } from '@mantine/core';
import { useMemo, useState } from 'react';
import { z } from 'zod';
import { BOARD_SIDES, type BoardSide } from '#core/facts/fact.ts';
import { factsThatHold } from '#core/facts/factsThatHold.ts';
import { gritsOver, type GritRun } from '#core/shop/grits.ts';
import { ORIGINS, type Sanded, type SidePlan } from '#core/finish/sanding.ts';
import type { LengthDisplay } from '#core/units/formatLength.ts';
import { MM_PER_INCH } from '#core/units/length.ts';
import { firstOf } from '#core/lists/there.ts';
import { factLine } from '../../data/facts.ts';
import { useSettledBoard } from '../../data/openBoard.tsx';
import { useDisplay } from '../../quantities/display.tsx';
import { Length } from '../../quantities/Length.tsx';
import { LengthInput } from '../../quantities/LengthInput.tsx';
import { showProblem, showWord } from '../../shell/notices.tsx';
import { SIDE_WORDS } from '../bench/FactWords.tsx';
import { fineDepth } from './fineDepth.ts';
import classes from './FinishPlace.module.css';
import { SidesDrawing } from './SidesDrawing.tsx';
import { StaircaseDrawing } from './StaircaseDrawing.tsx';

/** A pit is not through the board. @param thickness of the board, mm */
const pitSchema = (thickness: number) =>
  z
    .number({ error: 'must be a length' })
    .min(0, { error: 'must not be negative' })
    .max(Math.min(50, thickness), { error: 'must be less than the board is thick: what goes through it is no pit' });
/** One that was only marked is taken to be so deep until somebody measures it, mm. */
const USUAL_PIT_MM = 0.5;
/** Less than this is no difference, mm. */
const SAME_MM = 0.1;

/** Every side of the board: what it comes off, its deepest place, the papers over it, and what they take; one of them drawn as a staircase. */
export function SidesToSand() {
  const { board, plan, session } = useSettledBoard();
  const [side, setSide] = useState<Sanded>('top');
  const [marking, setMarking] = useState(false);
  const [without, setWithout] = useState<readonly number[]>([]);
  const pits = usePits();
  const { display } = useDisplay();
  const { sides, takes, planned, habit } = plan.finish;
  // A groove that is gone, here or on another device, is looked at no more.
  const shown = sides.find((s) => s.side === side) ?? firstOf(sides);
  const grits = shown.run.steps.map((s) => s.grit);
  const tried = grits.filter((g) => !without.includes(g));
  const run = without.length === 0 ? shown.run : gritsOver(shown.deepest, tried);
  const stays = tried.length === 0 ? shown.deepest : run.stays;
  const schema = useMemo(() => pitSchema(board.thickness), [board.thickness]);
  const choose = (next: Sanded) => {
    setSide(next);
    setWithout([]);
  };
  return (
    <section>
      <h2>The board unfolded</h2>
      <SidesDrawing
        sides={sides}
        size={plan.worked.size}
        shown={shown.side}
        spots={pits.spots}
        marking={marking}
        onMark={(at, x, y) => {
          pits.set(at, sides.find((s) => s.side === at)?.pit ?? USUAL_PIT_MM, { x, y });
          choose(at);
          setMarking(false);
        }}
        onShow={choose}
      />
      <Button
        size="compact-sm"
        variant={marking ? 'filled' : 'default'}
        aria-pressed={marking}
        onClick={() => setMarking(!marking)}
      >
        {marking ? 'Press where it is deepest' : 'Mark the deepest place'}
      </Button>
      <h2>Papers over the {SANDED_WORDS[shown.side]}</h2>
      {tried.length > 0 ? (
        <StaircaseDrawing run={run} deepest={shown.deepest} from={shown.pit === null ? 'its marks' : 'its pit'} />
      ) : (
        <p>No paper at all: everything stays.</p>
      )}
      <div className={classes.grits} role="group" aria-label="Papers of this run">
        {grits.map((g) => (
          <Checkbox
            key={g}
            label={String(g)}
            checked={!without.includes(g)}
            onChange={() => setWithout((w) => (w.includes(g) ? w.filter((o) => o !== g) : [...w, g]))}
          />
        ))}
        <span role="status">
          {without.length > 0 && (
            <>
              Without {without.join(', ')}:{' '}
              {stays > SAME_MM / 20 ? (
                <b className={classes.bad}>{fineDepth(stays, display)} stays</b>
              ) : (
                `nothing stays, ${timesOver(run)} times over the side instead of ${timesOver(shown.run)}`
              )}
            </>
          )}
        </span>
      </div>
      <table className={classes.sides}>
        <thead>
          <tr>
            <th>Side</th>
            <th>Comes off</th>
            <th>Deepest place</th>
            <th>Papers</th>
            <th>Takes</th>
          </tr>
        </thead>
        <tbody>
          {sides.map((s) => (
            <SideRow key={s.side} plan={s} shown={s === shown} onShow={choose} onPit={pits.set} schema={schema} />
          ))}
        </tbody>
      </table>
      <p>
        Both faces together lose {fineDepth(takes, display)}; the plan has <Length mm={planned} /> for it.
        {habit !== null && (
          <>
            {' '}
            <Button
              size="compact-sm"
              variant="default"
              onClick={() =>
                session.edit((b) => ({
                  ...b,
                  differs: { ...b.differs, habits: { ...b.differs.habits, sanding: habit } },
                }))
              }
            >
              Plan with <Length mm={habit} />
            </Button>
          </>
        )}
      </p>
      <p className={classes.soft}>
        Marks of machines, and that a paper goes about twice its grain deep, are common practice; grains are those of
        FEPA P and ISO 6344. {board.count > 1 && 'A place that is noted counts for every board.'}
      </p>
    </section>
  );
}

const timesOver = ({ steps }: GritRun): number => steps.reduce((sum, s) => sum + s.rounds, 0);

/** A depth as it is told: nobody types a ten-thousandth. */
const onGrid = (mm: number, { system }: Pick<LengthDisplay, 'system'>): number =>
  system === 'metric' ? mm : (Math.round((mm / MM_PER_INCH) * 1000) / 1000) * MM_PER_INCH;

const SANDED_WORDS: Readonly<Record<Sanded, string>> = { ...SIDE_WORDS, edges: 'edges, shaped', groove: 'groove' };
const isBoardSide = (side: Sanded): side is BoardSide => (BOARD_SIDES as readonly Sanded[]).includes(side);

interface SideRowProps {
  plan: SidePlan;
  shown: boolean;
  onShow(side: Sanded): void;
  onPit(side: BoardSide, depth: number): void;
  schema: z.ZodType<number>;
}

function SideRow({ plan: { side, byHand, origin, deepest, pit, run }, shown, onShow, onPit, schema }: SideRowProps) {
  const { display } = useDisplay();
  return (
    <tr data-shown={shown || undefined}>
      <td>
        <button type="button" className={classes.side} aria-pressed={shown} onClick={() => onShow(side)}>
          {SANDED_WORDS[side]}
        </button>
      </td>
      <td>{ORIGINS[origin].name}</td>
      <td>
        {isBoardSide(side) ? (
          <LengthInput
            size="xs"
            field={`Deepest place of the ${SIDE_WORDS[side]}`}
            label={null}
            mm={onGrid(pit ?? deepest, display)}
            schema={schema}
            onCommit={(mm) => onPit(side, mm)}
          />
        ) : (
          fineDepth(deepest, display)
        )}
      </td>
      <td>
        {run.steps.map((s) => (s.rounds > 1 ? `${s.grit} (${s.rounds}×)` : s.grit)).join(', ')}
        {byHand && <span className={classes.soft}> by hand</span>}
        {run.stays > SAME_MM / 20 && <span className={classes.bad}> {fineDepth(run.stays, display)} stays</span>}
      </td>
      <td>{fineDepth(run.takes, display)}</td>
    </tr>
  );
}

/** The deepest place of a side is a fact of the bench: typed anew, the one before is taken back; nothing is noted of one no deeper than the marks. */
function usePits() {
  const { id, board, input, plan } = useSettledBoard();
  const line = factLine(id);
  const thing = board.recipe.at(-1)?.id ?? 'panel';
  const held = factsThatHold(input.facts ?? []).flatMap((f) =>
    f.kind === 'badPlace' && f.side !== undefined ? [{ id: f.id, side: f.side, x: f.spot.x, y: f.spot.y }] : [],
  );
  return {
    spots: held,
    /** @param at where it lies, mm; left out: where it was, or in the corner */
    set: (side: BoardSide, depth: number, at?: { x: number; y: number }) => {
      const own = held.filter((f) => f.side === side);
      const before = own.map((f) => f.id);
      const { x, y } = at ?? own.at(-1) ?? { x: 0, y: 0 };
      try {
        if (before.length > 0) line.takeBack(before);
        const marks = plan.finish.sides.find((s) => s.side === side);
        if (marks && depth <= ORIGINS[marks.origin].marks) {
          if (depth > 0) showWord('The marks of the machine go as deep: nothing is noted.');
          return;
        }
        line.note({
          kind: 'badPlace',
          thing,
          copy: 1,
          spot: {
            id: `pit-${side}`,
            x: Math.max(0, x),
            y: Math.min(1500, Math.max(0, y)),
            length: 1,
            width: 1,
            what: 'pit',
          },
          side,
          depth,
        });
      } catch (error) {
        showProblem(error);
      }
    },
  };
}
