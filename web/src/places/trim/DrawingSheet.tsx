import { outlineLength, svgPath } from '#core/features/outline.ts';
import { extentOf, type Drawing } from '#core/templates/drawing.ts';
import { scaleWords } from '../../drawing/scale.ts';
import classes from './TemplateView.module.css';

const ROOM = { width: 640, height: 360, margin: 24 };
/** Lines shorter than this are not dashed: nothing would be left of them, pixels. */
const SMALL = 30;
/** Words that are made larger hang from where they stood by this share of what they gain. */
const BELOW = 0.8;
/** Words are shown at least this large, pixels. */
const LEAST_LETTERS = 11;

/** A template as it will be printed or cut, made small enough to be seen whole. */
export function DrawingSheet({ drawing }: { drawing: Drawing }) {
  const { left, top, width, height } = extentOf(drawing);
  const scale = Math.min((ROOM.width - 2 * ROOM.margin) / width, (ROOM.height - 2 * ROOM.margin) / height, 3.78);
  const pad = ROOM.margin / scale;
  const [w, h] = [width + 2 * pad, height + 2 * pad];
  return (
    <figure className={classes.sheet}>
      <svg
        viewBox={`${left - pad} ${top - pad} ${w} ${h}`}
        style={{ maxHeight: ROOM.height }}
        role="img"
        aria-label={`Template: ${drawing.title}`}
      >
        {drawing.words.map((t, i) => (
          <text
            key={i}
            x={t.x}
            y={t.y + Math.max(0, LEAST_LETTERS / scale - t.size) * BELOW}
            fontSize={Math.max(t.size, LEAST_LETTERS / scale)}
            textAnchor={t.anchor ?? 'start'}
            className={classes.words}
          >
            {t.text}
          </text>
        ))}
        {drawing.lines.map((l, i) => (
          <path
            key={i}
            d={svgPath(l.outline)}
            className={classes[l.layer]}
            data-small={outlineLength(l.outline) * scale < SMALL || undefined}
          />
        ))}
      </svg>
      <figcaption>
        About {scaleWords(scale)} here; files are at full size. Black is cut, blue is marked, grey only helps the eye.
      </figcaption>
    </figure>
  );
}
