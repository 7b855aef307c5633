import type { Construction } from '#core/board/board.ts';
import { useSpecies } from '../../data/queries.ts';
import { sampleBody } from '#core/bodies/stripBody.ts';
import { Wood } from '../../drawing/Wood.tsx';
import classes from './ConstructionChoice.module.css';

const CHOICES: { value: Construction; name: string; says: string }[] = [
  {
    value: 'edge',
    name: 'Edge grain',
    says: 'Strips stand on edge, faces glued. Any thickness; more strips and joints.',
  },
  {
    value: 'face',
    name: 'Face grain',
    says: 'Strips lie flat, edges glued. Shows the figure; the stock decides the thickness.',
  },
];
/** Strips of the little end views, mm: width that shows, height. */
const SAMPLES = { edge: { across: 22, up: 34, count: 6 }, face: { across: 44, up: 22, count: 3 } };

const BODIES = {
  edge: sampleBody(null, 'edge', [100, SAMPLES.edge.across, SAMPLES.edge.up]),
  face: sampleBody(null, 'face', [100, SAMPLES.face.across, SAMPLES.face.up]),
};

/** Edge or face grain, each shown by its end. */
export function ConstructionChoice({ value, onChange }: { value: Construction; onChange(value: Construction): void }) {
  const species = useSpecies();
  const beech = species.data?.find((s) => s.code === 'beech-european');
  return (
    <fieldset className={classes.choice}>
      <legend>Construction</legend>
      {CHOICES.map((choice) => {
        const { across, up, count } = SAMPLES[choice.value];
        return (
          <label key={choice.value} data-chosen={value === choice.value || undefined}>
            <input
              type="radio"
              name="construction"
              value={choice.value}
              checked={value === choice.value}
              onChange={() => onChange(choice.value)}
            />
            <svg width={across * count + 2} height={38} aria-hidden="true">
              {Array.from({ length: count }, (_, i) => (
                <g key={i} transform={`translate(${i * across + 1} ${37 - up})`}>
                  <Wood
                    x={0}
                    y={0}
                    scale={1}
                    species={beech}
                    body={BODIES[choice.value]}
                    stripId={`${choice.value}${i}`}
                    side="markedEnd"
                  />
                  <rect width={across} height={up} fill="none" stroke="#4b3a2a" strokeWidth="0.8" />
                </g>
              ))}
            </svg>
            <span>
              <b>{choice.name}</b>
              <br />
              {choice.says}
            </span>
          </label>
        );
      })}
    </fieldset>
  );
}
