import { firstOf } from '#core/lists/there.ts';
import { Button, Select } from '@mantine/core';
import { useMemo, useState } from 'react';
import { DRAWING_FORMATS, drawingFormatIds, type DrawingFormatId } from '#core/format/drawingFormats.ts';
import type { Paper } from '#core/format/drawingPaper.ts';
import { jobsOf } from '#core/machining/job.ts';
import { templatesOf, type Template } from '#core/templates/templates.ts';
import { useSettledBoard } from '../../data/openBoard.tsx';
import { saveFile } from '../../data/saveFile.ts';
import { useDisplay } from '../../quantities/display.tsx';
import { showProblem } from '../../shell/notices.tsx';
import { DrawingSheet } from './DrawingSheet.tsx';
import { MachineRun } from './MachineRun.tsx';
import classes from './TemplateView.module.css';

/** What can be printed, cut or sent to a machine: templates at full size, and job files tried out before they leave. */
export function TemplateView() {
  const { board, plan } = useSettledBoard();
  const { display } = useDisplay();
  const [chosen, setChosen] = useState('board');
  const [paper, setPaper] = useState<Paper>('a4');
  const [busy, setBusy] = useState<DrawingFormatId | null>(null);
  const templates = templatesOf(board, plan.worked, plan.shop, display);
  // Clearing a large drawing takes a while: only when the board has changed.
  const jobs = useMemo(() => jobsOf(plan.worked), [plan.worked]);
  const template: Template = templates.find((t) => t.id === chosen) ?? firstOf(templates);
  const name = `${board.name} ${template.name}`;
  const save = async (id: DrawingFormatId) => {
    setBusy(id);
    try {
      const { mime, write } = DRAWING_FORMATS[id];
      saveFile(new Blob([await write(template.drawing, paper)], { type: mime }), name, id);
    } catch (error) {
      showProblem(error);
    } finally {
      setBusy(null);
    }
  };
  return (
    <>
      <section>
        <h2>Templates at full size</h2>
        <div className={classes.list} role="group" aria-label="Templates">
          {templates.map((t) => (
            <button
              key={t.id}
              type="button"
              className={classes.chip}
              aria-pressed={t.id === template.id}
              onClick={() => setChosen(t.id)}
            >
              {t.name}
            </button>
          ))}
        </div>
        <DrawingSheet drawing={template.drawing} />
        <p className={classes.use}>{template.use}</p>
        <div className={classes.save}>
          {drawingFormatIds.map((id) => (
            <Button
              key={id}
              size="xs"
              variant={id === 'pdf' ? 'filled' : 'default'}
              loading={busy === id}
              onClick={() => void save(id)}
            >
              Save as {DRAWING_FORMATS[id].name}
            </Button>
          ))}
          <Select
            size="xs"
            w={92}
            aria-label="Paper"
            allowDeselect={false}
            value={paper}
            onChange={(v) => setPaper(v as Paper)}
            data={[
              { value: 'a4', label: 'A4' },
              { value: 'letter', label: 'Letter' },
            ]}
          />
        </div>
      </section>
      <section>
        <h2>Machine jobs</h2>
        <MachineRun jobs={jobs} size={plan.worked.size} boardName={board.name} />
      </section>
    </>
  );
}
