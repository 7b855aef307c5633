import { firstOf } from '#core/lists/there.ts';
import { Button, NumberInput, Radio, Select } from '@mantine/core';
import { nanoid } from 'nanoid';
import { clampSchema, glueClasses, glueSchema, type Clamp, type Glue, clampCount } from '#core/shop/gluing.ts';
import type { Shop } from '#core/shop/shop.ts';
import { ClampRow } from '../../clamps/ClampRow.tsx';
import { LengthInput } from '../../quantities/LengthInput.tsx';
import { NumberField, OptionalNumber, TextField } from '../../quantities/plainFields.tsx';
import type { EditShop } from './editShop.ts';
import { Measured } from '../../quantities/Measured.tsx';
import { QuantityField } from '../../quantities/QuantityField.tsx';
import classes from './ShopPlace.module.css';
import { RemoveButton } from '../../quantities/RemoveButton.tsx';

/** Clamps by kind, length, force and count. */
export function ClampList({ shop, onChange }: { shop: Shop; onChange: EditShop }) {
  const set = (id: string, change: Partial<Clamp>) =>
    onChange((s) => ({ ...s, clamps: s.clamps.map((c) => (c.id === id ? { ...c, ...change } : c)) }));
  const total = clampCount(shop.clamps);
  return (
    <>
      {shop.clamps.map((c, i) => (
        <ClampRow
          key={c.id}
          clamps={c}
          number={i + 1}
          className={classes.line}
          onChange={(change) => set(c.id, change)}
          onRemove={() => onChange((s) => ({ ...s, clamps: s.clamps.filter((o) => o.id !== c.id) }))}
        >
          <LengthInput
            size="sm"
            field="Reach"
            mm={c.reach}
            schema={clampSchema.shape.reach}
            onCommit={(reach) => set(c.id, { reach })}
          />
          <QuantityField
            field="Force"
            quantity="force"
            value={c.force}
            schema={clampSchema.shape.force}
            onCommit={(force) => set(c.id, { force })}
          />
        </ClampRow>
      ))}
      <p>
        {total === 0 ? (
          'No clamps: no glue-up can be planned without them.'
        ) : (
          <>
            {total} clamps in all. A pipe clamp turned by a firm hand gives about{' '}
            <Measured quantity="force" value={4.5} />.
          </>
        )}
      </p>
      <Button
        size="xs"
        variant="default"
        onClick={() =>
          onChange((s) => ({
            ...s,
            clamps: [...s.clamps, { id: nanoid(8), kind: 'bar', opening: 900, reach: 50, force: 3, count: 2 }],
          }))
        }
      >
        Add clamps
      </Button>
    </>
  );
}

const MINUTES = [
  ['openMinutes', 'Open', 'Until the joint is closed'],
  ['closedMinutes', 'Until pressed', 'From spreading, open time included'],
  ['handleMinutes', 'Handled after'],
  ['clampMinutes', 'In clamps'],
  ['fullMinutes', 'Full strength after'],
] as const;

/** Glues with their times at 20 degrees C, as the bottle has them; one is the shop's. */
export function GlueList({ shop, onChange }: { shop: Shop; onChange: EditShop }) {
  const set = (id: string, change: Partial<Glue>) =>
    onChange((s) => ({ ...s, glues: s.glues.map((g) => (g.id === id ? { ...g, ...change } : g)) }));
  return (
    <>
      <Radio.Group
        value={shop.glue}
        onChange={(glue) => onChange((s) => ({ ...s, glue }))}
        aria-label="Glue of the shop"
      >
        {shop.glues.map((g) => (
          <div key={g.id} className={classes.machine} role="group" aria-label={g.name}>
            <div className={classes.line}>
              <Radio value={g.id} label="the shop's" aria-label={`Glue with ${g.name}`} mb={8} />
              <TextField
                field="Glue"
                value={g.name}
                schema={glueSchema.shape.name}
                onCommit={(name) => set(g.id, { name })}
              />
              <Select
                size="sm"
                label="Class"
                allowDeselect={false}
                value={g.class}
                data={[...glueClasses]}
                onChange={(value) => set(g.id, { class: value as Glue['class'] })}
              />
              <QuantityField
                field="At least"
                quantity="temperature"
                value={g.leastTemperature}
                schema={glueSchema.shape.leastTemperature}
                onCommit={(leastTemperature) => set(g.id, { leastTemperature })}
              />
              <QuantityField
                field="Spread"
                quantity="spread"
                value={g.gramsPerM2}
                schema={glueSchema.shape.gramsPerM2}
                onCommit={(gramsPerM2) => set(g.id, { gramsPerM2 })}
              />
              <OptionalNumber
                field="Glue on the shelf"
                suffix=" g"
                value={g.shelfGrams}
                schema={glueSchema.shape.shelfGrams}
                onCommit={(shelfGrams) => set(g.id, { shelfGrams })}
              />
              <OptionalNumber
                field="A kilogram costs"
                suffix={` ${shop.currency}`}
                value={g.pricePerKg}
                schema={glueSchema.shape.pricePerKg}
                onCommit={(pricePerKg) => set(g.id, { pricePerKg })}
              />
              {shop.glues.length > 1 && g.id !== shop.glue && (
                <RemoveButton
                  label={`Remove ${g.name}`}
                  onClick={() => onChange((s) => ({ ...s, glues: s.glues.filter((o) => o.id !== g.id) }))}
                />
              )}
            </div>
            <div className={classes.grid}>
              {MINUTES.map(([key, label, hint]) => (
                <NumberField
                  key={key}
                  field={label}
                  description={hint}
                  suffix=" min"
                  value={g[key]}
                  schema={glueSchema.shape[key]}
                  onCommit={(value) => set(g.id, { [key]: value })}
                />
              ))}
            </div>
          </div>
        ))}
      </Radio.Group>
      <Button
        size="xs"
        variant="default"
        onClick={() =>
          onChange((s) => ({ ...s, glues: [...s.glues, { ...firstOf(s.glues), id: nanoid(8), name: 'Another glue' }] }))
        }
      >
        Add a glue
      </Button>
    </>
  );
}

/** Of a day. */
const LAST_MINUTE = 24 * 60 - 1;
const DAYS = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'];

/** From when to when the shop is open. */
export function HourList({ shop, onChange }: { shop: Shop; onChange: EditShop }) {
  const hourOf = (time: string) => Number(time.slice(0, 2)) + Number(time.slice(3)) / 60;
  const timeOf = (hour: number) => {
    const minutes = Math.min(LAST_MINUTE, Math.round(hour * 60));
    return [Math.floor(minutes / 60), minutes % 60].map((n) => String(n).padStart(2, '0')).join(':');
  };
  const set = (day: number, change: { from?: number; to?: number } | null) =>
    onChange((s) => ({
      ...s,
      hours: s.hours.map((h, i) =>
        i !== day
          ? h
          : change === null
            ? null
            : {
                from: change.from === undefined ? (h?.from ?? '09:00') : timeOf(change.from),
                to: change.to === undefined ? (h?.to ?? '18:00') : timeOf(change.to),
              },
      ),
    }));
  return (
    <div className={classes.days}>
      {DAYS.map((day, i) => {
        const open = shop.hours[i] ?? null;
        return (
          <div key={day} role="group" aria-label={day}>
            <label>
              <input
                type="checkbox"
                checked={open !== null}
                onChange={(e) => set(i, e.currentTarget.checked ? {} : null)}
              />{' '}
              {day}
            </label>
            {open ? (
              <span>
                <NumberInput
                  size="xs"
                  aria-label={`${day} from`}
                  value={hourOf(open.from)}
                  min={0}
                  max={23.75}
                  step={0.5}
                  suffix=" h"
                  onChange={(v) => typeof v === 'number' && v >= 0 && v < 24 && set(i, { from: v })}
                />
                <NumberInput
                  size="xs"
                  aria-label={`${day} to`}
                  value={hourOf(open.to)}
                  min={0}
                  max={23.75}
                  step={0.5}
                  suffix=" h"
                  onChange={(v) => typeof v === 'number' && v >= 0 && v < 24 && set(i, { to: v })}
                />
              </span>
            ) : (
              <span>closed</span>
            )}
          </div>
        );
      })}
    </div>
  );
}
