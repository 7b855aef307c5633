import { Button, NativeSelect } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { lazy, Suspense, useState } from 'react';
import { Link } from 'react-router';
import { LEAST_PAIRS, lessonsOf, type Lesson } from '#core/log/lessons.ts';
import type { Shop } from '#core/shop/shop.ts';
import { api } from '../../data/api.ts';
import { useShop } from '../../data/queries.ts';
import { keys, queryClient } from '../../data/queryClient.ts';
import { Length, Say } from '../../quantities/Length.tsx';
import { showProblem, showUndo } from '../../shell/notices.tsx';
import classes from './log.module.css';
import type { PairsBy } from './PairChart.tsx';

const PairChart = lazy(async () => ({ default: (await import('./PairChart.tsx')).PairChart }));

/** What finished boards say about the shop's habits: never by itself, one press takes a lesson, another takes it back. */
export function LessonsPlace() {
  const { data, error } = useQuery({ queryKey: ['log', 'pairs'], queryFn: api.logPairs });
  const shop = useShop();
  const [busy, setBusy] = useState(false);
  const [by, setBy] = useState<PairsBy>('machine');
  const lessons = data && shop.data ? lessonsOf(data.pairs, shop.data.shop) : [];
  const save = async (next: Shop) => {
    const stored = await api.shop();
    queryClient.setQueryData(keys.shop, await api.saveShop(stored.version, next));
  };
  const take = async ({ change }: Lesson) => {
    if (!change || !shop.data) return;
    const before = shop.data.shop;
    setBusy(true);
    try {
      await save(change(before));
      showUndo('The habits have changed: every plan follows from them.', () => save(before));
    } catch (problem) {
      showProblem(problem);
    } finally {
      setBusy(false);
    }
  };
  return (
    <div className={classes.page}>
      <div className={classes.tools}>
        <h1>What the log teaches</h1>
        <NativeSelect
          aria-label="Tell apart"
          value={by}
          onChange={(event) => setBy(event.currentTarget.value as PairsBy)}
          data={[
            { value: 'machine', label: 'Told apart by machine' },
            { value: 'species', label: 'by wood' },
            { value: 'step', label: 'by kind of step' },
          ]}
        />
        <Link to="/log">All boards of the log</Link>
      </div>
      {error && <p role="alert">{error.message}</p>}
      {data && lessons.length === 0 && (
        <p className={classes.none}>
          Nothing yet: it takes at least {LEAST_PAIRS} measurements of a kind, or {LEAST_PAIRS} steps that a clock ran
          for. There are {data.pairs.length} of all kinds.
        </p>
      )}
      {lessons.map((lesson) => (
        <section key={lesson.id} className={classes.lesson}>
          <p className={classes.says}>
            <Say phrase={lesson.says} />
          </p>
          {lesson.change ? (
            <p>
              {lesson.unit === 'min' ? (
                `The shop's pace is ${lesson.planned}; with ${lesson.suggested} half of the steps would be done in time. `
              ) : lesson.unit === 'g' ? (
                `With that a face would be planned with ${lesson.suggested} g/m². `
              ) : lesson.unit === 'spares' ? (
                `With ${lesson.suggested} to spare four in five would have had enough. `
              ) : (
                <>
                  Four in five stay within <Length mm={lesson.suggested} />.{' '}
                </>
              )}
              <Button size="sm" loading={busy} onClick={() => void take(lesson)}>
                Plan with that
              </Button>
            </p>
          ) : (
            <p>The habit says the same: nothing to change.</p>
          )}
          <Suspense fallback={null}>
            <PairChart lesson={lesson} by={by} />
          </Suspense>
        </section>
      ))}
    </div>
  );
}
