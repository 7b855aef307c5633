import { certain, nth } from '#core/lists/there.ts';
import { useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { usableZones } from '#core/cutting/usable.ts';
import { USUAL_TREATMENT, treatments, type Defect, type DefectKind } from '#core/stock/defect.ts';
import type { Piece } from '#core/stock/piece.ts';
import { formatLength } from '#core/units/formatLength.ts';
import type { Shop } from '#core/shop/shop.ts';
import type { Species } from '#core/wood/species.ts';
import { DefectMark, StockFace } from '../../drawing/StockFace.tsx';
import { Ruler } from '../../drawing/Ruler.tsx';
import { useDisplay } from '../../quantities/display.tsx';
import classes from './PiecePlace.module.css';
import { DEFECT_WORDS, TREATMENT_WORDS } from './words.ts';

interface FaceEditorProps {
  piece: Piece;
  species: Species | undefined;
  shop: Shop;
  face: 'up' | 'down';
  scale: number;
  /** What a rectangle drawn on the wood becomes. */
  kind: DefectKind;
  chosen: string | null;
  onChoose(id: string | null): void;
  onChange(edit: (defects: Defect[]) => Defect[]): void;
  newId(): string;
}

const TOP = 22;
/** Arrow keys move and resize by this much; with Shift by one millimetre. */
const KEY_STEP = 10;
const LEAST_SIZE = 2;
const DRAG_FROM = 3;

/** A face to scale: places are drawn on it, moved and resized by mouse, touch or keys; what stays usable lights up. The lower face is seen with the piece turned over. */
export function FaceEditor({
  piece,
  species,
  shop,
  face,
  scale,
  kind,
  chosen,
  onChoose,
  onChange,
  newId,
}: FaceEditorProps) {
  const { display } = useDisplay();
  const widest = Math.max(piece.width, piece.farEnd?.width ?? 0);
  const svg = useRef<SVGSVGElement>(null);
  const grip = useRef<{ x: number; y: number; defect: Defect; size: boolean; fresh: boolean; moving: boolean } | null>(
    null,
  );
  const [preview, setPreview] = useState<Defect | null>(null);
  const shown = piece.defects
    .filter((d) => d.face === 'through' || d.face === face)
    .map((d) => (preview?.id === d.id ? preview : d));
  if (preview && !shown.some((d) => d.id === preview.id) && (preview.face === face || preview.face === 'through'))
    shown.push(preview);
  const withPreview = preview
    ? { ...piece, defects: [...piece.defects.filter((d) => d.id !== preview.id), preview] }
    : piece;
  const zones = usableZones(withPreview, shop).slice(0, 3);
  const turned = face === 'down';

  const place = (event: PointerEvent) => {
    const box = certain(svg.current).getBoundingClientRect();
    const y = (event.clientY - box.top - TOP) / scale;
    return { x: (event.clientX - box.left - 1) / scale, y: turned ? widest - y : y };
  };
  const inside = (d: Defect): Defect => {
    const length = Math.min(piece.length, Math.max(LEAST_SIZE, Math.round(d.length)));
    const width = Math.min(widest, Math.max(LEAST_SIZE, Math.round(d.width)));
    return {
      ...d,
      length,
      width,
      from: Math.min(piece.length - length, Math.max(0, Math.round(d.from))),
      across: Math.min(widest - width, Math.max(0, Math.round(d.across))),
    };
  };
  const commit = (d: Defect) =>
    onChange((all) => (all.some((x) => x.id === d.id) ? all.map((x) => (x.id === d.id ? d : x)) : [...all, d]));
  const begin = (event: PointerEvent<SVGElement>, defect: Defect | null, size: boolean) => {
    if (event.button !== 0) return;
    event.stopPropagation();
    event.preventDefault();
    certain(svg.current).setPointerCapture(event.pointerId);
    const at = place(event);
    const fresh = defect === null;
    grip.current = {
      ...at,
      size,
      fresh,
      moving: false,
      defect: defect ?? {
        id: newId(),
        kind,
        face,
        from: at.x,
        across: at.y,
        length: 0,
        width: 0,
        treatment: USUAL_TREATMENT[kind],
      },
    };
    if (defect) {
      onChoose(defect.id);
      document.getElementById(`defect-${face}-${defect.id}`)?.focus();
    }
  };
  /** What the pointer makes of the defect that is held; null while it was hardly moved. */
  const shaped = (g: NonNullable<typeof grip.current>, event: PointerEvent): Defect | null => {
    const at = place(event);
    const [dx, dy] = [at.x - g.x, at.y - g.y];
    if (!g.moving && Math.hypot(dx, dy) * scale < DRAG_FROM) return null;
    g.moving = true;
    const { defect: d } = g;
    if (g.fresh)
      return inside({
        ...d,
        from: Math.min(g.x, at.x),
        across: Math.min(g.y, at.y),
        length: Math.abs(dx),
        width: Math.abs(dy),
      });
    return g.size
      ? inside({ ...d, length: d.length + dx, width: d.width + dy })
      : inside({ ...d, from: d.from + dx, across: d.across + dy });
  };
  const move = (event: PointerEvent) => {
    const next = grip.current && shaped(grip.current, event);
    if (next) setPreview(next);
  };
  const end = (event: PointerEvent) => {
    const g = grip.current;
    if (!g) return;
    grip.current = null;
    const last = shaped(g, event);
    if (last) {
      commit(last);
      onChoose(last.id);
    } else if (g.fresh) onChoose(null);
    setPreview(null);
  };
  const keys = (event: KeyboardEvent, d: Defect) => {
    const step = event.shiftKey ? 1 : KEY_STEP;
    const moves: Record<string, [number, number]> = {
      ArrowLeft: [-step, 0],
      ArrowRight: [step, 0],
      ArrowUp: [0, turned ? step : -step],
      ArrowDown: [0, turned ? -step : step],
    };
    const [dx, dy] = moves[event.key] ?? [0, 0];
    if (dx !== 0 || dy !== 0) {
      event.preventDefault();
      commit(
        inside(
          event.altKey
            ? { ...d, length: d.length + dx, width: d.width + (turned ? -dy : dy) }
            : { ...d, from: d.from + dx, across: d.across + dy },
        ),
      );
    } else if (event.key === 'Delete' || event.key === 'Backspace') {
      event.preventDefault();
      onChange((all) => all.filter((x) => x.id !== d.id));
    } else if (event.key === 't')
      commit({ ...d, treatment: nth(treatments, (treatments.indexOf(d.treatment) + 1) % treatments.length) });
  };

  return (
    <svg
      ref={svg}
      className={classes.face}
      width={piece.length * scale + 2}
      height={widest * scale + TOP + 4}
      role="group"
      aria-label={face === 'up' ? 'Upper face' : 'Lower face'}
      onPointerMove={move}
      onPointerUp={end}
      onPointerCancel={() => {
        grip.current = null;
        setPreview(null);
      }}
      onPointerDown={(event) => begin(event, null, false)}
    >
      <g transform={`translate(1 ${TOP})`}>
        <Ruler x={0} y={0} length={piece.length} scale={scale} direction="across" />
        <g transform={turned ? `translate(0 ${widest * scale}) scale(1 -1)` : undefined}>
          <StockFace piece={piece} species={species} scale={scale} face={face} plain />
          {zones.map((z) => (
            <rect
              key={`${z.from}/${z.near}/${z.to}`}
              className={classes.zone}
              x={z.from * scale}
              y={z.near * scale}
              width={(z.to - z.from) * scale}
              height={(z.far - z.near) * scale}
            />
          ))}
          {shown.map((d) => (
            <g
              key={d.id}
              id={`defect-${face}-${d.id}`}
              className={classes.place}
              tabIndex={0}
              role="button"
              aria-pressed={chosen === d.id}
              data-chosen={chosen === d.id || undefined}
              aria-label={`${DEFECT_WORDS[d.kind]}, ${TREATMENT_WORDS[d.treatment]}, ${formatLength(d.from, display)} from the marked end, ${formatLength(d.across, display)} from the near edge, ${formatLength(d.length, display)} by ${formatLength(d.width, display)}. Arrow keys move it, Alt with arrows resizes, T changes the treatment, Delete removes it`}
              onPointerDown={(event) => begin(event, d, false)}
              onFocus={() => onChoose(d.id)}
              onKeyDown={(event) => keys(event, d)}
            >
              <DefectMark defect={d} scale={scale} />
              {chosen === d.id && (
                <rect
                  className={classes.grip}
                  x={(d.from + d.length) * scale - 5}
                  y={(d.across + d.width) * scale - 5}
                  width={10}
                  height={10}
                  onPointerDown={(event) => begin(event, d, true)}
                />
              )}
            </g>
          ))}
        </g>
        {zones.slice(0, 1).map((z) => (
          <text
            key="zone"
            className={classes.zoneText}
            x={((z.from + z.to) / 2) * scale}
            y={(turned ? widest - (z.near + z.far) / 2 : (z.near + z.far) / 2) * scale}
            textAnchor="middle"
            dominantBaseline="central"
          >
            {formatLength(z.to - z.from, display)} × {formatLength(z.far - z.near, display)} clear
          </text>
        ))}
      </g>
    </svg>
  );
}
