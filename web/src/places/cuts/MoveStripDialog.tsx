import { Button, Modal } from '@mantine/core';
import type { RippedStrip } from '#core/cutting/cutPlan.ts';
import { piecesThatGive } from '#core/saw/moveStrip.ts';
import { useSettledBoard } from '../../data/openBoard.tsx';
import { Length } from '../../quantities/Length.tsx';
import classes from './cuts.module.css';

/** The keyboard's way of dragging a strip: choose the piece it shall come from. */
export function MoveStripDialog({
  strip,
  onMove,
  onClose,
}: {
  strip: RippedStrip;
  onMove(pieceId: string | null): void;
  onClose(): void;
}) {
  const {
    input: { rack, shop, saw },
  } = useSettledBoard();
  const { demand, way } = strip;
  const able = piecesThatGive(demand, rack, shop, saw?.promised ?? []);
  const choose = (pieceId: string | null) => {
    onMove(pieceId);
    onClose();
  };
  return (
    <Modal
      opened
      onClose={onClose}
      title={`Take strip ${demand.strip} from …`}
      closeButtonProps={{ 'aria-label': 'Close' }}
    >
      <p className={classes.soft}>
        It needs <Length mm={demand.length} bare /> × <Length mm={way.rip} bare /> × <Length mm={way.thickness} /> once
        flat. These pieces can give it:
      </p>
      <ul className={classes.settings}>
        {able.map((p) => (
          <li key={p.id}>
            <Button variant="subtle" onClick={() => choose(p.id)}>
              {p.mark}
            </Button>{' '}
            <Length mm={p.length} bare /> × <Length mm={p.width} bare /> × <Length mm={p.thickness} />
          </li>
        ))}
      </ul>
      {able.length === 0 && <p>No piece of this species can.</p>}
      <Button mt={10} variant="default" onClick={() => choose(null)}>
        Any piece will do
      </Button>
    </Modal>
  );
}
