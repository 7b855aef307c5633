import type { LogEntry } from '#core/log/entry.ts';
import { useSpecies } from '../../data/queries.ts';
import { fitScale, scaleWords } from '../../drawing/scale.ts';
import classes from './log.module.css';

/** The board as it was drawn when it was done, to scale, in the colours of its woods. */
export function LogFace({ entry, wide = 480 }: { entry: LogEntry; wide?: number }) {
  const species = useSpecies();
  const { length, width } = entry.reached;
  const scale = fitScale([length, width], [wide, 320], 2);
  return (
    <figure className={classes.face}>
      <svg
        viewBox={`0 0 ${length * scale} ${width * scale}`}
        width={length * scale}
        role="img"
        aria-label={`${entry.board.name}, drawn from above`}
      >
        {entry.face.map((cell, i) => (
          <polygon
            key={i}
            points={cell.corners.map(([x, y]) => `${x * scale},${y * scale}`).join(' ')}
            fill={species.data?.find((s) => s.code === cell.species)?.colour ?? 'var(--line)'}
            stroke="var(--ink-soft)"
            strokeWidth={0.4}
          />
        ))}
        <rect width={length * scale} height={width * scale} fill="none" stroke="var(--ink)" />
      </svg>
      <figcaption>{scaleWords(scale)}</figcaption>
    </figure>
  );
}
