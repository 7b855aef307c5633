import { useMemo } from 'react';
import { sampleBody } from '#core/bodies/stripBody.ts';
import { newBoard, type Construction } from '#core/board/board.ts';
import { asLook, isFlatLook, LOOKS, type Look } from '#core/board/looks.ts';
import { AS_IT_LIES, flatRecipe } from '#core/board/recipe.ts';
import { makePlan } from '#core/plan/plan.ts';
import { DEFAULT_SHOP } from '#core/shop/shop.ts';
import type { Species } from '#core/wood/species.ts';
import { useSpecies } from '../../data/queries.ts';
import { FaceCells } from '../../drawing/FaceWood.tsx';
import { useStripSpecies } from '../../drawing/useStripSpecies.ts';
import { Wood } from '../../drawing/Wood.tsx';
import classes from './LookChoice.module.css';

const WORDS: Readonly<Record<Look, { name: string; says: string }>> = {
  edge: { name: 'Edge grain', says: 'Strips stand on edge, faces glued. Any thickness; more strips and joints.' },
  face: {
    name: 'Face grain',
    says: 'Strips lie flat, edges glued. Shows the figure; the stock decides the thickness.',
  },
  endGrain: {
    name: 'End grain',
    says: 'The panel sliced across, slices turned up and glued again. Kind to knives; twice the glue-ups.',
  },
  chevron: {
    name: 'Chevron',
    says: 'The panel sliced aslant, every second slice turned over. A zigzag; costs length and width.',
  },
  banded: { name: 'Banded', says: 'Sawn through, a strip across it glued in. Its grain crosses that of the board.' },
  split: { name: 'Split', says: 'Sawn through at a slant, a thin accent glued in; the halves in line, or jogged.' },
  framed: { name: 'Framed', says: 'Trimmed square, strips glued round it. Hides the ends; holds what wants to move.' },
};
/** Looks that put something into strips that are there, or round them. */
const PUT_IN: readonly Look[] = ['banded', 'split', 'framed'];
/** Strips of the little end views, mm: width that shows, height. */
const SAMPLES = { edge: { across: 22, up: 34, count: 6 }, face: { across: 44, up: 22, count: 3 } };
const BODIES = {
  edge: sampleBody(null, 'edge', [100, SAMPLES.edge.across, SAMPLES.edge.up]),
  face: sampleBody(null, 'face', [100, SAMPLES.face.across, SAMPLES.face.up]),
};

interface LookChoiceProps {
  value: Look;
  /** Nothing is laid out yet. */
  empty: boolean;
  onChange(look: Look): void;
}

/** How the board shall look: each drawn small and true, and each the beginning of a recipe. */
export function LookChoice({ value, empty, onChange }: LookChoiceProps) {
  const species = useSpecies();
  const beech = species.data?.find((s) => s.code === 'beech-european');
  return (
    <fieldset className={classes.choice}>
      <legend>How it shall look</legend>
      {LOOKS.map((look) => (
        <label key={look} data-chosen={value === look || undefined}>
          <input
            type="radio"
            name="look"
            value={look}
            checked={value === look}
            disabled={empty && PUT_IN.includes(look)}
            onChange={() => onChange(look)}
          />
          {isFlatLook(look) ? (
            <EndView construction={look} species={beech} />
          ) : (
            <FaceView look={look} species={species.data ?? []} />
          )}
          <span>
            <b>{WORDS[look].name}</b>
            <br />
            {WORDS[look].says}
            {empty && PUT_IN.includes(look) && ' Once strips are laid out.'}
          </span>
        </label>
      ))}
    </fieldset>
  );
}

/** A flat board by its end. */
function EndView({ construction, species }: { construction: Construction; species: Species | undefined }) {
  const { across, up, count } = SAMPLES[construction];
  return (
    <svg width={across * count + 2} height={38} aria-hidden="true">
      {Array.from({ length: count }, (_, i) => (
        <g key={i} transform={`translate(${i * across + 1} ${37 - up})`}>
          <Wood
            x={0}
            y={0}
            scale={1}
            species={species}
            body={BODIES[construction]}
            stripId={`${construction}${i}`}
            side="markedEnd"
          />
          <rect width={across} height={up} fill="none" stroke="#4b3a2a" strokeWidth="0.8" />
        </g>
      ))}
    </svg>
  );
}

type Sampled = Exclude<Look, 'edge' | 'face'>;
const SAMPLE_STRIPS: Readonly<Record<Sampled, { count: number; width: number }>> = {
  endGrain: { count: 8, width: 34 },
  chevron: { count: 11, width: 30 },
  banded: { count: 5, width: 30 },
  split: { count: 5, width: 30 },
  framed: { count: 3, width: 32 },
};
const SAMPLE_SIZE = { length: 340, width: 120, thickness: 30 };
const SAMPLE_SCALE = 0.4;

/** A board that is cut again from above, made as the recipe begins, of two species in turn. */
function FaceView({ look, species }: { look: Sampled; species: readonly Species[] }) {
  const board = useMemo(() => sampleOf(look), [look]);
  const wood = useMemo(
    () => makePlan({ board, rack: [], shop: DEFAULT_SHOP, species: [...species] }).wood?.board,
    [board, species],
  );
  const colours = useStripSpecies(board, species);
  if (!wood) return <svg width={134} height={50} aria-hidden="true" />;
  return (
    <svg width={wood.size[0] * SAMPLE_SCALE + 2} height={wood.size[1] * SAMPLE_SCALE + 2} aria-hidden="true">
      <g transform="translate(1 1)">
        <FaceCells thing={wood} scale={SAMPLE_SCALE} species={colours} />
      </g>
    </svg>
  );
}

function sampleOf(look: Sampled) {
  const { count, width } = SAMPLE_STRIPS[look];
  const strips = Array.from({ length: count }, (_, i) => ({
    ...AS_IT_LIES,
    id: `s${i}`,
    species: (look === 'framed' ? i !== 1 : PUT_IN.includes(look) ? i !== 2 : i % 2 === 0)
      ? 'beech-european'
      : 'walnut-european',
    width: look === 'endGrain' ? width / 2 : width,
  }));
  return asLook({ ...newBoard('metric'), ...SAMPLE_SIZE, recipe: flatRecipe(strips) }, look);
}
