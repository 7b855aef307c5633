import { Button, SegmentedControl, Select, Switch } from '@mantine/core';
import { IconDownload, IconHistory, IconRotateClockwise2, IconSparkles } from '@tabler/icons-react';
import { memo } from 'react';
import type { Construction } from '#core/board/board.ts';
import { OVERLAYS, OVERLAY_WORDS, type Overlay } from './overlay.ts';
import classes from './ViewBar.module.css';

export const VIEWS = ['top', 'under', 'round', 'versions'] as const;
export type View = (typeof VIEWS)[number];

interface ViewBarProps {
  view: View;
  oiled: boolean;
  overlay: Overlay;
  versions: number;
  construction: Construction;
  /** The board is cut and glued again. */
  recut: boolean;
  onView(view: View): void;
  onOiled(oiled: boolean): void;
  onOverlay(overlay: Overlay): void;
  onShuffle(): void;
  onHistory(): void;
  onExport(): void;
  onSwitch(): void;
}

/** How the board is looked at, and what else can be done with it as a whole. */
export const ViewBar = memo(function ViewBar({
  view,
  oiled,
  overlay,
  versions,
  construction,
  recut,
  onView,
  onOiled,
  onOverlay,
  onShuffle,
  onHistory,
  onExport,
  onSwitch,
}: ViewBarProps) {
  return (
    <div className={classes.bar} role="toolbar" aria-label="How the board is looked at">
      <SegmentedControl
        size="xs"
        aria-label="View"
        value={view}
        onChange={(v) => onView(v)}
        data={[
          { value: 'top', label: 'Top' },
          { value: 'under', label: 'Underside' },
          ...(recut ? [] : [{ value: 'round' as const, label: 'In the round' }]),
          { value: 'versions', label: versions > 0 ? `Versions (${versions + 1})` : 'Versions' },
        ]}
      />
      <Switch size="xs" label="Oiled" checked={oiled} onChange={(event) => onOiled(event.currentTarget.checked)} />
      {(view === 'top' || view === 'under') && (
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
        <Button size="compact-xs" variant="subtle" leftSection={<IconSparkles size={15} />} onClick={onShuffle}>
          Shuffle
        </Button>
        <Button size="compact-xs" variant="subtle" leftSection={<IconHistory size={15} />} onClick={onHistory}>
          History
        </Button>
        <Button size="compact-xs" variant="subtle" leftSection={<IconDownload size={15} />} onClick={onExport}>
          Export
        </Button>
        {!recut && (
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
