import { NumberInput, Switch, TextInput } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useMutation } from '@tanstack/react-query';
import type { z } from 'zod';
import { DEFAULT_SHOP, shopSchema, type Shop } from '#core/shop/shop.ts';
import { api, ApiProblem, type StoredShop } from '../../data/api.ts';
import { keys, queryClient, trouble, useShop } from '../../data/queries.ts';
import { CommitField } from '../../quantities/CommitField.tsx';
import { LengthInput } from '../../quantities/LengthInput.tsx';
import { SeasonFields } from '../../quantities/SeasonFields.tsx';
import { HABIT_WORDS } from './habitWords.ts';
import classes from './ShopPlace.module.css';

type Group = 'saw' | 'crosscutSaw' | 'cutting' | 'planer' | 'glue' | 'habits' | 'pace';
type Unit = 'length' | 'minutes' | 'number' | 'money';
type FieldSpec = { [G in Group]: [group: G, key: keyof Shop[G] & string, label: string, unit: Unit, hint?: string] }[Group];

const MACHINES: FieldSpec[] = [
  ['saw', 'kerf', 'Table saw kerf', 'length', 'What the blade turns to dust when it rips'],
  ['crosscutSaw', 'kerf', 'Crosscut saw kerf', 'length', 'Mitre saw, sled or track saw'],
  ['saw', 'cutDepth', 'Saw cuts up to', 'length'],
  ['planer', 'width', 'Jointer and planer width', 'length'],
  ['planer', 'passDepth', 'Deepest pass', 'length', 'On a piece of half the width or less; half of it at full width'],
  ['planer', 'leastLength', 'Shortest piece it may take', 'length', 'From the machine\'s manual'],
  ['planer', 'leastWidth', 'Narrowest piece it may take', 'length'],
  ['planer', 'leastThickness', 'Thinnest it planes', 'length', 'Without a carrier board'],
  ['planer', 'snipe', 'Snipe at each end', 'length'],
];
const BAND_SAW = [['kerf', 'Band saw kerf'], ['resawHeight', 'Resaws up to'], ['clean', 'Planed off each sawn face']] as const;
const CUTTING: FieldSpec[] = [
  ['cutting', 'openPiece', 'Fetching one more piece', 'money', 'What you would pay to set up one piece less'],
  ['cutting', 'openPlank', 'Cutting into a bought plank', 'money', 'On top, rather than an offcut or salvage'],
  ['cutting', 'leftoverEach', 'Carrying a leftover back', 'money', 'One long one is better than two short ones'],
  ['cutting', 'unpricedPerM3', 'Wood without a price, a cubic metre', 'money', 'So that salvage is not burnt for nothing'],
  ['cutting', 'keepWidth', 'Offcut beside rips kept from', 'length', 'If it is at least the keep length long'],
  ['cutting', 'sideShare', 'It still counts for', 'number', 'Share of its wood\'s value'],
  ['cutting', 'spareBelow', 'Thin strips are up to', 'length', 'They get spares: a blade wanders'],
  ['cutting', 'spares', 'Spares of each kind', 'number'],
];
const GLUING: FieldSpec[] = [
  ['glue', 'assemblyMinutes', 'Open and closed time', 'minutes', 'From the first glue until all is under pressure, at 20 °C'],
  ['glue', 'clampMinutes', 'In clamps', 'minutes'],
  ['pace', 'reserve', 'Share of the time planned with', 'number', '0.7 leaves three tenths for surprises'],
  ['pace', 'spreadMinutesPerM2', 'Spreading, minutes per m² of joint', 'number'],
  ['pace', 'placeMinutes', 'Placing a strip', 'minutes'],
  ['pace', 'clampMinutes', 'Closing a clamp', 'minutes'],
  ['pace', 'clampSpacing', 'A clamp every', 'length'],
];
const HABITS = Object.entries(HABIT_WORDS).map(([key, label]): FieldSpec => ['habits', key as keyof Shop['habits'], label, 'length']);

/** The figures that every plan is made with: machines, glue, habits. Each is saved as it is left. */
export function ShopPlace() {
  const stored = useShop();
  const save = useMutation({
    // One after the other, each on top of what the one before stored: quick fingers are not a conflict.
    scope: { id: 'shop' },
    mutationFn: (edit: (shop: Shop) => Shop) => {
      const { shop, version } = queryClient.getQueryData<StoredShop>(keys.shop)!;
      return api.saveShop(version, edit(shop));
    },
    onSuccess: (saved) => queryClient.setQueryData(keys.shop, saved),
    onError: (error) => {
      const stale = error instanceof ApiProblem && error.code === 'stale';
      if (stale) queryClient.setQueryData(keys.shop, error.current);
      notifications.show({ color: 'red', message: stale ? `${error.message} The newer figures are shown now; make your change again.` : error.message });
    },
  });
  const problem = trouble(stored);
  if (!stored.data) return <p className={classes.loading} role={problem ? 'alert' : undefined}>{problem ? `${problem.message} Cadenza keeps trying.` : 'Loading …'}</p>;
  const { shop } = stored.data;
  const change = (edit: (shop: Shop) => Shop) => save.mutate(edit);
  const section = (title: string, text: string, specs: FieldSpec[]) => (
    <section>
      <h2>{title}</h2>
      <p>{text}</p>
      <div className={classes.grid}>{specs.map((spec) => <Figure key={`${spec[0]}.${spec[1]}`} spec={spec} shop={shop} onChange={change} />)}</div>
    </section>
  );

  return (
    <div className={classes.page}>
      <h1>Shop</h1>
      <p className={classes.lead}>
        Every plan is made with these figures. Change one, and all boards follow.{' '}
        <span role="status">{save.isPending ? 'Saving …' : save.isSuccess ? 'Saved.' : ''}</span>
      </p>
      <section>
        <div className={classes.grid}>
          <Text field="Name of the shop" value={shop.name} schema={shopSchema.shape.name} onCommit={(name) => change((s) => ({ ...s, name }))} />
          <Text field="Currency" value={shop.currency} schema={shopSchema.shape.currency} onCommit={(currency) => change((s) => ({ ...s, currency }))} />
          <Text field="Glue" value={shop.glue.name} schema={shopSchema.shape.glue.shape.name} onCommit={(name) => change((s) => ({ ...s, glue: { ...s.glue, name } }))} />
        </div>
      </section>
      {section('Machines', 'The figures that decide a plan.', MACHINES)}
      <section>
        <h2>Band saw</h2>
        <p>Resaws thick strips into thin ones, and rips rough stock.</p>
        <Switch label="There is a band saw" checked={shop.bandSaw !== null} onChange={(e) => {
          const has = e.currentTarget.checked;
          change((s) => ({ ...s, bandSaw: has ? DEFAULT_SHOP.bandSaw : null }));
        }} />
        {shop.bandSaw && (
          <div className={classes.grid}>
            {BAND_SAW.map(([key, label]) => <LengthInput key={key} field={label} mm={shop.bandSaw![key]} schema={shopSchema.shape.bandSaw.unwrap().shape[key]} onCommit={(mm) => change((s) => (s.bandSaw ? { ...s, bandSaw: { ...s.bandSaw, [key]: mm } } : s))} />)}
          </div>
        )}
      </section>
      {section('Choosing pieces', 'The cut plan uses the least value of wood; then these decide. Amounts are what you would pay to avoid the trouble.', CUTTING)}
      {section('Glue and pace', 'They decide how many strips close before the glue skins over.', GLUING)}
      <section>
        <h2>Air through the year</h2>
        <p>Boards are made for these two months unless a board says where it will live; how they move follows from it.</p>
        <div className={classes.grid}><SeasonFields seasons={shop.seasons} onChange={(seasons) => change((s) => ({ ...s, seasons }))} /></div>
      </section>
      {section('Allowances', 'What each operation takes. Usual figures to begin with; yours are better.', HABITS)}
    </div>
  );
}

function Figure({ spec, shop, onChange }: { spec: FieldSpec; shop: Shop; onChange(edit: (shop: Shop) => Shop): void }) {
  const [group, key, label, unit, hint] = spec;
  const schema = (shopSchema.shape[group].shape as Record<string, z.ZodType<number>>)[key]!;
  const value = (shop[group] as Record<string, number>)[key]!;
  const commit = (next: number) => onChange((s) => ({ ...s, [group]: { ...s[group], [key]: next } }));
  if (unit === 'length') return <LengthInput field={label} description={hint} mm={value} schema={schema} onCommit={commit} />;
  return <NumberField field={label} description={hint} value={value} schema={schema} suffix={unit === 'minutes' ? ' min' : unit === 'money' ? ` ${shop.currency}` : ''} onCommit={commit} />;
}

interface FieldProps<T> {
  field: string;
  value: T;
  schema: z.ZodType<T>;
  onCommit(value: T): void;
}

function NumberField({ field, value, schema, onCommit, suffix, description }: FieldProps<number> & { suffix: string; description?: string }) {
  return (
    <CommitField value={value} schema={schema} field={field} onCommit={onCommit}>
      {(typed, set, problem, leave) => (
        <NumberInput label={field} description={description} value={typed} suffix={suffix} min={0} hideControls error={problem}
          onChange={(next) => set(typeof next === 'number' ? next : Number.NaN)} onBlur={leave} onKeyDown={(e) => e.key === 'Enter' && leave()} />
      )}
    </CommitField>
  );
}

function Text(props: FieldProps<string>) {
  return (
    <CommitField {...props}>
      {(typed, set, problem, leave) => (
        <TextInput label={props.field} value={typed} error={problem} onChange={(e) => set(e.currentTarget.value)} onBlur={leave} onKeyDown={(e) => e.key === 'Enter' && leave()} />
      )}
    </CommitField>
  );
}
