import classes from './SquareCheck.module.css';

const [W, H] = [250, 130];
/** A lean of half a degree cannot be seen: it is drawn so many times larger, up to a limit. */
const EXAGGERATED = 20;
const MOST_DEGREES = 18;

/** The board with its corners named and its lean drawn far too large, so that one sees which way it goes. */
export function SquareDrawing({ lean }: { lean: number }) {
  const shown = Math.max(-MOST_DEGREES, Math.min(MOST_DEGREES, lean * EXAGGERATED));
  const dx = Math.tan((shown * Math.PI) / 180) * H;
  const [x, y] = [80, 26];
  const corners: [string, number, number][] = [
    ['A', x, y + H],
    ['B', x + W, y + H],
    ['C', x + W + dx, y],
    ['D', x + dx, y],
  ];
  return (
    <svg
      viewBox="0 0 420 190"
      className={classes.drawing}
      role="img"
      aria-label={
        lean === 0
          ? 'The board with corners A to D'
          : `The board leans ${lean > 0 ? 'towards C' : 'towards D'}, drawn ${EXAGGERATED} times too much`
      }
    >
      <path className={classes.outline} d={`M${corners.map(([, cx, cy]) => `${cx} ${cy}`).join('L')}Z`} />
      <path className={classes.reference} d={`M${x} ${y + H}h${W}`} />
      {corners.map(([name, cx, cy], i) => (
        <text key={name} x={cx + (i === 0 || i === 3 ? -14 : 14)} y={cy} textAnchor="middle" dominantBaseline="central">
          {name}
        </text>
      ))}
      <text className={classes.small} x={x + W / 2} y={y + H + 18} textAnchor="middle">
        reference edge, towards you
      </text>
    </svg>
  );
}
