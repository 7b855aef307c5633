import { memo, useCallback, useMemo, useSyncExternalStore } from 'react';
import type { Workpiece } from '#core/recipe/workpiece.ts';
import type { Species } from '#core/wood/species.ts';
import classes from './drawing.module.css';
import { drawnCells, faceRequest, type DrawnCell } from './wood/faceRequest.ts';
import { woodPictures } from './wood/woodPictures.ts';

interface FaceProps {
  thing: Workpiece;
  side?: 'top' | 'under';
  /** Pixels per mm. */
  scale: number;
  /** Codes of species by the id of the strip. */
  species: ReadonlyMap<string, Species | undefined>;
}

const UNKNOWN_COLOUR = '#b9bec4';
const MOST_DENSITY = 2;
/** Joints closer than this many pixels would cover the wood they divide. */
const LEAST_JOINT_PX = 5;

/** One side of a thing glued of many cells, each in the colour of its species; joints between them. */
export const FaceCells = memo(function FaceCells({ thing, side = 'top', scale, species }: FaceProps) {
  const cells = useMemo(() => drawnCells(thing, side), [thing, side]);
  return (
    <>
      {bySpecies(cells, species).map(([colour, own]) => (
        <path key={colour} d={own.map((c) => outline(c, scale)).join('')} fill={colour} />
      ))}
      <Joints cells={cells} scale={scale} />
    </>
  );
});

/** The same, painted from the wood that each cell is cut from; until the picture is there, its colours. */
export const FaceWood = memo(function FaceWood({
  thing,
  side = 'top',
  scale,
  species,
  oiled,
}: FaceProps & { oiled: boolean }) {
  const pixels = Math.min(MOST_DENSITY, window.devicePixelRatio);
  const request = useMemo(() => {
    const made = faceRequest(thing, side, (strip) => species.get(strip), scale * pixels, oiled);
    woodPictures.ask(made);
    return made;
  }, [thing, side, species, scale, pixels, oiled]);
  const subscribe = useCallback((told: () => void) => woodPictures.use(request, told), [request]);
  const url = useSyncExternalStore(subscribe, () => woodPictures.url(request.key));
  const cells = useMemo(() => drawnCells(thing, side), [thing, side]);
  if (url === null) return <FaceCells thing={thing} side={side} scale={scale} species={species} />;
  return (
    <>
      <image
        href={url}
        width={thing.size[0] * scale}
        height={thing.size[1] * scale}
        preserveAspectRatio="none"
        data-wood={request.key}
      />
      <Joints cells={cells} scale={scale} />
    </>
  );
});

function Joints({ cells, scale }: { cells: readonly DrawnCell[]; scale: number }) {
  const shown = cells.filter((c) => least(c) * scale >= LEAST_JOINT_PX);
  return <path className={classes.joint} d={shown.map((c) => outline(c, scale)).join('')} />;
}

const least = ({ polygon }: DrawnCell): number => {
  const [xs, ys] = [polygon.map((p) => p[0]), polygon.map((p) => p[1])];
  return Math.min(Math.max(...xs) - Math.min(...xs), Math.max(...ys) - Math.min(...ys));
};

function outline({ polygon }: DrawnCell, scale: number): string {
  return `M${polygon.map(([x, y]) => `${round(x * scale)} ${round(y * scale)}`).join('L')}Z`;
}
const round = (px: number): number => Math.round(px * 100) / 100;

function bySpecies(cells: readonly DrawnCell[], species: FaceProps['species']): [string, DrawnCell[]][] {
  const groups = new Map<string, DrawnCell[]>();
  for (const cell of cells) {
    const colour = species.get(cell.strip)?.colour ?? UNKNOWN_COLOUR;
    const group = groups.get(colour);
    if (group) group.push(cell);
    else groups.set(colour, [cell]);
  }
  return [...groups];
}
