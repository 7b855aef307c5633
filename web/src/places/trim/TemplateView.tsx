import { Button, Select } from '@mantine/core';
import { useMemo, useState } from 'react';
import { drawingDxf } from '#core/format/drawingDxf.ts';
import type { Paper } from '#core/format/drawingPdf.ts';
import { drawingSvg } from '#core/format/drawingSvg.ts';
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
  const [busy, setBusy] = useState(false);
  const templates = templatesOf(board, plan.worked, plan.shop, display);
  // Clearing a large drawing takes a while: only when the board has changed.
  const jobs = useMemo(() => jobsOf(plan.worked), [plan.worked]);
  const template: Template = templates.find((t) => t.id === chosen) ?? templates[0]!;
  const name = `${board.name} ${template.name}`;
  const savePdf = async () => {
    setBusy(true);
    try {
      // Loaded when it is asked for: nothing else on the page needs it.
      const { drawingPdf } = await import('#core/format/drawingPdf.ts');
      saveFile(
        new Blob([(await drawingPdf(template.drawing, paper)) as BlobPart], { type: 'application/pdf' }),
        name,
        'pdf',
      );
    } catch (error) {
      showProblem(error);
    } finally {
      setBusy(false);
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
          <Button
            size="xs"
            variant="default"
            onClick={() => saveFile(new Blob([drawingSvg(template.drawing)], { type: 'image/svg+xml' }), name, 'svg')}
          >
            Save as SVG
          </Button>
          <Button
            size="xs"
            variant="default"
            onClick={() => saveFile(new Blob([drawingDxf(template.drawing)], { type: 'image/vnd.dxf' }), name, 'dxf')}
          >
            Save as DXF
          </Button>
          <Button size="xs" loading={busy} onClick={() => void savePdf()}>
            Save as PDF
          </Button>
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
