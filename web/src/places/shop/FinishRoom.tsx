import { Button, Checkbox, Select, Textarea } from '@mantine/core';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import { firstOf } from '#core/lists/there.ts';
import { bathSchema, finishSchema, FINISH_KINDS, FINISH_METHODS, type Finish } from '#core/shop/finishes.ts';
import { shopSchema, type Shop } from '#core/shop/shop.ts';
import { LengthInput } from '../../quantities/LengthInput.tsx';
import { NumberField, OptionalNumber, TextField } from '../../quantities/plainFields.tsx';
import { RemoveButton } from '../../quantities/RemoveButton.tsx';
import type { EditShop } from './editShop.ts';
import { FINISH_FIGURES } from './finishFigures.ts';
import { GritField } from './GritField.tsx';
import classes from './ShopPlace.module.css';

export const FINISH_KIND_WORDS: Readonly<Record<Finish['kind'], string>> = {
  mineralOil: 'Mineral oil',
  waxOil: 'Wax and oil',
  hardWaxOil: 'Hard-wax oil',
  dryingOil: 'Drying oil',
  film: 'Film',
};
const METHOD_WORDS: Readonly<Record<Finish['method'], string>> = {
  flood: 'flooding',
  bath: 'a bath',
  wipe: 'a cloth',
  brush: 'a brush',
};
/** Figures that may be left empty. */
const OPTIONAL = [
  ['shelfMl', 'On the shelf', ' ml'],
  ['pricePerLitre', 'A litre costs', 'money'],
  ['keepsMonths', 'Keeps, once opened', ' months'],
] as const;

const USUAL_BATH = { length: 600, width: 400, depth: 80 };
const BATH_SIDES = ['length', 'width', 'depth'] as const;

/** Papers, finishes, the tray, and what owners are told. */
export function FinishRoom({ shop, onChange }: { shop: Shop; onChange: EditShop }) {
  return (
    <>
      <GritField
        field="Papers in the drawer"
        description="Coarse to fine, such as 80, 120, 180, 220. Empty: any can be had."
        grits={shop.papers}
        onCommit={(papers) => onChange((s) => ({ ...s, papers }))}
      />
      {shop.finishes.map((finish) => (
        <FinishFields
          key={finish.id}
          finish={finish}
          currency={shop.currency}
          last={shop.finishes.length === 1}
          onChange={(change) =>
            onChange((s) => ({ ...s, finishes: s.finishes.map((f) => (f.id === finish.id ? { ...f, ...change } : f)) }))
          }
          onRemove={() => onChange((s) => ({ ...s, finishes: s.finishes.filter((f) => f.id !== finish.id) }))}
        />
      ))}
      <Button
        size="xs"
        variant="default"
        onClick={() =>
          onChange((s) => ({
            ...s,
            finishes: [...s.finishes, { ...firstOf(s.finishes), id: nanoid(8), name: 'Another finish', source: '' }],
          }))
        }
      >
        Add a finish
      </Button>
      <Bath shop={shop} onChange={onChange} />
      <CareWords
        key={shop.careWords}
        words={shop.careWords}
        onCommit={(careWords) => onChange((s) => ({ ...s, careWords }))}
      />
    </>
  );
}

interface FinishFieldsProps {
  finish: Finish;
  currency: string;
  /** The only one cannot be removed. */
  last: boolean;
  onChange(change: Partial<Finish>): void;
  onRemove(): void;
}

function FinishFields({ finish, currency, last, onChange, onRemove }: FinishFieldsProps) {
  return (
    <div className={classes.machine} role="group" aria-label={finish.name}>
      <div className={classes.line}>
        <TextField
          field="Finish"
          value={finish.name}
          schema={finishSchema.shape.name}
          onCommit={(name) => onChange({ name })}
        />
        <Select
          size="sm"
          label="Kind of finish"
          allowDeselect={false}
          value={finish.kind}
          data={FINISH_KINDS.map((value) => ({ value, label: FINISH_KIND_WORDS[value] }))}
          onChange={(kind) => onChange({ kind: kind as Finish['kind'] })}
        />
        <Select
          size="sm"
          label="Put on by"
          allowDeselect={false}
          value={finish.method}
          data={FINISH_METHODS.map((value) => ({ value, label: METHOD_WORDS[value] }))}
          onChange={(method) => onChange({ method: method as Finish['method'] })}
        />
        {!last && <RemoveButton label={`Remove ${finish.name}`} onClick={onRemove} />}
      </div>
      <div className={classes.grid}>
        {FINISH_FIGURES.map(([key, label, suffix]) => (
          <NumberField
            key={key}
            field={label}
            suffix={suffix}
            value={finish[key]}
            schema={finishSchema.shape[key]}
            onCommit={(value) => onChange({ [key]: value })}
          />
        ))}
        {OPTIONAL.map(([key, label, suffix]) => (
          <OptionalNumber
            key={key}
            field={label}
            suffix={suffix === 'money' ? ` ${currency}` : suffix}
            value={finish[key]}
            schema={finishSchema.shape[key]}
            onCommit={(value) => onChange({ [key]: value })}
          />
        ))}
        <TextField
          field="Food, as its maker states"
          value={finish.food}
          schema={finishSchema.shape.food}
          onCommit={(food) => onChange({ food })}
        />
        <TextField
          field="Renewed with"
          value={finish.renewWith}
          schema={finishSchema.shape.renewWith}
          onCommit={(renewWith) => onChange({ renewWith })}
        />
        <TextField
          field="Where its figures are from"
          value={finish.source}
          schema={finishSchema.shape.source}
          onCommit={(source) => onChange({ source })}
        />
      </div>
      <div className={classes.line}>
        <Checkbox
          label="Rags can ignite"
          checked={finish.ignites}
          onChange={(e) => onChange({ ignites: e.currentTarget.checked })}
        />
        <Checkbox
          label="Rubbed back between coats"
          checked={finish.rubBack}
          onChange={(e) => onChange({ rubBack: e.currentTarget.checked })}
        />
      </div>
    </div>
  );
}

function Bath({ shop, onChange }: { shop: Shop; onChange: EditShop }) {
  const { bath } = shop;
  return (
    <div className={classes.machine} role="group" aria-label="Tray">
      <Checkbox
        label="A tray for soaking"
        checked={bath !== null}
        onChange={(e) => {
          const { checked } = e.currentTarget;
          onChange((s) => ({ ...s, bath: checked ? USUAL_BATH : null }));
        }}
      />
      {bath && (
        <div className={classes.grid}>
          {BATH_SIDES.map((side) => (
            <LengthInput
              key={side}
              size="sm"
              field={`Tray, ${side}`}
              mm={bath[side]}
              schema={bathSchema.shape[side]}
              onCommit={(mm) => onChange((s) => (s.bath ? { ...s, bath: { ...s.bath, [side]: mm } } : s))}
            />
          ))}
        </div>
      )}
    </div>
  );
}

function CareWords({ words, onCommit }: { words: string; onCommit(words: string): void }) {
  const [typed, setTyped] = useState(words);
  const [problem, setProblem] = useState<string | null>(null);
  const leave = () => {
    const read = shopSchema.shape.careWords.safeParse(typed);
    if (!read.success) return setProblem(`On every care card ${firstOf(read.error.issues).message}.`);
    setProblem(null);
    if (read.data !== words) onCommit(read.data);
  };
  return (
    <Textarea
      size="sm"
      mt="lg"
      maw={620}
      autosize
      minRows={2}
      maxRows={10}
      label="On every care card"
      description="Behind what follows from wood and finish. A line that begins with Wash:, Dry:, Renew: or Scars: takes the place of that one; left empty, it is left out."
      value={typed}
      error={problem}
      onChange={(e) => setTyped(e.currentTarget.value)}
      onBlur={leave}
    />
  );
}
