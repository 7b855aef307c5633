import { SegmentedControl } from '@mantine/core';
import { useLocalStorage } from '@mantine/hooks';
import { flatteningAgain } from '#core/trim/flatness.ts';
import { fromCorners, fromDiagonals, fromFiveCuts, squareEnough, type SquareReading } from '#core/trim/squareness.ts';
import { lengthBetween } from '#core/units/lengthSchema.ts';
import { useSettledBoard } from '../../data/openBoard.tsx';
import { SchoolButton } from '../../habits/HabitButton.tsx';
import { Length, Say } from '../../quantities/Length.tsx';
import { LengthInput } from '../../quantities/LengthInput.tsx';
import classes from './SquareCheck.module.css';
import { SquareDrawing } from './SquareDrawing.tsx';

const MEANS = { diagonals: 'Diagonals', corners: 'Corners', fiveCuts: 'Five cuts', flat: 'Flatness' } as const;
type Means = keyof typeof MEANS;

const CORNERS = ['A', 'B', 'C', 'D'] as const;
const measure = lengthBetween(1, 5000);
const gap = lengthBetween(0, 50);

interface Readings {
  means: Means;
  ac?: number;
  bd?: number;
  gaps: [number, number, number, number];
  /** Corners that are narrower than a right angle. */
  narrow: [boolean, boolean, boolean, boolean];
  blade: number;
  sliver?: number;
  fence?: number;
  far?: number;
  pivot: number;
  rock: number;
  across: number;
  along: number;
}

const NOTHING_READ: Readings = {
  means: 'diagonals',
  gaps: [0, 0, 0, 0],
  narrow: [false, false, false, false],
  blade: 150,
  pivot: 600,
  rock: 0,
  across: 0,
  along: 0,
};

/** What a tape, a square, a sliver or a feeler says about the board: how far it is out, whether the next step allows it, and which way to correct. Readings stay in this browser. */
export function SquareCheck() {
  const { id, board, plan } = useSettledBoard();
  const [read, setRead] = useLocalStorage<Readings>({ key: `cadenza.square.${id}`, defaultValue: NOTHING_READ });
  const set = (change: Partial<Readings>) => setRead((r) => ({ ...r, ...change }));
  const size = { length: board.length, width: plan.ladders.width.reached };
  const number = (field: string, key: keyof Readings, hint?: string) => (
    <LengthInput
      key={key}
      size="sm"
      field={field}
      description={hint}
      mm={read[key] as number | undefined}
      schema={key === 'rock' || key === 'across' || key === 'along' ? gap : measure}
      onCommit={(mm) => set({ [key]: mm })}
    />
  );

  const reading = readingOf(read, size);
  return (
    <div className={classes.check}>
      <SegmentedControl
        size="sm"
        value={read.means}
        onChange={(means) => set({ means: means as Means })}
        data={Object.entries(MEANS).map(([value, label]) => ({ value, label }))}
        aria-label="Measured by"
      />
      {read.means === 'diagonals' && (
        <div className={classes.fields}>
          {number('Diagonal A to C', 'ac')}
          {number('Diagonal B to D', 'bd')}
        </div>
      )}
      {read.means === 'corners' && (
        <div className={classes.fields}>
          {CORNERS.map((corner, i) => (
            <div key={corner}>
              <LengthInput
                size="sm"
                field={`Gap at ${corner}`}
                mm={read.gaps[i]}
                schema={gap}
                onCommit={(mm) => set({ gaps: read.gaps.with(i, mm) as Readings['gaps'] })}
              />
              <label className={classes.narrow}>
                <input
                  type="checkbox"
                  checked={read.narrow[i]}
                  onChange={(e) => set({ narrow: read.narrow.with(i, e.currentTarget.checked) as Readings['narrow'] })}
                />{' '}
                narrower than 90°
              </label>
            </div>
          ))}
          {number('Blade of the square', 'blade')}
        </div>
      )}
      {read.means === 'fiveCuts' && (
        <div className={classes.fields}>
          {number('Sliver length', 'sliver')}
          {number('Its width at the fence', 'fence')}
          {number('Its width far from it', 'far')}
          {number('Fence pivot to stop', 'pivot')}
        </div>
      )}
      {read.means === 'flat' ? (
        <>
          <div className={classes.fields}>
            {number('It rocks by', 'rock', 'Feeler under one corner, the other held')}
            {number('Hollow across', 'across', 'Under a straight edge')}
            {number('Hollow along', 'along')}
          </div>
          <Flatness
            read={read}
            thickness={plan.ladders.thickness.reached + plan.shop.habits.sanding}
            wanted={board.thickness}
          />
        </>
      ) : (
        <div className={classes.found}>
          <SquareDrawing lean={reading?.ok ? reading.degrees : 0} />
          <Answer reading={reading} allowed={squareEnough(plan.shop.schools.edge)} means={read.means} />
        </div>
      )}
    </div>
  );
}

/** What the figures typed so far say; null while some are missing. */
function readingOf(read: Readings, size: { length: number; width: number }): SquareReading | null {
  if (size.width <= 0) return null;
  if (read.means === 'diagonals')
    return read.ac !== undefined && read.bd !== undefined ? fromDiagonals(size, read.ac, read.bd) : null;
  if (read.means === 'corners')
    return fromCorners(size, read.gaps.map((g, i) => (read.narrow[i] ? -g : g)) as Readings['gaps'], read.blade);
  if (read.sliver === undefined || read.fence === undefined || read.far === undefined) return null;
  return fromFiveCuts(size, { length: read.sliver, fence: read.fence, far: read.far }, read.pivot);
}

function Answer({ reading, allowed, means }: { reading: SquareReading | null; allowed: number; means: Means }) {
  const { plan } = useSettledBoard();
  if (!reading)
    return (
      <p className={classes.hint}>
        {means === 'diagonals'
          ? 'Hook the tape at A and read at C, then at B and read at D.'
          : 'Cut all four sides of a scrap, each with the fresh edge to the fence, then a fifth sliver; measure the sliver at both ends.'}
      </p>
    );
  if (!reading.ok)
    return (
      <p role="alert" className={classes.stop}>
        <Say phrase={reading.what} />
      </p>
    );
  const fine = Math.abs(reading.overWidth) <= allowed;
  return (
    <div role="status" className={classes.answer} data-fine={fine || undefined}>
      <p>
        <b>{Math.abs(reading.degrees).toFixed(2)}°</b> out: <Length mm={Math.abs(reading.overWidth)} /> over the width,{' '}
        <Length mm={Math.abs(reading.overLength)} /> over the length.
      </p>
      <p>
        {fine ? 'Within' : 'More than'} the <Length mm={allowed} /> that the edges allow
        {plan.shop.schools.edge === 'underBevel' && ', for bevels must meet at the corners'}.{' '}
        <SchoolButton question="edge" />
      </p>
      <p>
        <Say phrase={reading.correction} />
      </p>
      {!fine && (
        <p className={classes.caution}>
          ⚠ Trim only what the blade can take safely: a sliver thinner than the kerf may be thrown. A plane or sanding
          block takes the last of it.
        </p>
      )}
    </div>
  );
}

function Flatness({ read, thickness, wanted }: { read: Readings; thickness: number; wanted: number }) {
  const { loss, left, shortBy } = flatteningAgain(read, thickness, wanted);
  return (
    <div role="status" className={classes.answer} data-fine={shortBy === 0 || undefined}>
      {loss === 0 ? (
        <p>Nothing rocks and nothing is hollow: flat.</p>
      ) : (
        <>
          <p>
            Flattening it again takes{' '}
            <b>
              <Length mm={loss} />
            </b>{' '}
            off <Length mm={thickness} />: <Length mm={left} /> are left
            {shortBy > 0 ? (
              <>
                ,{' '}
                <b>
                  <Length mm={shortBy} /> short
                </b>{' '}
                of <Length mm={wanted} />
              </>
            ) : (
              <>
                , enough for <Length mm={wanted} />
              </>
            )}
            .
          </p>
          <p>
            {shortBy > 0
              ? 'Sand less, or let the board be thinner; a light rock can be held by feet that are shimmed.'
              : 'Half the rock is shimmed away before the first face is cut; the rest comes off both faces.'}
          </p>
        </>
      )}
    </div>
  );
}
