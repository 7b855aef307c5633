import { ColorInput, Select, Switch } from '@mantine/core';
import { z } from 'zod';
import { dustCautions, poreStructures, speciesSchema, type Species } from '#core/wood/species.ts';
import { api } from '../../data/api.ts';
import { keys, queryClient } from '../../data/queryClient.ts';
import { QuantityField } from '../../quantities/QuantityField.tsx';
import { showProblem, showUndo } from '../../shell/notices.tsx';
import { NumberField, TextField } from '../../quantities/plainFields.tsx';
import classes from './SpeciesPlace.module.css';
import { PORE_WORDS } from './speciesWords.ts';

const { shape } = speciesSchema;
const TEXTS = [
  ['name', 'Trade name'],
  ['botanical', 'Botanical name'],
  ['foodNote', 'With food'],
  ['source', 'Weight and hardness from'],
  ['movementSource', 'Movement from'],
  ['cautionSource', 'Cautions from'],
] as const;
const MOVES = [
  ['radial', 'Across the rings'],
  ['tangential', 'Along the rings'],
] as const;
const COLOURS = [
  ['colour', 'Dry wood'],
  ['lineColour', 'Its late-wood lines'],
  ['sapColour', 'Its sapwood'],
] as const;
const DUST_WORDS: Readonly<Record<Species['dust'], string>> = {
  usual: 'As all wood dust',
  irritant: 'Irritates',
  sensitiser: 'Makes some people allergic',
};
/** A wood swells at most so much for a percent of moisture, percent. */
const MOST_PERCENT = 1;
/** Coefficients are typed in percent for each percent of moisture. */
const percentSchema = z
  .number()
  .min(0)
  .max(MOST_PERCENT, { error: `must be at most ${MOST_PERCENT} %` });

/** The figures of a species of one's own: each is saved as it is left, and every plan with it follows. */
export function SpeciesFields({ species }: { species: Species }) {
  const save = async (next: Species, before: Species) =>
    queryClient.setQueryData(keys.species, await api.changeSpecies(before, next));
  const change = (edit: Partial<Species>) => {
    const next = { ...species, ...edit };
    save(next, species).then(
      () => showUndo(`${next.name} is changed; plans with it follow.`, async () => void (await save(species, next))),
      (error: unknown) => {
        showProblem(error);
        void queryClient.invalidateQueries({ queryKey: keys.species });
      },
    );
  };
  return (
    <div className={classes.fields}>
      {TEXTS.slice(0, 2).map(([key, label]) => (
        <TextField
          key={key}
          field={label}
          value={species[key]}
          schema={shape[key]}
          onCommit={(v) => change({ [key]: v })}
        />
      ))}
      <QuantityField
        field="Weight at 12 % moisture"
        quantity="density"
        value={species.density}
        schema={shape.density}
        onCommit={(density) => change({ density })}
      />
      <QuantityField
        field="Side hardness"
        quantity="hardness"
        value={species.hardness ?? 0}
        schema={shape.hardness.unwrap()}
        onCommit={(hardness) => change({ hardness })}
      />
      {MOVES.map(([key, label]) => (
        <NumberField
          key={key}
          field={`Moves ${label.toLowerCase()}`}
          description="Percent for each percent of moisture"
          suffix=" %"
          value={Number((100 * (species[key] ?? 0)).toFixed(6))}
          schema={percentSchema}
          onCommit={(v) => change({ [key]: v / 100 })}
        />
      ))}
      <Select
        size="sm"
        label="Pores"
        allowDeselect={false}
        value={species.pores}
        data={poreStructures.map((value) => ({ value, label: PORE_WORDS[value] }))}
        onChange={(pores) => pores && change({ pores })}
      />
      <Select
        size="sm"
        label="Dust"
        allowDeselect={false}
        value={species.dust}
        data={dustCautions.map((value) => ({ value, label: DUST_WORDS[value] }))}
        onChange={(dust) => dust && change({ dust })}
      />
      <Switch
        label="Oily: wiped before glue"
        checked={species.oily}
        onChange={(e) => change({ oily: e.currentTarget.checked })}
      />
      <Switch
        label="Bleeds into pale neighbours"
        checked={species.bleeds}
        onChange={(e) => change({ bleeds: e.currentTarget.checked })}
      />
      {COLOURS.map(([key, label]) => (
        <ColorInput
          key={key}
          size="sm"
          label={label}
          value={species[key]}
          onChangeEnd={(v) =>
            shape[key].safeParse(v.toLowerCase()).success &&
            v.toLowerCase() !== species[key] &&
            change({ [key]: v.toLowerCase() })
          }
        />
      ))}
      {TEXTS.slice(2).map(([key, label]) => (
        <TextField
          key={key}
          field={label}
          value={species[key]}
          schema={shape[key]}
          onCommit={(v) => change({ [key]: v })}
        />
      ))}
    </div>
  );
}
