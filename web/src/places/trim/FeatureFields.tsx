import { certain } from '#core/lists/there.ts';
import { NumberField, TextField } from '../../quantities/plainFields.tsx';
import { Button, Select } from '@mantine/core';
import { FEATURE_NAMES, featureSchema, type Feature } from '#core/features/feature.ts';
import { grooveLines, grooveVolume, jigOpening, type BoardSize } from '#core/features/groove.ts';
import { fenceMark } from '#core/features/solids.ts';
import { Length } from '../../quantities/Length.tsx';
import { LengthInput } from '../../quantities/LengthInput.tsx';
import { ArtField } from './ArtField.tsx';
import { FEATURE_FIELDS, markOnto } from './featureFields.ts';
import classes from './WorkedEditor.module.css';

interface FeatureFieldsProps {
  feature: Feature;
  size: BoardSize;
  /** Across the base of the shop's router; null without one. */
  base: number | null;
  /** The shop's habit put it there. */
  byHabit: boolean;
  /** Strips and glue lines it lies across, in words; empty where there are none. */
  crossed: string;
  onChange(feature: Feature): void;
  onRemove(): void;
}

/** The figures of one feature, and what follows from them. */
export function FeatureFields({ feature, size, base, byHabit, crossed, onChange, onRemove }: FeatureFieldsProps) {
  const value = (key: string) => (feature as unknown as Record<string, unknown>)[key];
  const set = (key: string, to: unknown) => {
    // The floor of an inlay is cleared with a straight bit that does not take all day.
    const changed = featureSchema.parse({
      ...feature,
      [key]: to,
      ...(to === 'inlay' && feature.kind === 'mark'
        ? { bit: Math.max(3, feature.bit), depth: Math.max(feature.depth, feature.plugStart + 1) }
        : {}),
    });
    onChange(
      key === 'face' && feature.kind === 'mark' && changed.kind === 'mark'
        ? markOnto(feature, changed.face, size)
        : changed,
    );
  };
  return (
    <>
      <div className={classes.fields}>
        {FEATURE_FIELDS[feature.kind]
          .filter((f) => f.when?.(feature) ?? true)
          .map((f) => {
            if ('schema' in f)
              return (
                <LengthInput
                  key={f.label}
                  size="xs"
                  field={f.label}
                  mm={value(f.key) as number}
                  schema={f.schema}
                  onCommit={(mm) => set(f.key, mm)}
                />
              );
            if ('text' in f) {
              return (
                <TextField
                  size="xs"
                  key={f.label}
                  field={f.label}
                  value={value(f.key) as string}
                  schema={f.text}
                  onCommit={(text) => set(f.key, text)}
                />
              );
            }
            if ('degrees' in f) {
              return (
                <NumberField
                  size="xs"
                  key={f.label}
                  field={f.label}
                  suffix="°"
                  value={value(f.key) as number}
                  schema={f.degrees}
                  onCommit={(degrees) => set(f.key, degrees)}
                />
              );
            }
            return (
              <Select
                key={f.label}
                size="xs"
                label={f.label}
                allowDeselect={false}
                data={f.choices.map((c) => ({ value: String(c.value), label: c.label }))}
                value={String(value(f.key))}
                onChange={(chosen) => set(f.key, certain(f.choices.find((c) => String(c.value) === chosen)).value)}
              />
            );
          })}
      </div>
      {feature.kind === 'mark' && <ArtField mark={feature} board={size} onChange={onChange} />}
      {crossed && <p className={classes.note}>Crosses {crossed}.</p>}
      <Consequences feature={feature} size={size} base={base} />
      {byHabit ? (
        <p className={classes.note}>The shop puts feet on every board; change them here, or the habit at the step.</p>
      ) : (
        <Button size="compact-xs" variant="default" onClick={onRemove}>
          Remove {FEATURE_NAMES[feature.kind].toLowerCase()}
        </Button>
      )}
    </>
  );
}

/** What the figures of a feature come to: what it holds, what its jig must be. */
function Consequences({ feature, size, base }: { feature: Feature; size: BoardSize; base: number | null }) {
  if (feature.kind === 'groove' && grooveLines(feature, size).length > 0) {
    const jig = base === null ? null : jigOpening(feature, size, base);
    return (
      <p className={classes.note}>
        Holds <b>{Math.round(grooveVolume(feature, size) / 1000)} ml</b>,{' '}
        <b>
          <Length mm={size.thickness - feature.depth} />
        </b>{' '}
        of wood beneath.
        {jig && (
          <>
            {' '}
            Jig for a base of <Length mm={certain(base)} />: opening{' '}
            <b>
              <Length mm={jig.length} /> × <Length mm={jig.width} />
            </b>
            , corners{' '}
            <b>
              <Length mm={jig.corner} />
            </b>
            .
          </>
        )}
      </p>
    );
  }
  if (feature.kind === 'finger')
    return (
      <p className={classes.note}>
        Marks on the fence{' '}
        <b>
          <Length mm={fenceMark(feature, size)} />
        </b>{' '}
        from the middle of the bit, on either side.
      </p>
    );
  return null;
}
