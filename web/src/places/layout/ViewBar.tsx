import { Button, SegmentedControl, Select, Switch } from '@mantine/core';
import { IconDownload, IconHistory, IconRotateClockwise2, IconSparkles } from '@tabler/icons-react';
import { memo } from 'react';
import type { Construction } from '#core/board/board.ts';
import { AddOperation } from './AddOperation.tsx';
import { OVERLAYS, OVERLAY_WORDS, type Overlay } from './overlay.ts';
import type { RecutStage } from './recut/stage.ts';
import classes from './ViewBar.module.css';

export const VIEWS = ['top', 'under', 'round', 'versions'] as const;
export type View = (typeof VIEWS)[number];

interface ViewBarProps {
  view: View;
  oiled: boolean;
  overlay: Overlay;
  versions: number;
  construction: Construction;
  /** What of a board that is cut again is looked at; null for a flat board. */
  stage: RecutStage | null;
  onView(view: View): void;
  onOiled(oiled: boolean): void;
  onOverlay(overlay: Overlay): void;
  onShuffle(): void;
  onHistory(): void;
  onExport(): void;
  onSwitch(): void;
  onStage(stage: RecutStage): void;
}

/** How the board is looked at, and what else can be done with it as a whole. */
export const ViewBar = memo(function ViewBar({
  view,
  oiled,
  overlay,
  versions,
  construction,
  stage,
  onView,
  onOiled,
  onOverlay,
  onShuffle,
  onHistory,
  onExport,
  onSwitch,
  onStage,
}: ViewBarProps) {
  // Strips are handled on the panel alone.
  const strips = stage === null || stage === 'panel';
  return (
    <div className={classes.bar} role="toolbar" aria-label="How the board is looked at">
      <SegmentedControl
        size="xs"
        aria-label="View"
        value={view}
        onChange={(v) => onView(v)}
        data={[
          { value: 'top', label: 'Top' },
          ...(stage !== null && stage !== 'panel' && stage !== 'board'
            ? []
            : [{ value: 'under' as const, label: 'Underside' }]),
          ...(stage === null || stage === 'board' ? [{ value: 'round' as const, label: 'In the round' }] : []),
          { value: 'versions', label: versions > 0 ? `Versions (${versions + 1})` : 'Versions' },
        ]}
      />
      {stage !== 'slices' && (
        <Switch size="xs" label="Oiled" checked={oiled} onChange={(event) => onOiled(event.currentTarget.checked)} />
      )}
      {strips && (view === 'top' || view === 'under') && (
        <Select
          size="xs"
          w={150}
          aria-label="What is shown over the wood"
          allowDeselect={false}
          value={overlay}
          onChange={(v) => onOverlay(v as Overlay)}
          data={OVERLAYS.map((value) => ({ value, label: OVERLAY_WORDS[value] }))}
        />
      )}
      <span className={classes.more}>
        <AddOperation onStage={onStage} />
        {strips && (
          <Button size="compact-xs" variant="subtle" leftSection={<IconSparkles size={15} />} onClick={onShuffle}>
            Shuffle
          </Button>
        )}
        <Button size="compact-xs" variant="subtle" leftSection={<IconHistory size={15} />} onClick={onHistory}>
          History
        </Button>
        <Button size="compact-xs" variant="subtle" leftSection={<IconDownload size={15} />} onClick={onExport}>
          Export
        </Button>
        {stage === null && (
          <Button
            size="compact-xs"
            variant="subtle"
            leftSection={<IconRotateClockwise2 size={15} />}
            onClick={onSwitch}
          >
            {construction === 'edge' ? 'To face grain' : 'To edge grain'}
          </Button>
        )}
      </span>
    </div>
  );
});
