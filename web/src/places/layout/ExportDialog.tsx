import { Button, Checkbox, Modal, Radio } from '@mantine/core';
import { useState } from 'react';
import { useSettledBoard } from '../../data/openBoard.tsx';
import { saveFile } from '../../data/saveFile.ts';
import { boardSvg, svgAsPng } from '../../drawing/boardSvg.ts';
import { useDisplay } from '../../quantities/display.tsx';
import { showProblem } from '../../shell/notices.tsx';
import classes from './SwitchDialog.module.css';
import { stripsOf } from '#core/board/recipe.ts';

/** Scales to draw at: paper for one of the board. */
const SCALES = [
  { value: 1, label: '1:1, full size' },
  { value: 0.5, label: '1:2' },
  { value: 0.25, label: '1:4' },
  { value: 0.2, label: '1:5' },
  { value: 0.1, label: '1:10' },
];
/** Pixels of a PNG for a millimetre of paper: 150 to the inch. */
const PNG_PX_PER_MM = 150 / 25.4;

/** The board drawn for a customer or the wall. */
export function ExportDialog({ oiled, onClose }: { oiled: boolean; onClose(): void }) {
  const { board, plan, input } = useSettledBoard();
  const { display } = useDisplay();
  const [scale, setScale] = useState(0.25);
  const [dimensions, setDimensions] = useState(true);
  const [stripWidths, setStripWidths] = useState(true);
  const [oil, setOil] = useState(oiled);
  const [busy, setBusy] = useState(false);
  const save = async (kind: 'svg' | 'png') => {
    setBusy(true);
    try {
      const svg = await boardSvg(board, plan, input.species, { scale, dimensions, stripWidths, oiled: oil, display });
      const blob =
        kind === 'svg' ? new Blob([svg.text], { type: 'image/svg+xml' }) : await svgAsPng(svg, PNG_PX_PER_MM);
      saveFile(blob, board.name, kind);
      onClose();
    } catch (error) {
      showProblem(error);
      setBusy(false);
    }
  };
  return (
    <Modal opened onClose={onClose} title="Export the drawing" closeButtonProps={{ 'aria-label': 'Close' }}>
      {stripsOf(board).length === 0 ? (
        <p>There is nothing to draw yet: lay out some strips first.</p>
      ) : (
        <>
          <Radio.Group label="Scale on paper" value={String(scale)} onChange={(v) => setScale(Number(v))}>
            {SCALES.map((s) => (
              <Radio
                key={s.value}
                value={String(s.value)}
                label={`${s.label}: ${Math.round(board.length * s.value)} × ${Math.round(board.width * s.value)} mm`}
                mt={6}
              />
            ))}
          </Radio.Group>
          <Checkbox
            mt="md"
            label="Length and width"
            checked={dimensions}
            onChange={(e) => setDimensions(e.currentTarget.checked)}
          />
          <Checkbox
            mt={6}
            label="Width of each strip"
            checked={stripWidths}
            onChange={(e) => setStripWidths(e.currentTarget.checked)}
          />
          <Checkbox mt={6} mb="md" label="Oiled" checked={oil} onChange={(e) => setOil(e.currentTarget.checked)} />
          <div className={classes.buttons}>
            <Button loading={busy} onClick={() => void save('svg')}>
              Save as SVG
            </Button>
            <Button variant="default" loading={busy} onClick={() => void save('png')}>
              Save as PNG
            </Button>
          </div>
        </>
      )}
    </Modal>
  );
}
