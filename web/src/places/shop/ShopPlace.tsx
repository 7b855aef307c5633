import { Button, Group, Select } from '@mantine/core';
import { IconArrowBackUp } from '@tabler/icons-react';
import type { z } from 'zod';
import { shopSchema, type Shop } from '#core/shop/shop.ts';
import { trouble, useShop } from '../../data/queries.ts';
import { useShopEdits } from '../../data/recordEdits.ts';
import { LineNote } from '../../shell/LineNote.tsx';
import { HABIT_WORDS } from '../../habits/habitWords.ts';
import { useDisplay } from '../../quantities/display.tsx';
import { LengthInput } from '../../quantities/LengthInput.tsx';
import { useShortcuts } from '../../shortcuts/Shortcuts.tsx';
import { SeasonFields } from '../../quantities/SeasonFields.tsx';
import { ClampList, GlueList, HourList } from './ClampAndGlueLists.tsx';
import { NumberField, TextField, type EditShop } from './fields.tsx';
import { GritField } from './GritField.tsx';
import { MachineList } from './MachineList.tsx';
import { SchoolList } from './SchoolList.tsx';
import { Measured, QuantityField } from '../../quantities/QuantityField.tsx';
import classes from './ShopPlace.module.css';

type Group = 'cutting' | 'habits' | 'pace';
type Unit = 'length' | 'minutes' | 'number' | 'money';
type FieldSpec = {
  [G in Group]: [group: G, key: keyof Shop[G] & string, label: string, unit: Unit, hint?: string];
}[Group];

const CUTTING: FieldSpec[] = [
  ['cutting', 'openPiece', 'Fetching one more piece', 'money', 'What you would pay to set up one piece less'],
  ['cutting', 'openPlank', 'Cutting into a bought plank', 'money', 'On top, rather than an offcut or salvage'],
  ['cutting', 'leftoverEach', 'Carrying a leftover back', 'money', 'One long one is better than two short ones'],
  [
    'cutting',
    'unpricedPerM3',
    'Wood without a price, a cubic metre',
    'money',
    'So that salvage is not burnt for nothing',
  ],
  ['cutting', 'keepWidth', 'Offcut beside rips kept from', 'length', 'If it is at least the keep length long'],
  ['cutting', 'sideShare', 'It still counts for', 'number', "Share of its wood's value"],
  ['cutting', 'spareBelow', 'Thin strips are up to', 'length', 'They get spares: a blade wanders'],
  ['cutting', 'spares', 'Spares of each kind', 'number'],
];
const PACE: FieldSpec[] = [
  ['pace', 'work', 'Your minutes for one usual', 'number', '1 is the usual pace; 1.5 takes half as long again'],
  ['pace', 'reserve', "Share of the glue's time planned with", 'number', '0.7 leaves three tenths for surprises'],
  ['pace', 'spreadMinutesPerM2', 'Spreading, minutes per m² of joint', 'number'],
  ['pace', 'placeMinutes', 'Placing a strip', 'minutes'],
  [
    'pace',
    'helperShare',
    'With a second pair of hands',
    'number',
    'Share of the time that spreading and placing still take',
  ],
  ['pace', 'clampMinutes', 'Closing a clamp', 'minutes'],
  ['pace', 'clampSpacing', 'A clamp every', 'length'],
  ['pace', 'clampInset', 'Outermost clamps stand in by', 'length'],
];
const HABITS = Object.entries(HABIT_WORDS).map(([key, label]): FieldSpec => [
  'habits',
  key as keyof Shop['habits'],
  label,
  'length',
]);

const PARTS = [
  ['machines', 'Machines'],
  ['clamps', 'Clamps'],
  ['glues', 'Glues'],
  ['room', 'Hours and room'],
  ['ways', 'Ways of working'],
  ['allowances', 'Allowances'],
  ['pace', 'Pace'],
  ['pieces', 'Choosing pieces'],
  ['year', 'Air through the year'],
] as const;

/** The figures that every plan is made with: machines, clamps, glues, hours, habits. Each is saved as it is left. */
export function ShopPlace() {
  const stored = useShop();
  const edits = useShopEdits();
  const { display, setDisplay } = useDisplay();
  const problem = trouble(stored);
  useShortcuts('Shop', [{ keys: 'mod+z', does: 'Undo the last change of the shop', run: edits.undo }]);
  if (!stored.data)
    return (
      <p className={classes.loading} role={problem ? 'alert' : undefined}>
        {problem ? `${problem.message} Cadenza keeps trying.` : 'Loading …'}
      </p>
    );
  const { shop } = stored.data;
  const change: EditShop = edits.change;
  const figures = (specs: FieldSpec[]) => (
    <div className={classes.grid}>
      {specs.map((spec) => (
        <Figure key={`${spec[0]}.${spec[1]}`} spec={spec} shop={shop} onChange={change} />
      ))}
    </div>
  );

  return (
    <div className={classes.page}>
      <Group justify="space-between">
        <h1>Shop</h1>
        <Group>
          <LineNote state={edits.state} />
          <Button
            size="compact-md"
            variant="default"
            leftSection={<IconArrowBackUp size={15} />}
            disabled={!edits.canUndo}
            onClick={edits.undo}
          >
            Undo
          </Button>
        </Group>
      </Group>
      <p className={classes.lead}>Every plan is made with these figures. Change one, and all boards follow.</p>
      <nav className={classes.parts} aria-label="Parts of the shop">
        {PARTS.map(([id, title]) => (
          <a key={id} href={`#${id}`}>
            {title}
          </a>
        ))}
      </nav>
      <section>
        <div className={classes.grid}>
          <TextField
            field="Name of the shop"
            value={shop.name}
            schema={shopSchema.shape.name}
            onCommit={(name) => change((s) => ({ ...s, name }))}
          />
          <TextField
            field="Currency"
            value={shop.currency}
            schema={shopSchema.shape.currency}
            onCommit={(currency) => change((s) => ({ ...s, currency }))}
          />
          <Select
            size="sm"
            label="Pressure, weight and warmth in"
            description="On this device"
            allowDeselect={false}
            value={display.others ?? 'lengths'}
            onChange={(v) => setDisplay({ others: v === 'lengths' ? undefined : (v as 'metric' | 'us') })}
            data={[
              {
                value: 'lengths',
                label: display.system === 'inch' ? 'psi, lb, °F, as with inches' : 'MPa, kg, °C, as with millimetres',
              },
              { value: 'metric', label: 'MPa, kg, °C' },
              { value: 'us', label: 'psi, lb, °F' },
            ]}
          />
        </div>
      </section>
      <section id="machines">
        <h2>Machines</h2>
        <p>The figures that decide a plan. What is not here is planned round, with what that costs.</p>
        <MachineList shop={shop} onChange={change} />
      </section>
      <section id="clamps">
        <h2>Clamps</h2>
        <p>How wide a panel, how many glue-ups at once, and the pressure on the joints follow from them.</p>
        <ClampList shop={shop} onChange={change} />
      </section>
      <section id="glues">
        <h2>Glues</h2>
        <p>
          Times at <Measured quantity="temperature" value={20} /> as the bottle has them. A glue for boards is Type II
          or Type I, D3 or D4.
        </p>
        <GlueList shop={shop} onChange={change} />
      </section>
      <section id="room">
        <h2>Hours and room</h2>
        <p>
          Hands-on work is planned within these hours; glue and oil dry at night. In a cold room glue takes longer; wood
          comes to the moisture of the air.
        </p>
        <HourList shop={shop} onChange={change} />
        <div className={classes.grid}>
          <QuantityField
            field="Room, warmth"
            quantity="temperature"
            value={shop.room.temperature}
            schema={shopSchema.shape.room.shape.temperature}
            onCommit={(temperature) => change((s) => ({ ...s, room: { ...s.room, temperature } }))}
          />
          <NumberField
            field="Room, humidity"
            suffix=" %"
            value={shop.room.humidity}
            schema={shopSchema.shape.room.shape.humidity}
            onCommit={(humidity) => change((s) => ({ ...s, room: { ...s.room, humidity } }))}
          />
        </div>
      </section>
      <section id="ways">
        <h2>Ways of working</h2>
        <p>
          Makers differ, each with a reason. The steps follow what is chosen here; a board can differ, at the step where
          it matters.
        </p>
        <SchoolList shop={shop} onChange={change} />
        <GritField grits={shop.grits} onCommit={(grits) => change((s) => ({ ...s, grits }))} />
      </section>
      <section id="allowances">
        <h2>Allowances</h2>
        <p>What each operation takes. Usual figures to begin with; yours are better.</p>
        {figures(HABITS)}
      </section>
      <section id="pace">
        <h2>Pace</h2>
        <p>How fast hands are: how many strips close before the glue skins over, and how long the work takes.</p>
        {figures(PACE)}
      </section>
      <section id="pieces">
        <h2>Choosing pieces</h2>
        <p>
          The cut plan uses the least value of wood; then these decide. Amounts are what you would pay to avoid the
          trouble.
        </p>
        {figures(CUTTING)}
      </section>
      <section id="year">
        <h2>Air through the year</h2>
        <p>
          Boards are made for these two months unless a board says where it will live; how they move follows from it.
        </p>
        <div className={classes.grid}>
          <SeasonFields seasons={shop.seasons} onChange={(seasons) => change((s) => ({ ...s, seasons }))} />
        </div>
      </section>
    </div>
  );
}

function Figure({ spec, shop, onChange }: { spec: FieldSpec; shop: Shop; onChange: EditShop }) {
  const [group, key, label, unit, hint] = spec;
  const schema = (shopSchema.shape[group].shape as Record<string, z.ZodType<number>>)[key]!;
  const value = (shop[group] as Record<string, number>)[key]!;
  const commit = (next: number) => onChange((s) => ({ ...s, [group]: { ...s[group], [key]: next } }));
  if (unit === 'length')
    return <LengthInput size="sm" field={label} description={hint} mm={value} schema={schema} onCommit={commit} />;
  return (
    <NumberField
      field={label}
      description={hint}
      value={value}
      schema={schema}
      suffix={unit === 'minutes' ? ' min' : unit === 'money' ? ` ${shop.currency}` : ''}
      onCommit={commit}
    />
  );
}
