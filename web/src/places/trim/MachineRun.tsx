import { certain } from '#core/lists/there.ts';
import { Button, FileButton, SegmentedControl } from '@mantine/core';
import { useMemo, useState } from 'react';
import { drawingSvg } from '#core/format/drawingSvg.ts';
import { writeGcode } from '#core/format/gcode.ts';
import { isSide, SIDE_NAMES } from '#core/features/edge.ts';
import type { BoardSize } from '#core/features/groove.ts';
import { jobDrawing, type Job } from '#core/machining/job.ts';
import { runGcode, type Run } from '#core/machining/simulate.ts';
import { saveFile } from '../../data/saveFile.ts';
import { durationWords } from '../../quantities/duration.ts';
import { Length, Say } from '../../quantities/Length.tsx';
import classes from './TemplateView.module.css';

interface MachineRunProps {
  jobs: readonly Job[];
  size: BoardSize;
  boardName: string;
}

type Machine = Job['machine'];
const MACHINES = [
  { value: 'router', label: 'Router' },
  { value: 'engraver', label: 'Engraver' },
] as const;
/** How far the middle of a tool may stand outside the board, and how deep it may go beyond it, mm: the waste board underneath. */
const BEYOND = 20;
const WASTE_BOARD = 1;
/** A job file is text; larger ones are not for a board. */
const GREATEST_JOB_BYTES = 20_000_000;

/** Job files for a router or an engraver, tried out on simulated ones: what they would do, how long it takes, and what they refuse. */
export function MachineRun({ jobs, size, boardName }: MachineRunProps) {
  const [chosen, setChosen] = useState<string | null>(null);
  const [own, setOwn] = useState<{ name: string; text: string } | null>(null);
  const [machine, setMachine] = useState<Machine>('router');
  const [problem, setProblem] = useState<string | null>(null);
  const job = own ? null : (jobs.find((j) => j.id === chosen) ?? jobs[0] ?? null);
  const text = own?.text ?? (job ? writeGcode(job) : null);
  const onMachine = job?.machine ?? machine;
  // The plug of an inlay lies on a blank of its own.
  const lying = job?.size ?? size;
  const run = useMemo(
    () =>
      text === null
        ? null
        : runGcode(text, { machine: onMachine, size: lying, beyond: BEYOND, deepest: lying.thickness + WASTE_BOARD }),
    [text, onMachine, lying],
  );
  const take = async (file: File | null) => {
    if (!file) return;
    if (file.size > GREATEST_JOB_BYTES) {
      setProblem(`${file.name} is larger than ${GREATEST_JOB_BYTES / 1e6} MB; that is not a job for a board.`);
      return;
    }
    setProblem(null);
    setOwn({ name: file.name, text: await file.text() });
  };
  return (
    <div className={classes.run}>
      <p className={classes.use}>
        Simulated machines take the file as one in the shop would: they follow it line by line and refuse what collides.
        Nothing here is connected to anything.
      </p>
      <div className={classes.list} role="group" aria-label="Jobs">
        {jobs.map((j) => (
          <button
            key={j.id}
            type="button"
            className={classes.chip}
            aria-pressed={!own && j.id === job?.id}
            onClick={() => {
              setOwn(null);
              setChosen(j.id);
            }}
          >
            {j.name}, {j.machine}
          </button>
        ))}
        {own && (
          <span className={classes.chip} data-own>
            {own.name}
          </span>
        )}
        <FileButton accept=".nc,.gcode,.ngc,.tap,.txt" onChange={(file) => void take(file)}>
          {(props) => (
            <Button size="compact-sm" variant="default" {...props}>
              Try a file
            </Button>
          )}
        </FileButton>
        {own && (
          <SegmentedControl
            size="xs"
            aria-label="Machine"
            value={machine}
            onChange={(v) => setMachine(v)}
            data={[...MACHINES]}
          />
        )}
      </div>
      {problem && (
        <p className={classes.refused} role="alert">
          {problem}
        </p>
      )}
      {jobs.length === 0 && !own && (
        <p className={classes.use}>A groove, a hand hole or a mark with a drawing becomes a job file here.</p>
      )}
      {run && (
        <>
          <ToolPath run={run} size={lying} />
          <Report run={run} />
          {job && (
            <>
              <p className={classes.use}>
                <Say phrase={job.tool} />,{' '}
                {isSide(job.face) ? SIDE_NAMES[job.face] : job.face === 'top' ? 'show side' : 'underside'} up; zero at
                the left near corner, on the face that lies up.
              </p>
              <Button
                size="xs"
                variant="default"
                disabled={run.refused.length > 0}
                onClick={() =>
                  saveFile(new Blob([certain(text)], { type: 'text/plain' }), `${boardName} ${job.name}`, 'nc')
                }
              >
                Save as G-code
              </Button>{' '}
              <Button
                size="xs"
                variant="default"
                onClick={() =>
                  saveFile(
                    new Blob([drawingSvg(jobDrawing(job))], { type: 'image/svg+xml' }),
                    `${boardName} ${job.name}`,
                    'svg',
                  )
                }
              >
                Save its lines as SVG
              </Button>
            </>
          )}
          <p className={classes.caution}>
            ⚠ Clamp the board, run the file in the air first, stay beside it: eyes, ears, air. The machine&apos;s manual
            and training come first.
          </p>
        </>
      )}
    </div>
  );
}

function Report({ run }: { run: Run }) {
  return (
    <div role="status">
      <p className={classes.report}>
        <span>
          <b>{durationWords(run.minutes)}</b>
        </span>{' '}
        <span>
          <b>{(run.cutLength / 1000).toFixed(run.cutLength < 10_000 ? 2 : 1)} m</b> of cut
        </span>{' '}
        <span>
          deepest{' '}
          <b>
            <Length mm={run.deepest} />
          </b>
        </span>
      </p>
      {run.refused.length > 0 && (
        <div className={classes.refused}>
          <b>Refused:</b>
          <ul>
            {run.refused.map((r, i) => (
              <li key={i}>
                Line {r.line}: {r.what}
              </li>
            ))}
          </ul>
        </div>
      )}
    </div>
  );
}

/** Height of the drawing at most, pixels; and room round the board, mm. */
const MOST_HEIGHT = 300;
const MARGIN = 12;

/** Ways of the tool over the board, seen from above as it lies on the machine: dashed where it travels, darker where it cuts deeper. */
function ToolPath({ run, size }: { run: Run; size: BoardSize }) {
  // Moves that draw alike make one path: a file of thousands of lines stays light.
  const paths = useMemo(() => {
    const of = new Map<string, { rapid: boolean; depth: number; d: string }>();
    for (const { rapid, from, to } of run.moves) {
      if (from.x === to.x && from.y === to.y) continue;
      const depth = rapid ? 0 : Math.max(0, -to.z);
      const key = rapid ? 'rapid' : depth.toFixed(1);
      const known = of.get(key) ?? { rapid, depth, d: '' };
      known.d += `M${from.x.toFixed(2)} ${(size.width - from.y).toFixed(2)}L${to.x.toFixed(2)} ${(size.width - to.y).toFixed(2)}`;
      of.set(key, known);
    }
    return [...of.values()].sort((a, b) => a.depth - b.depth);
  }, [run, size]);
  return (
    <svg
      className={classes.path}
      viewBox={`${-MARGIN} ${-MARGIN} ${size.length + 2 * MARGIN} ${size.width + 2 * MARGIN}`}
      style={{ maxHeight: MOST_HEIGHT }}
      role="img"
      aria-label="Ways of the tool over the board"
    >
      <rect width={size.length} height={size.width} className={classes.stock} />
      {paths.map((p) => (
        <path
          key={`${p.rapid} ${p.depth}`}
          d={p.d}
          className={p.rapid ? classes.rapid : classes.cutting}
          style={p.rapid ? undefined : { opacity: 0.45 + 0.55 * Math.min(1, p.depth / Math.max(run.deepest, 0.1)) }}
        />
      ))}
    </svg>
  );
}
