import { Button, Select, TextInput } from '@mantine/core';
import { useState, type FormEvent } from 'react';
import { newSpecies } from '#core/wood/newSpecies.ts';
import { speciesSchema, type Species } from '#core/wood/species.ts';
import { api } from '../../data/api.ts';
import { keys, queryClient } from '../../data/queryClient.ts';
import { showProblem, showWord } from '../../shell/notices.tsx';
import classes from './SpeciesPlace.module.css';

/** A species nobody knows yet: its name, and one it is like, whose figures it takes over and says so. */
export function AddSpecies({ species, onAdded }: { species: readonly Species[]; onAdded(code: string): void }) {
  const [name, setName] = useState('');
  const [like, setLike] = useState<string | null>(null);
  const [problem, setProblem] = useState<{ name?: string; like?: string }>({});
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const model = species.find((s) => s.code === like);
    const checked = speciesSchema.shape.name.safeParse(name.trim());
    const twin = species.find((s) => s.name.toLowerCase() === name.trim().toLowerCase());
    const found = {
      ...(!checked.success
        ? { name: `Name ${checked.error.issues[0]?.message ?? 'is not valid'}.` }
        : twin
          ? { name: `${twin.name} is known already.` }
          : {}),
      ...(model ? {} : { like: 'Choose the species it is most like.' }),
    };
    setProblem(found);
    if (!model || Object.keys(found).length > 0) return;
    const made = newSpecies(name.trim(), model, species);
    try {
      queryClient.setQueryData(keys.species, await api.addSpecies(made));
      setName('');
      setLike(null);
      onAdded(made.code);
      showWord(`${made.name} is known now, with the figures of ${model.name}.`);
    } catch (error) {
      showProblem(error);
    }
  };
  return (
    <form className={classes.add} noValidate onSubmit={(e) => void submit(e)} aria-label="Add a species">
      <h2>Another species</h2>
      <TextInput
        size="sm"
        label="Name"
        value={name}
        error={problem.name}
        onChange={(e) => setName(e.currentTarget.value)}
      />
      <Select
        size="sm"
        label="Most like"
        searchable
        value={like}
        error={problem.like}
        data={species.map((s) => ({ value: s.code, label: s.name }))}
        onChange={setLike}
      />
      <Button type="submit" variant="default">
        Add species
      </Button>
    </form>
  );
}
