import { SegmentedControl, TextInput } from '@mantine/core';
import { useMemo, useRef, useState } from 'react';
import { lengthBetween } from '#core/units/lengthSchema.ts';
import { equilibriumMoisture, MOVEMENT_HOLDS, type Seasons } from '#core/wood/moisture.ts';
import { changeCoefficient, movementOf, strainAngles } from '#core/wood/movement.ts';
import type { RingOrientation } from '#core/wood/rings.ts';
import type { Species } from '#core/wood/species.ts';
import { trouble, useRack, useShop, useSpecies } from '../../data/queries.ts';
import { useDisplay } from '../../quantities/display.tsx';
import { Length } from '../../quantities/Length.tsx';
import { LengthInput } from '../../quantities/LengthInput.tsx';
import { Measured } from '../../quantities/Measured.tsx';
import { SeasonFields } from '../../quantities/SeasonFields.tsx';
import { AddSpecies } from './AddSpecies.tsx';
import { SpeciesDetails } from './SpeciesDetails.tsx';
import classes from './SpeciesPlace.module.css';
import { CAUTION_WORDS, PORE_WORDS } from './speciesWords.ts';
import { WoodSwatch } from './WoodSwatch.tsx';
import { Scrolled } from '../../shell/Scrolled.tsx';

/** Widths that can be played with, mm. */
const PLAYED = lengthBetween(1, 3000);
/** A usual board, mm: 300, or 12 in. */
const USUAL_WIDTH = { metric: 300, inch: 304.8 };
const RINGS: { value: RingOrientation; label: string }[] = [
  { value: 'flat', label: 'Flat-sawn' },
  { value: 'rift', label: 'Rift' },
  { value: 'quarter', label: 'Quarter-sawn' },
];

/** Every species: how it looks, what it weighs, how hard it is, how it moves, what to mind and who says so. */
export function SpeciesPlace() {
  const species = useSpecies();
  const rack = useRack();
  const shop = useShop();
  const [search, setSearch] = useState('');
  const [chosen, setChosen] = useState<string | null>(null);
  const { display } = useDisplay();
  const [typed, setWidth] = useState<number | null>(null);
  const width = typed ?? USUAL_WIDTH[display.system];
  const details = useRef<HTMLElement>(null);
  // Under the list, what was chosen comes into sight.
  const choose = (code: string) => {
    setChosen(code);
    if (window.matchMedia('(max-width: 900px)').matches)
      requestAnimationFrame(() => details.current?.scrollIntoView({ block: 'start' }));
  };
  const [rings, setRings] = useState<RingOrientation>('flat');
  const [own, setSeasons] = useState<Seasons | null>(null);
  const pieces = useMemo(() => {
    const counts = new Map<string, number>();
    for (const { piece: p } of rack.data ?? []) counts.set(p.species, (counts.get(p.species) ?? 0) + p.count);
    return counts;
  }, [rack.data]);
  const problem = trouble(species, rack, shop);
  if (!species.data || !shop.data)
    return (
      <p className={classes.loading} role={problem ? 'alert' : undefined}>
        {problem ? `${problem.message} Cadenza keeps trying.` : 'Loading …'}
      </p>
    );

  const seasons = own ?? shop.data.shop.seasons;
  const [dry, damp] = [equilibriumMoisture(seasons.dry), equilibriumMoisture(seasons.damp)];
  const holds = Math.min(dry, damp) >= MOVEMENT_HOLDS.least && Math.max(dry, damp) <= MOVEMENT_HOLDS.greatest;
  const wanted = search.trim().toLowerCase();
  const found = species.data
    .filter((s) => `${s.name} ${s.botanical}`.toLowerCase().includes(wanted))
    .sort((a, b) => (pieces.get(b.code) ?? 0) - (pieces.get(a.code) ?? 0) || a.name.localeCompare(b.name));
  const shown = found.find((s) => s.code === chosen) ?? found[0];
  return (
    <div className={classes.page}>
      <header>
        <h1>Species</h1>
        <TextInput
          size="sm"
          aria-label="Search species"
          placeholder="Search, by trade or botanical name"
          value={search}
          onChange={(e) => setSearch(e.currentTarget.value)}
          w={280}
        />
      </header>
      <section className={classes.play} aria-label="Movement">
        <div className={classes.question}>
          How much wider is{' '}
          <LengthInput
            size="xs"
            w={110}
            label={null}
            field="Width that moves"
            mm={width}
            schema={PLAYED}
            onCommit={setWidth}
          />{' '}
          of wood that is
          <SegmentedControl
            size="xs"
            aria-label="How it was sawn"
            value={rings}
            onChange={setRings}
            data={RINGS}
          /> at{' '}
          {damp.toFixed(1)} % moisture than at {dry.toFixed(1)} %?
        </div>
        <details>
          <summary>The air of the dry and the damp month</summary>
          <div className={classes.air}>
            <SeasonFields
              seasons={seasons}
              inherit={{ label: 'As the shop says', on: own === null, choose: () => setSeasons(null) }}
              onChange={setSeasons}
            />
          </div>
        </details>
        {!holds && (
          <p className={classes.caution}>
            The coefficients hold between {MOVEMENT_HOLDS.least} and {MOVEMENT_HOLDS.greatest} % moisture: outside it
            the figures are a guess.
          </p>
        )}
      </section>
      <div className={classes.both}>
        <SpeciesTable
          list={found}
          shown={shown?.code ?? null}
          pieces={pieces}
          moves={(s) => movement(s, width, rings, dry, damp)}
          onChoose={choose}
        />
        {shown ? (
          <SpeciesDetails key={shown.code} ref={details} species={shown} pieces={pieces.get(shown.code) ?? 0} />
        ) : (
          <p className={classes.none}>No species is called so.</p>
        )}
      </div>
      <AddSpecies
        species={species.data}
        onAdded={(code) => {
          setSearch('');
          setChosen(code);
        }}
      />
    </div>
  );
}

/** How much wider a width becomes, mm; null where nobody has entered how the species moves. */
function movement(species: Species, width: number, rings: RingOrientation, dry: number, damp: number): number | null {
  const coefficient = changeCoefficient(species, strainAngles(rings, 'face').across);
  return coefficient === null ? null : movementOf(width, coefficient, dry, damp);
}

interface SpeciesTableProps {
  list: readonly Species[];
  shown: string | null;
  pieces: ReadonlyMap<string, number>;
  moves(species: Species): number | null;
  onChoose(code: string): void;
}

function SpeciesTable({ list, shown, pieces, moves, onChoose }: SpeciesTableProps) {
  const { display } = useDisplay();
  return (
    <Scrolled name="Species">
      <table className={classes.table}>
        <thead>
          <tr>
            <th scope="col">Species</th>
            <th scope="col">In the rack</th>
            <th scope="col">Moves{display.system === 'metric' && ', mm'}</th>
            <th scope="col">Weight</th>
            <th scope="col">Side hardness</th>
            <th scope="col">Pores</th>
            <th scope="col">Mind</th>
          </tr>
        </thead>
        <tbody>
          {list.map((s) => {
            const by = moves(s);
            return (
              <tr key={s.code} data-shown={s.code === shown || undefined}>
                <th scope="row">
                  <button type="button" aria-pressed={s.code === shown} onClick={() => onChoose(s.code)}>
                    <WoodSwatch species={s} /> {s.name}
                  </button>
                </th>
                <td>{pieces.get(s.code) ?? ''}</td>
                <td>{by === null ? 'not known' : <Length mm={by} bare={display.system === 'metric'} />}</td>
                <td>
                  <Measured quantity="density" value={s.density} />
                </td>
                <td>{s.hardness === null ? 'not known' : <Measured quantity="hardness" value={s.hardness} />}</td>
                <td>{PORE_WORDS[s.pores]}</td>
                <td>
                  {CAUTION_WORDS.filter(([, holds]) => holds(s))
                    .map(([word]) => word)
                    .join(', ')}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </Scrolled>
  );
}
