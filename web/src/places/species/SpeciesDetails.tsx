import type { Ref } from 'react';
import { Link } from 'react-router';
import { Measured } from '../../quantities/Measured.tsx';
import { isFromBooks } from '#core/wood/handbookSpecies.ts';
import type { Species } from '#core/wood/species.ts';
import classes from './SpeciesPlace.module.css';
import { PORE_WORDS } from './speciesWords.ts';
import { SpeciesFields } from './SpeciesFields.tsx';
import { WoodSwatch } from './WoodSwatch.tsx';

const DUST: Readonly<Record<Species['dust'], string>> = {
  usual: 'Harmful as all wood dust is: extraction, and a mask.',
  irritant: 'Irritates eyes, skin and airways: extraction, a mask, covered arms.',
  sensitiser: 'Some people become allergic to it: a mask for every cut, and hands washed after.',
};

/** One species with all its figures, each with who says so. */
export function SpeciesDetails({ species, pieces, ref }: { species: Species; pieces: number; ref: Ref<HTMLElement> }) {
  const {
    name,
    botanical,
    density,
    hardness,
    radial,
    tangential,
    pores,
    oily,
    bleeds,
    foodNote,
    dust,
    source,
    movementSource,
    cautionSource,
  } = species;
  const percent = (share: number | null) =>
    share === null ? 'not known' : `${(100 * share).toFixed(3)} % a percent of moisture`;
  return (
    <aside ref={ref} className={classes.details} aria-label={`About ${name}`}>
      <WoodSwatch species={species} width={320} height={110} scale={1} />
      <h2>{name}</h2>
      <p className={classes.botanical}>{botanical}</p>
      <dl>
        <dt>Weight at 12 % moisture</dt>
        <dd>
          <Measured quantity="density" value={density} />
        </dd>
        <dt>Side hardness</dt>
        <dd>{hardness === null ? 'not known' : <Measured quantity="hardness" value={hardness} />}</dd>
        <dt>Moves across the rings</dt>
        <dd>{percent(radial)}</dd>
        <dt>Moves along the rings</dt>
        <dd>{percent(tangential)}</dd>
        <dt>Pores</dt>
        <dd>
          {PORE_WORDS[pores]}
          {pores === 'ring' && ': open pores hold dirt where it meets food'}
        </dd>
        <dt>Before glue</dt>
        <dd>{oily ? 'Oily: wiped with acetone, glued within minutes' : 'Nothing special'}</dd>
        <dt>Beside pale wood</dt>
        <dd>{bleeds ? 'Bleeds: its dust and oil stain pale neighbours' : 'Does not bleed'}</dd>
        <dt>Dust</dt>
        <dd>{DUST[dust]}</dd>
        {foodNote !== '' && (
          <>
            <dt>With food</dt>
            <dd>{foodNote}</dd>
          </>
        )}
        <dt>In the rack</dt>
        <dd>
          {pieces === 0 ? (
            'none'
          ) : (
            <Link to="/rack">
              {pieces} {pieces === 1 ? 'piece' : 'pieces'}
            </Link>
          )}
        </dd>
      </dl>
      <p className={classes.sources}>
        Weight and hardness: {source}.{movementSource !== '' && ` Movement: ${movementSource}.`}
        {cautionSource !== '' && ` Cautions: ${cautionSource}.`}
      </p>
      {!isFromBooks(species) ? (
        <details>
          <summary>Change its figures</summary>
          <SpeciesFields species={species} />
        </details>
      ) : (
        <p className={classes.sources}>It comes with Cadenza. Add one like it below to have figures of your own.</p>
      )}
    </aside>
  );
}
