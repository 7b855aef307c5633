import { Button, SegmentedControl } from '@mantine/core';
import type { Insert } from '#core/board/inset.ts';
import { insertSchema } from '#core/board/recipe.ts';
import { lengthBetween } from '#core/units/lengthSchema.ts';
import { LengthInput } from '../../../quantities/LengthInput.tsx';
import { NumberField } from '../../../quantities/plainFields.tsx';
import { StripFields } from './StripFields.tsx';
import { USUAL_ANGLES } from './sliceGeometry.ts';
import type { useInserts } from './useInserts.ts';
import classes from './recut.module.css';

interface PartsFieldsProps {
  work: ReturnType<typeof useInserts>;
  /** The strip in hand. */
  held: Insert | undefined;
  onHold(id: string): void;
}

/** The strips that are put in, and the figures of the one in hand. */
export function PartsFields({ work, held, onHold }: PartsFieldsProps) {
  const { inserts } = work;
  return (
    <>
      <div className={classes.bar} role="toolbar" aria-label="Strips put in">
        {inserts.map((i) => (
          <button
            key={i.operation.id}
            type="button"
            aria-pressed={i.operation.id === held?.operation.id}
            onClick={() => onHold(i.operation.id)}
          >
            Strip {i.number}
          </button>
        ))}
        <Button size="compact-xs" variant="default" title="Key n" onClick={() => work.add(held)}>
          Put in another
        </Button>
        {held && (
          <Button
            size="compact-xs"
            variant="subtle"
            color="red"
            title="Key Delete"
            onClick={() => work.remove(held.operation.id)}
          >
            Take out
          </Button>
        )}
      </div>
      {held && (
        <div className={classes.fields}>
          <StripFields strip={held.strip} label="Wide" onChange={(change) => work.change(held.operation.id, change)} />
          <LengthInput
            key={`at-${held.operation.id}`}
            size="xs"
            w={104}
            field="Place"
            label="From left end"
            mm={held.operation.at}
            schema={lengthBetween(0, work.length)}
            onCommit={(at) => work.change(held.operation.id, { at })}
          />
          <div>
            <NumberField
              key={`angle-${held.operation.id}`}
              size="xs"
              field="Angle"
              suffix="°"
              value={held.angle}
              schema={insertSchema.shape.angle}
              onCommit={(angle) => work.change(held.operation.id, { angle })}
            />
            <span className={classes.angles}>
              {USUAL_ANGLES.map((a) => (
                <button
                  key={a}
                  type="button"
                  aria-pressed={held.angle === a}
                  onClick={() => work.change(held.operation.id, { angle: a })}
                >
                  {a}°
                </button>
              ))}
            </span>
          </div>
          <div>
            <LengthInput
              key={`jog-${held.operation.id}`}
              size="xs"
              w={104}
              field="Jog"
              label="Jog behind it"
              mm={Math.abs(held.jog)}
              schema={lengthBetween(0, 200)}
              onCommit={(jog) => work.change(held.operation.id, { jog: held.jog < 0 ? -jog : jog })}
            />
            {held.jog !== 0 && (
              <SegmentedControl
                size="xs"
                aria-label="Which way it jogs"
                value={held.jog > 0 ? 'nearer' : 'further'}
                onChange={(way) =>
                  work.change(held.operation.id, { jog: way === 'nearer' ? Math.abs(held.jog) : -Math.abs(held.jog) })
                }
                data={[
                  { value: 'nearer', label: 'nearer' },
                  { value: 'further', label: 'further' },
                ]}
              />
            )}
          </div>
        </div>
      )}
    </>
  );
}
