import { SegmentedControl } from '@mantine/core';
import { useSearchParams } from 'react-router';
import { stationOf } from '#core/steps/operation.ts';
import { useSettledBoard } from '../../data/openBoard.tsx';
import { NoStrips } from '../../planning/NoStrips.tsx';
import { BoardSteps } from '../../planning/BoardSteps.tsx';
import { useShortcuts } from '../../shortcuts/Shortcuts.tsx';
import { BoardWork } from './BoardWork.tsx';
import { PanelSize } from './PanelSize.tsx';
import { TemplateView } from './TemplateView.tsx';
import classes from './TrimPlace.module.css';
import { stripsOf } from '#core/board/recipe.ts';

const VIEWS = [
  { value: 'panel', label: 'Size' },
  { value: 'board', label: 'Edges and features' },
  { value: 'files', label: 'Templates and jobs' },
] as const;
type View = (typeof VIEWS)[number]['value'];

/** From the flat panel to finished boards: where they lie and how they are cut, whether they came out square and flat, and what is worked into them. */
export function TrimPlace() {
  const { board, plan, findings } = useSettledBoard();
  const [params, setParams] = useSearchParams();
  const view: View = VIEWS.find((v) => v.value === params.get('view'))?.value ?? 'panel';
  const show = (v: View) => setParams(v === 'panel' ? {} : { view: v }, { replace: true });
  useShortcuts('Trim', [
    { keys: 's', does: 'Show the panel and its sizes', run: () => show('panel') },
    { keys: 'e', does: 'Shape edges and features', run: () => show('board') },
    { keys: 't', does: 'Show templates and jobs', run: () => show('files') },
  ]);
  if (stripsOf(board).length === 0) return <NoStrips />;
  const operations = plan.operations.filter((o) => stationOf(o.kind) === 'trim');
  return (
    <div className={classes.page}>
      <div className={classes.column}>
        <SegmentedControl
          className={classes.views}
          size="sm"
          aria-label="What is trimmed"
          value={view}
          onChange={show}
          data={[...VIEWS]}
        />
        {view === 'panel' ? <PanelSize /> : view === 'board' ? <BoardWork /> : <TemplateView />}
      </div>
      <div className={classes.column}>
        <section>
          <h2>Steps</h2>
          <BoardSteps operations={operations} findings={findings.filter((f) => f.station === 'trim')} />
        </section>
      </div>
    </div>
  );
}
