import { certain } from '#core/lists/there.ts';
import { Select } from '@mantine/core';
import { lazy, Suspense, type ReactNode } from 'react';
import type { z } from 'zod';
import { shopSchema, type Shop } from '#core/shop/shop.ts';
import { useDisplay } from '../../quantities/display.tsx';
import { LengthInput } from '../../quantities/LengthInput.tsx';
import { Measured } from '../../quantities/Measured.tsx';
import { QuantityField } from '../../quantities/QuantityField.tsx';
import { SeasonFields } from '../../quantities/SeasonFields.tsx';
import { ClampList, GlueList, HourList } from './ClampAndGlueLists.tsx';
import { NumberField, TextField } from '../../quantities/plainFields.tsx';
import type { EditShop } from './editShop.ts';
import { CUTTING_FIGURES, HABIT_FIGURES, PACE_FIGURES, type FigureSpec } from './figures.ts';
import { FinishRoom } from './FinishRoom.tsx';
import { GritField } from './GritField.tsx';
import { HygrometerButton } from './HygrometerButton.tsx';
import { MachineList } from './MachineList.tsx';
import { PeopleRoom } from './PeopleRoom.tsx';
import { PriceRoom } from './PriceRoom.tsx';
import { SchoolList } from './SchoolList.tsx';
import type { RoomId } from './shopRooms.ts';
import { ShopsAside } from './ShopsAside.tsx';
import classes from './ShopPlace.module.css';

/** Seldom wanted: it comes when it is. */
const BackupRoom = lazy(async () => ({ default: (await import('../backup/BackupRoom.tsx')).BackupRoom }));

interface RoomProps {
  shop: Shop;
  change: EditShop;
}

/** The fields of each room. */
const BODIES: Readonly<Record<RoomId, (props: RoomProps) => ReactNode>> = {
  about: AboutFields,
  machines: ({ shop, change }) => <MachineList shop={shop} onChange={change} />,
  clamps: ({ shop, change }) => <ClampList shop={shop} onChange={change} />,
  glues: ({ shop, change }) => (
    <>
      <p>
        Times hold at <Measured quantity="temperature" value={20} />.
      </p>
      <GlueList shop={shop} onChange={change} />
    </>
  ),
  finishes: ({ shop, change }) => <FinishRoom shop={shop} onChange={change} />,
  room: ({ shop, change }) => (
    <>
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
        <HygrometerButton onHumidity={(humidity) => change((s) => ({ ...s, room: { ...s.room, humidity } }))} />
      </div>
    </>
  ),
  people: PeopleRoom,
  prices: PriceRoom,
  ways: ({ shop, change }) => (
    <>
      <SchoolList shop={shop} onChange={change} />
      <GritField
        field="Own grits"
        description="First to last, such as 80, 120, 220. Empty: chosen from how the panel was made flat to the last grit above."
        grits={shop.grits}
        onCommit={(grits) => change((s) => ({ ...s, grits }))}
      />
    </>
  ),
  allowances: (props) => <Figures specs={HABIT_FIGURES} {...props} />,
  pace: (props) => <Figures specs={PACE_FIGURES} {...props} />,
  pieces: (props) => <Figures specs={CUTTING_FIGURES} {...props} />,
  year: ({ shop, change }) => (
    <>
      <div className={classes.grid}>
        <SeasonFields seasons={shop.seasons} onChange={(seasons) => change((s) => ({ ...s, seasons }))} />
      </div>
    </>
  ),
  backup: () => (
    <Suspense fallback={<p>Loading …</p>}>
      <BackupRoom />
    </Suspense>
  ),
};

export function ShopRoomBody({ room, ...props }: RoomProps & { room: RoomId }) {
  const Body = BODIES[room];
  return <Body {...props} />;
}

function AboutFields({ shop, change }: RoomProps) {
  const { display, setDisplay } = useDisplay();
  return (
    <>
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
      <ShopsAside />
    </>
  );
}

function Figures({ specs, shop, change }: RoomProps & { specs: readonly FigureSpec[] }) {
  return (
    <div className={classes.grid}>
      {specs.map((spec) => (
        <Figure key={`${spec[0]}.${spec[1]}`} spec={spec} shop={shop} onChange={change} />
      ))}
    </div>
  );
}

function Figure({ spec, shop, onChange }: { spec: FigureSpec; shop: Shop; onChange: EditShop }) {
  const [group, key, label, unit, hint] = spec;
  const schema = certain((shopSchema.shape[group].shape as Record<string, z.ZodType<number>>)[key]);
  const value = certain((shop[group] as Record<string, number>)[key]);
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
