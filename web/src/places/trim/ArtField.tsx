import { Button, FileButton } from '@mantine/core';
import { useState } from 'react';
import type { FeatureOf } from '#core/features/feature.ts';
import { isSide } from '#core/features/edge.ts';
import type { BoardSize } from '#core/features/groove.ts';
import { inlayFit } from '#core/features/inlay.ts';
import { readSvgFile } from '../../importing/readSvgFile.ts';
import { Length } from '../../quantities/Length.tsx';
import { markOnto } from './featureFields.ts';
import classes from './WorkedEditor.module.css';

interface ArtFieldProps {
  mark: FeatureOf<'mark'>;
  board: BoardSize;
  onChange(mark: FeatureOf<'mark'>): void;
}

/** The drawing of a mark: taken from an SVG file, centred, or taken away again. */
export function ArtField({ mark, board, onChange }: ArtFieldProps) {
  const [told, setTold] = useState<{ problem: string | null; lines: string[] }>({ problem: null, lines: [] });
  const [busy, setBusy] = useState(false);
  const take = async (file: File | null) => {
    if (!file) return;
    setBusy(true);
    const read = await readSvgFile(file);
    setBusy(false);
    if (!read.ok) {
      setTold({ problem: read.problem, lines: [] });
      return;
    }
    setTold({ problem: null, lines: [`${read.nodes} nodes.`, ...read.told] });
    // As long as the mark was, and as wide as the drawing asks for.
    const width = Math.max(
      2,
      Math.min(isSide(mark.face) ? board.thickness : board.width, (mark.length * read.art.width) / read.art.length),
    );
    onChange({
      ...mark,
      art: read.art,
      width: Math.round(width * 10) / 10,
      method: mark.method === 'brand' ? 'laser' : mark.method,
    });
  };
  const { glueGap, faceGap } = inlayFit(mark);
  return (
    <div className={classes.art}>
      <FileButton accept=".svg,image/svg+xml" onChange={(file) => void take(file)}>
        {(props) => (
          <Button size="compact-xs" variant="default" loading={busy} {...props}>
            {mark.art ? 'Another drawing' : 'Take a drawing from SVG'}
          </Button>
        )}
      </FileButton>{' '}
      {mark.art && (
        <Button size="compact-xs" variant="default" onClick={() => onChange({ ...mark, art: null })}>
          Without drawing
        </Button>
      )}{' '}
      <Button size="compact-xs" variant="default" onClick={() => onChange(markOnto(mark, mark.face, board))}>
        Into the middle
      </Button>
      {told.problem && (
        <p className={classes.problem} role="alert">
          {told.problem} The mark is as it was.
        </p>
      )}
      {told.lines.length > 0 && (
        <ul className={classes.told}>
          {told.lines.map((line) => (
            <li key={line}>{line}</li>
          ))}
        </ul>
      )}
      {mark.method === 'inlay' && (
        <p className={classes.note}>
          The plug goes in{' '}
          <b>
            <Length mm={mark.plugStart} />
          </b>
          :{' '}
          <b>
            <Length mm={glueGap} />
          </b>{' '}
          for glue beneath,{' '}
          <b>
            <Length mm={faceGap} />
          </b>{' '}
          between the faces.
        </p>
      )}
    </div>
  );
}
