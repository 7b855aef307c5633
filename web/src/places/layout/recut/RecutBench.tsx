import { BackDrawing } from './BackDrawing.tsx';
import { FinishedDrawing } from './FinishedDrawing.tsx';
import { FrameDrawing } from './FrameDrawing.tsx';
import { PartsDrawing } from './PartsDrawing.tsx';
import { RecutFields } from './RecutFields.tsx';
import { RowsDrawing } from './RowsDrawing.tsx';
import { SlicesDrawing } from './SlicesDrawing.tsx';
import { StackDrawing } from './StackDrawing.tsx';
import type { RecutStage } from './stage.ts';
import { useRecut } from './useRecut.ts';
import { LEAST, useRoomUnder } from './useRoomUnder.ts';
import classes from './recut.module.css';

interface RecutBenchProps {
  stage: Exclude<RecutStage, 'panel'>;
  /** Which of several panels its slices are shown of, from 0. */
  panel: number;
  width: number;
  height: number;
  oiled: boolean;
  under: boolean;
}

/** What comes after the first panel: slices and rows, or what is put in, the frame, the back, and the board they make; each is worked on where it is drawn. */
export function RecutBench({ stage, panel, width, height, oiled, under }: RecutBenchProps) {
  const work = useRecut();
  const { above, room } = useRoomUnder(height);
  return (
    <div className={classes.bench}>
      {stage === 'bits' && <StackDrawing width={width} height={height} />}
      {stage === 'slices' && (
        <>
          <div ref={above}>
            <RecutFields work={work} />
          </div>
          <SlicesDrawing width={width} height={room} panel={panel} work={work} />
        </>
      )}
      {stage === 'rows' && <RowsDrawing width={width} height={height} oiled={oiled} work={work} />}
      {stage === 'parts' && <PartsDrawing width={width} height={height} oiled={oiled} />}
      {stage === 'frame' && <FrameDrawing width={width} height={height} oiled={oiled} />}
      {stage === 'back' && <BackDrawing width={width} height={height} oiled={oiled} />}
      {stage === 'board' && (
        <FinishedDrawing width={width} height={Math.max(LEAST, height)} oiled={oiled} under={under} />
      )}
    </div>
  );
}
