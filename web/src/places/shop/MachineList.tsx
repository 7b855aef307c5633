import { certain } from '#core/lists/there.ts';
import { Button, Select, Switch } from '@mantine/core';
import { useState } from 'react';
import type { z } from 'zod';
import { CROSSCUT_NAMES, RIP_NAMES } from '#core/steps/toolWays.ts';
import { BARE_SHOP, shopSchema, type Shop } from '#core/shop/shop.ts';
import { usualFigures } from '#core/shop/usualFigures.ts';
import { useDisplay } from '../../quantities/display.tsx';
import { LengthInput } from '../../quantities/LengthInput.tsx';
import type { EditShop } from './editShop.ts';
import { HAND_TOOLS, MACHINES, type MachineSpec } from './machines.ts';
import classes from './ShopPlace.module.css';

/** Machines with the figures that decide a plan. What is not in the shop is planned round. */
export function MachineList({ shop, onChange }: { shop: Shop; onChange: EditShop }) {
  return (
    <>
      <div className={classes.machine}>
        <h3>Saws</h3>
        <div className={classes.grid}>
          <Select
            size="sm"
            label="Ripping"
            allowDeselect={false}
            value={shop.saw.kind}
            data={Object.entries(RIP_NAMES).map(([value, label]) => ({ value, label }))}
            onChange={(kind) => onChange((s) => ({ ...s, saw: { ...s.saw, kind: kind as Shop['saw']['kind'] } }))}
          />
          <LengthInput
            size="sm"
            field="Rip kerf"
            description="What the blade turns to dust"
            mm={shop.saw.kerf}
            schema={shopSchema.shape.saw.shape.kerf}
            onCommit={(kerf) => onChange((s) => ({ ...s, saw: { ...s.saw, kerf } }))}
          />
          <LengthInput
            size="sm"
            field="Saw cuts up to"
            mm={shop.saw.cutDepth}
            schema={shopSchema.shape.saw.shape.cutDepth}
            onCommit={(cutDepth) => onChange((s) => ({ ...s, saw: { ...s.saw, cutDepth } }))}
          />
          <Select
            size="sm"
            label="Crosscutting"
            allowDeselect={false}
            value={shop.crosscutSaw.kind}
            data={Object.entries(CROSSCUT_NAMES).map(([value, label]) => ({ value, label }))}
            onChange={(kind) =>
              onChange((s) => ({ ...s, crosscutSaw: { ...s.crosscutSaw, kind: kind as Shop['crosscutSaw']['kind'] } }))
            }
          />
          <LengthInput
            size="sm"
            field="Crosscut saw kerf"
            mm={shop.crosscutSaw.kerf}
            schema={shopSchema.shape.crosscutSaw.shape.kerf}
            onCommit={(kerf) => onChange((s) => ({ ...s, crosscutSaw: { ...s.crosscutSaw, kerf } }))}
          />
        </div>
      </div>
      {MACHINES.map((m) => (
        <MachineCard key={m.key} spec={m} shop={shop} onChange={onChange} />
      ))}
      <div className={classes.machine}>
        <h3>By hand</h3>
        {(Object.keys(HAND_TOOLS) as (keyof typeof HAND_TOOLS)[]).map((tool) => (
          <Switch
            key={tool}
            mt={4}
            label={HAND_TOOLS[tool]}
            checked={shop.handTools[tool]}
            onChange={(e) => {
              const has = e.currentTarget.checked;
              onChange((s) => ({ ...s, handTools: { ...s.handTools, [tool]: has } }));
            }}
          />
        ))}
        <BareShop onChange={onChange} />
      </div>
    </>
  );
}

/** Everything of the shop that is not tools stays; what would go is said before it goes. */
function BareShop({ onChange }: { onChange: EditShop }) {
  const [asked, setAsked] = useState(false);
  if (!asked)
    return (
      <p>
        Nothing but a kitchen table?{' '}
        <button type="button" className={classes.link} onClick={() => setAsked(true)}>
          Begin with a circular saw, a sander and four clamps
        </button>
      </p>
    );
  const replace = () => {
    onChange((s) => ({
      ...BARE_SHOP,
      name: s.name,
      currency: s.currency,
      glues: s.glues,
      glue: s.glue,
      hours: s.hours,
      room: s.room,
      seasons: s.seasons,
      cutting: s.cutting,
    }));
    setAsked(false);
  };
  return (
    <p role="alert">
      This takes the machines, clamps and ways of working that are entered here away, and every plan follows. Undo
      brings them back.{' '}
      <Button size="compact-sm" color="red" onClick={replace}>
        Replace them
      </Button>{' '}
      <Button size="compact-sm" variant="default" onClick={() => setAsked(false)}>
        Keep mine
      </Button>
    </p>
  );
}

function MachineCard({ spec, shop, onChange }: { spec: MachineSpec; shop: Shop; onChange: EditShop }) {
  const { key, name, about, fields } = spec;
  const { system } = useDisplay().display;
  const usual = usualFigures(system).machines[key];
  const own = shop[key] as Record<string, number> | null;
  const shape = shopSchema.shape[key].unwrap().shape as Record<string, z.ZodType<number>>;
  const set = (change: Record<string, number | string>) =>
    onChange((s) => (s[key] ? { ...s, [key]: { ...s[key], ...change } } : s));
  return (
    <div className={classes.machine}>
      <Switch
        label={<h3>{name}</h3>}
        aria-label={`There is a ${name.toLowerCase()}`}
        description={about}
        checked={own !== null}
        onChange={(e) => {
          const has = e.currentTarget.checked;
          onChange((s) => ({ ...s, [key]: has ? usual : null }));
        }}
      />
      {own && (
        <div className={classes.grid}>
          {fields.map(([field, label, hint]) => (
            <LengthInput
              size="sm"
              key={field}
              field={label}
              description={hint}
              mm={own[field]}
              schema={certain(shape[field])}
              onCommit={(mm) => set({ [field]: mm })}
            />
          ))}
          {key === 'planer' && (
            <Select
              size="sm"
              label="Cutter head"
              allowDeselect={false}
              value={certain(shop.planer).head}
              data={[
                { value: 'straight', label: 'Straight knives' },
                { value: 'helical', label: 'Helical' },
              ]}
              onChange={(head) => head && set({ head })}
            />
          )}
        </div>
      )}
    </div>
  );
}
