import { ActionIcon, Button, SegmentedControl } from '@mantine/core';
import { IconMinus, IconPlus } from '@tabler/icons-react';
import { useEffect, useMemo, useRef, useState } from 'react';
import { Link } from 'react-router';
import { firstOf } from '#core/lists/there.ts';
import { durationWords } from '../../quantities/duration.ts';
import { momentWords } from '../../scheduling/momentWords.ts';
import { StillWorking } from '../../scheduling/StillWorking.tsx';
import { useShopSchedule, type Search, type ShopSchedule } from '../../scheduling/useShopSchedule.ts';
import { useShortcuts } from '../../shortcuts/Shortcuts.tsx';
import { CalendarAddress } from './CalendarAddress.tsx';
import { CalendarDrawing } from './CalendarDrawing.tsx';
import { CalendarTable } from './CalendarTable.tsx';
import { calendarRows } from './calendarRows.ts';
import { PinPanel, type PinWish } from './PinPanel.tsx';
import classes from './CalendarPlace.module.css';

/** Pixels for an hour, from everything at a glance to single minutes. */
const ZOOMS = [1.5, 3, 6, 12, 24, 48, 96, 160];
const USUAL_ZOOM = 4;

/** All boards on one timeline by resource, in the shop's hours. */
export function CalendarPlace() {
  const { data, error } = useShopSchedule();
  if (!data)
    return (
      <div className={classes.page}>
        <h1>Calendar</h1>
        {error && <p role="alert">{error.message} Cadenza keeps trying.</p>}
      </div>
    );
  return <Calendar data={data} />;
}

function Calendar({ data: newest }: { data: ShopSchedule }) {
  // A better order must not move steps about under the hand that drags one.
  const [held, setHeld] = useState<ShopSchedule | null>(null);
  const data = held ?? newest;
  useEffect(() => {
    if (!held) return undefined;
    // On the window: the step itself may be gone by then, or out of sight.
    const letGo = () => setHeld(null);
    window.addEventListener('pointerup', letGo);
    window.addEventListener('pointercancel', letGo);
    return () => {
      window.removeEventListener('pointerup', letGo);
      window.removeEventListener('pointercancel', letGo);
    };
  }, [held]);
  const { work, problem, schedule, search } = data;
  const [zoom, setZoom] = useState(USUAL_ZOOM);
  const [view, setView] = useState<'drawing' | 'table'>('drawing');
  const [wish, setWish] = useState<PinWish | null>(null);
  const scroller = useRef<HTMLDivElement>(null);
  const words = momentWords(work.zone, problem.from);
  const rows = useMemo(() => calendarRows(data), [data]);
  const chosen = wish && schedule.placed.get(wish.task);
  const nearer = () => setZoom((z) => Math.min(ZOOMS.length - 1, z + 1));
  const farther = () => setZoom((z) => Math.max(0, z - 1));
  const toNow = () => scroller.current?.scrollTo({ left: 0, behavior: 'smooth' });
  useShortcuts('Calendar', [
    { keys: 'i', does: 'Nearer', run: nearer },
    { keys: 'o', does: 'Farther', run: farther },
    { keys: 't', does: 'Drawing or table', run: () => setView((v) => (v === 'table' ? 'drawing' : 'table')) },
    { keys: 'Escape', does: 'Let go of the step', run: () => setWish(null) },
  ]);
  const late = [...schedule.boards.values()].filter((b) => (b.late ?? 0) > 0).length;
  return (
    <div className={classes.page}>
      <header className={classes.head}>
        <h1>Calendar</h1>
        <p>
          {schedule.placed.size === 0
            ? 'Nothing is in work.'
            : `All done by ${words.moment(Math.max(...[...schedule.boards.values()].map((b) => b.handled)))}${late > 0 ? `, ${late} late` : ''}.`}{' '}
          <StillWorking work={work} />
          <SearchWords search={search} length={schedule.score.length} />
        </p>
        <SegmentedControl
          size="xs"
          aria-label="How it is shown"
          value={view}
          onChange={(v) => setView(v)}
          data={[
            { value: 'drawing', label: 'Drawing' },
            { value: 'table', label: 'Table' },
          ]}
        />
        {view === 'drawing' && (
          <span className={classes.zoom}>
            <ActionIcon
              variant="default"
              aria-label="Farther"
              title="Farther (o)"
              onClick={farther}
              disabled={zoom === 0}
            >
              <IconMinus size={16} />
            </ActionIcon>
            <ActionIcon
              variant="default"
              aria-label="Nearer"
              title="Nearer (i)"
              onClick={nearer}
              disabled={zoom === ZOOMS.length - 1}
            >
              <IconPlus size={16} />
            </ActionIcon>
            <Button size="xs" variant="default" onClick={toNow}>
              Now
            </Button>
          </span>
        )}
      </header>
      {work.boards.length === 0 && (
        <p>
          Give a board a day in its brief, or take one up on <Link to="/today">Today</Link>: then its steps lie here.
        </p>
      )}
      {view === 'drawing' ? (
        <CalendarDrawing
          scroller={scroller}
          data={data}
          rows={rows}
          pixelsAnHour={ZOOMS[zoom] ?? 1}
          chosen={wish?.task ?? null}
          onChoose={(task, at) => setWish(task === null ? null : { task, at })}
          onHold={() => setHeld(data)}
          onZoom={(way) => (way > 0 ? nearer() : farther())}
        />
      ) : (
        <CalendarTable data={data} onChoose={(task) => setWish({ task, at: null })} />
      )}
      {wish && chosen && (
        <PinPanel
          key={`${wish.task} ${wish.at}`}
          data={data}
          placed={chosen}
          at={wish.at}
          onClose={() => setWish(null)}
        />
      )}
      {schedule.loose.length > 0 && (
        <p role="status" className={classes.loose}>
          Pins that cannot be kept as they are:{' '}
          {schedule.loose
            .map((id) => schedule.placed.get(id))
            .flatMap((p) =>
              p ? [`${words.moment(p.task.pinned ?? 0)} is now ${words.moment(firstOf(p.hands).from)}`] : [],
            )
            .join('; ')}
          . What they come after is over later, or nobody is there.
        </p>
      )}
      <CalendarAddress data={data} />
    </div>
  );
}

/** How good the order is known to be. */
function SearchWords({ search: { running, gap, proven }, length }: { search: Search; length: number }) {
  if (running) return <span role="status">Looking for a better order …</span>;
  if (proven) return <span>No order is shorter.</span>;
  return gap === null ? null : (
    <span>
      No order could be over more than {durationWords(length - length / (1 + gap))} sooner ({(gap * 100).toFixed(1)} %).
    </span>
  );
}
