import { Button, NativeSelect } from '@mantine/core';
import { defectFaces, defectKinds, defectSchema, treatments, type Defect } from '#core/stock/defect.ts';
import type { Piece } from '#core/stock/piece.ts';
import { Length } from '../../quantities/Length.tsx';
import { LengthInput } from '../../quantities/LengthInput.tsx';
import classes from './PiecePlace.module.css';
import { DEFECT_WORDS, TREATMENT_WORDS } from './words.ts';

interface DefectFieldsProps {
  piece: Piece;
  chosen: string | null;
  onChoose(id: string | null): void;
  onChange(edit: (defects: Defect[]) => Defect[]): void;
}

const SIZES = [
  ['from', 'From the marked end'],
  ['across', 'From the near edge'],
  ['length', 'Long'],
  ['width', 'Wide'],
] as const;

/** The places on a piece as a list; the chosen one with its figures to type. */
export function DefectFields({ piece, chosen, onChoose, onChange }: DefectFieldsProps) {
  const edit = (id: string, change: Partial<Defect>) =>
    onChange((all) => all.map((d) => (d.id === id ? { ...d, ...change } : d)));
  return (
    <section>
      <h2>On the wood</h2>
      {piece.defects.length === 0 && (
        <p className={classes.soft}>
          Nothing yet. Knots, checks, bark, sapwood, holes, worm, veneer, paint, stain: what must go decides where
          blanks may lie.
        </p>
      )}
      <ul className={classes.defects}>
        {piece.defects.map((d) => (
          <li key={d.id} data-chosen={d.id === chosen || undefined}>
            <button
              type="button"
              onClick={() => onChoose(d.id === chosen ? null : d.id)}
              aria-expanded={d.id === chosen}
            >
              <b>{DEFECT_WORDS[d.kind]}</b> {TREATMENT_WORDS[d.treatment]}{' '}
              <small>
                <Length mm={d.from} bare /> + <Length mm={d.length} bare />, <Length mm={d.across} bare /> +{' '}
                <Length mm={d.width} />
              </small>
            </button>
            {d.id === chosen && (
              <div className={classes.fields}>
                <NativeSelect
                  label="What it is"
                  value={d.kind}
                  data={defectKinds.map((k) => ({ value: k, label: DEFECT_WORDS[k] }))}
                  onChange={(e) => edit(d.id, { kind: e.currentTarget.value as Defect['kind'] })}
                />
                <NativeSelect
                  label="It"
                  value={d.treatment}
                  data={treatments.map((t) => ({ value: t, label: TREATMENT_WORDS[t] }))}
                  onChange={(e) => edit(d.id, { treatment: e.currentTarget.value as Defect['treatment'] })}
                />
                <NativeSelect
                  label="Where"
                  value={d.face}
                  data={defectFaces.map((f) => ({
                    value: f,
                    label: f === 'through' ? 'right through' : `on the ${f === 'up' ? 'upper' : 'lower'} face`,
                  }))}
                  onChange={(e) => edit(d.id, { face: e.currentTarget.value as Defect['face'] })}
                />
                {SIZES.map(([key, label]) => (
                  <LengthInput
                    key={key}
                    field={label}
                    mm={d[key]}
                    schema={defectSchema.shape[key]}
                    onCommit={(mm) => edit(d.id, { [key]: mm })}
                  />
                ))}
                <Button variant="default" onClick={() => onChange((all) => all.filter((x) => x.id !== d.id))}>
                  Take it off
                </Button>
              </div>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
