import { Button, SegmentedControl } from '@mantine/core';
import { asPanelSees, fromPanel, withoutPanelInTurn } from '#core/board/panels.ts';
import { useOpenBoard } from '../../data/openBoard.tsx';
import classes from './LayoutPlace.module.css';

interface PanelChoiceProps {
  /** From 0. */
  panel: number;
  count: number;
  /** Its strips are under the hands; otherwise its slices are looked at. */
  laidOut: boolean;
  onPanel(panel: number): void;
}

const ORDINALS = ['First', 'Second', 'Third'];

/** Which of several panels is laid out or sliced: their rows come in turn. */
export function PanelChoice({ panel, count, laidOut, onPanel }: PanelChoiceProps) {
  const { session } = useOpenBoard();
  return (
    <div className={classes.panels}>
      <SegmentedControl
        size="xs"
        aria-label={laidOut ? 'Which panel is laid out' : 'Which panel is sliced'}
        value={String(panel)}
        onChange={(value) => onPanel(Number(value))}
        data={Array.from({ length: count }, (_, k) => ({ value: String(k), label: `${ORDINALS[k] ?? k + 1} panel` }))}
      />
      <span>Rows come from each in turn.</span>
      {laidOut && (
        <Button
          size="compact-xs"
          variant="subtle"
          color="red"
          onClick={() => {
            onPanel(0);
            // What is laid out is seen as the first of them.
            session.edit((seen) => asPanelSees(withoutPanelInTurn(fromPanel(seen, panel), panel), panel));
          }}
        >
          Take this panel out
        </Button>
      )}
    </div>
  );
}
