import { Button, SegmentedControl } from '@mantine/core';
import { FRAME_SIDES, type FrameRing, type FrameSide, type FrameStrip } from '#core/board/frame.ts';
import { Length } from '../../../quantities/Length.tsx';
import { StripFields } from './StripFields.tsx';
import type { useFrames } from './useFrames.ts';
import classes from './recut.module.css';

export const SIDE_NAMES: Readonly<Record<FrameSide, string>> = {
  far: 'Far side',
  near: 'Near side',
  left: 'Left end',
  right: 'Right end',
};

/** The strips of a ring, by the sides they lie along. */
export const stripsOfRing = (ring: FrameRing): FrameStrip[] =>
  FRAME_SIDES.flatMap((side) => ring.pairs.flat().find((s) => s.side === side) ?? []);

interface FrameFieldsProps {
  work: ReturnType<typeof useFrames>;
  /** The ring and the strip of it that are in hand. */
  ring: FrameRing;
  held: FrameStrip;
  onRing(id: string): void;
  onSide(side: FrameSide): void;
}

/** The rings round a board, and the figures of the strip in hand. */
export function FrameFields({ work, ring, held, onRing, onSide }: FrameFieldsProps) {
  const { rings } = work;
  const { id, first } = ring.operation;
  const at = rings.indexOf(ring);
  const wood = { species: held.strip.species, width: held.width };
  return (
    <>
      <div className={classes.bar} role="toolbar" aria-label="Rings of the frame">
        {rings.length > 1 &&
          rings.map((r, i) => (
            <button
              key={r.operation.id}
              type="button"
              aria-pressed={r.operation.id === id}
              onClick={() => onRing(r.operation.id)}
            >
              Ring {i + 1}
            </button>
          ))}
        {stripsOfRing(ring).map((s) => (
          <button key={s.side} type="button" aria-pressed={s.side === held.side} onClick={() => onSide(s.side)}>
            {SIDE_NAMES[s.side]}, {s.number}
          </button>
        ))}
        <Button size="compact-xs" variant="default" title="Key n" onClick={() => work.add(wood)}>
          One more ring
        </Button>
        {rings.length > 1 && (
          <>
            <Button size="compact-xs" variant="default" disabled={at === 0} onClick={() => work.move(id, -1)}>
              Further in
            </Button>
            <Button
              size="compact-xs"
              variant="default"
              disabled={at === rings.length - 1}
              onClick={() => work.move(id, 1)}
            >
              Further out
            </Button>
          </>
        )}
        <Button size="compact-xs" variant="subtle" color="red" title="Key Delete" onClick={() => work.remove(id)}>
          Take off
        </Button>
      </div>
      <div className={classes.fields}>
        <StripFields
          strip={held.strip}
          label="Wide, as glued"
          onChange={(change) => work.change(id, [held.side], change)}
        />
        <div className={classes.wood}>
          <Button size="compact-xs" variant="default" onClick={() => work.allLike(id, wood)}>
            All four like it
          </Button>
        </div>
        <div className={classes.wood}>
          <SegmentedControl
            size="xs"
            aria-label="What is glued on first"
            value={first}
            onChange={(value) => work.first(id, value)}
            data={[
              { value: 'sides', label: 'Sides first' },
              { value: 'ends', label: 'Ends first' },
            ]}
          />
        </div>
        <small className={classes.wood}>
          Strip {held.number}: <Length mm={held.length} /> long as crosscut
        </small>
      </div>
    </>
  );
}
