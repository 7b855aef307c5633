import { IconTrash } from '@tabler/icons-react';
import { memo, type ClipboardEvent, type KeyboardEvent } from 'react';
import { PILE_WORDS, type PileColumn, type PileRow } from '#core/format/pileColumns.ts';
import type { ReadLine } from '#core/format/readPile.ts';
import classes from './PilePlace.module.css';

export const ROW_HEIGHT = 36;

interface PileLineProps {
  index: number;
  top: number;
  row: PileRow;
  read: ReadLine | null;
  columns: readonly PileColumn[];
  onChange(row: number, column: PileColumn, value: string): void;
  onLeave(row: number, column: PileColumn, value: string): void;
  onKey(event: KeyboardEvent<HTMLInputElement>, row: number, column: number): void;
  onPaste(event: ClipboardEvent<HTMLInputElement>, row: number, column: number): void;
  onRemove(): void;
}

/** One piece as it is typed, with what is wrong of it. */
export const PileLine = memo(function PileLine({
  index,
  top,
  row,
  read,
  columns,
  onChange,
  onLeave,
  onKey,
  onPaste,
  onRemove,
}: PileLineProps) {
  return (
    <div
      className={classes.line}
      role="row"
      aria-rowindex={index + 2}
      style={{ transform: `translateY(${top}px)`, height: ROW_HEIGHT }}
    >
      <span className={classes.number} role="rowheader">
        {index + 1}
      </span>
      {columns.map((column, k) => {
        const problem = read?.problems.find((p) => p.column === column);
        return (
          <span key={column} role="gridcell" className={classes.cell} data-column={column}>
            <input
              data-cell={`${index}/${k}`}
              value={row[column] ?? ''}
              aria-label={`${PILE_WORDS[column]}, line ${index + 1}`}
              aria-invalid={problem ? true : undefined}
              title={problem?.message}
              spellCheck={false}
              autoComplete="off"
              onChange={(e) => onChange(index, column, e.currentTarget.value)}
              onBlur={(e) => onLeave(index, column, e.currentTarget.value)}
              onKeyDown={(e) => onKey(e, index, k)}
              onPaste={(e) => onPaste(e, index, k)}
            />
          </span>
        );
      })}
      <span role="gridcell" className={classes.number}>
        <button type="button" aria-label={`Take line ${index + 1} out`} onClick={onRemove}>
          <IconTrash size={15} />
        </button>
      </span>
    </div>
  );
});
