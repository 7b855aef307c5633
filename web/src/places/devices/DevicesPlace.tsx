import { Button, NativeSelect, TextInput } from '@mantine/core';
import { IconDeviceTablet, IconLogout } from '@tabler/icons-react';
import { useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import {
  deviceChangeSchema,
  RIGHTS,
  type Device,
  type Devices,
  type Invitation,
  type Right,
} from '#contract/devices.ts';
import type { Person } from '#core/shop/people.ts';
import { api } from '../../data/api.ts';
import { deviceName, nameDevice } from '../../data/deviceName.ts';
import { trouble, useShop } from '../../data/queries.ts';
import { queryClient } from '../../data/queryClient.ts';
import { forgetAnswers } from '../../offline/keptAnswers.ts';
import { TextField } from '../../quantities/plainFields.tsx';
import { showProblem, showWord } from '../../shell/notices.tsx';
import { codeOf } from '../labels/useCodes.ts';
import classes from './DevicesPlace.module.css';

const KEY = ['devices'] as const;
const ANYBODY = '';
const MAY_WORDS: Readonly<Record<Right, string>> = { work: 'May work', look: 'May look' };
const WHEN = new Intl.DateTimeFormat(undefined, {
  day: 'numeric',
  month: 'short',
  year: 'numeric',
  hour: '2-digit',
  minute: '2-digit',
  hourCycle: 'h23',
});
const TIME = new Intl.DateTimeFormat(undefined, { hour: '2-digit', minute: '2-digit', hourCycle: 'h23' });

/** Devices that use this shop: which they are, whose, what they may; and how another one comes to be known. */
export function DevicesPlace() {
  const devices = useQuery({ queryKey: KEY, queryFn: api.devices });
  const shop = useShop();
  const problem = trouble(devices, shop);
  return (
    <div className={classes.page}>
      <h1>Devices</h1>
      {problem && <p role="alert">{problem.message} Cadenza keeps trying.</p>}
      {devices.data && shop.data && <Known devices={devices.data} people={shop.data.shop.people} />}
    </div>
  );
}

function Known({ devices, people }: { devices: Devices; people: readonly Person[] }) {
  const { asked, own, may } = devices;
  return asked ? (
    <>
      {may === 'look' && (
        <p role="status">This device may look and change nothing. Whoever may work can change that here, on theirs.</p>
      )}
      {may === 'work' && <Invite devices={devices} people={people} />}
      <table className={classes.table}>
        <thead>
          <tr>
            {['Device', 'Whose', 'May', 'Seen', ''].map((h) => (
              <th key={h}>{h === '' ? <span className={classes.hidden}>End</span> : h}</th>
            ))}
          </tr>
        </thead>
        <tbody>
          {devices.devices.map((device) => (
            <DeviceRow
              key={device.id}
              device={device}
              own={device.id === own}
              people={people}
              mayWork={may === 'work'}
            />
          ))}
        </tbody>
      </table>
      <form method="post" action="/sign-out" onSubmit={() => void forgetAnswers()}>
        <Button type="submit" variant="default" leftSection={<IconLogout size={17} />}>
          Sign out on this device
        </Button>
      </form>
    </>
  ) : (
    <Alone />
  );
}

/** Only this machine can reach the server: nothing is asked, and there is nobody to let in. */
function Alone() {
  const [name, setName] = useState(deviceName);
  return (
    <>
      <p>
        Only this machine can reach Cadenza, so no passphrase is asked for and no device need be let in. To use it on a
        tablet at the bench or a phone in the yard too, start it so that others can reach it; it then asks you for a
        passphrase:
      </p>
      <pre className={classes.command}>HOST=0.0.0.0 npm start</pre>
      <TextField
        field="This device is called"
        value={name}
        schema={deviceChangeSchema.shape.name}
        onCommit={(own) => {
          nameDevice(own);
          setName(own);
        }}
        description="By this name others see that you have the same board open."
      />
    </>
  );
}

/** Where the other device finds this server: as this page is reached, unless that is by a name that only this machine has. */
function addressFor({ addresses }: Devices): string | null {
  const { hostname, origin } = window.location;
  const loopback = hostname === 'localhost' || hostname === '[::1]' || hostname.startsWith('127.');
  return loopback ? (addresses[0] ?? null) : origin;
}

function Invite({ devices, people }: { devices: Devices; people: readonly Person[] }) {
  const [person, setPerson] = useState(ANYBODY);
  const [may, setMay] = useState<Right>('work');
  const [invitation, setInvitation] = useState<Invitation | null>(null);
  const [busy, setBusy] = useState(false);
  const address = addressFor(devices);
  const make = async () => {
    setBusy(true);
    try {
      setInvitation(await api.invite({ person: person === ANYBODY ? null : person, may }));
    } catch (error) {
      showProblem(error);
    } finally {
      setBusy(false);
    }
  };
  return (
    <section aria-label="Use it on another device" className={classes.invite}>
      <h2>Use it on the tablet</h2>
      <div className={classes.fields}>
        <PersonSelect shown label="It is used by" value={person} people={people} onChange={setPerson} />
        <MaySelect shown label="It may" value={may} onChange={setMay} />
        <Button
          leftSection={<IconDeviceTablet size={17} />}
          disabled={busy || address === null}
          onClick={() => void make()}
        >
          {invitation ? 'Another code' : 'Show a code'}
        </Button>
      </div>
      {address === null && <p role="alert">This machine has no address on a network just now.</p>}
      {invitation && address !== null && (
        <Code address={`${address}${invitation.path}`} until={TIME.format(new Date(invitation.expiresAt))} />
      )}
    </section>
  );
}

function Code({ address, until }: { address: string; until: string }) {
  const { path, modules } = useMemo(() => codeOf(address), [address]);
  return (
    <div className={classes.code}>
      <svg
        viewBox={`-4 -4 ${modules + 8} ${modules + 8}`}
        role="img"
        aria-label="Code to scan with the other device"
        shapeRendering="crispEdges"
      >
        <rect x={-4} y={-4} width={modules + 8} height={modules + 8} fill="#fff" />
        <path d={path} fill="#000" />
      </svg>
      <div>
        <p>
          Scan it with the camera of the other device, or open this address there. It lets one device in, until {until}.
        </p>
        <TextInput readOnly label="Address" value={address} onFocus={(e) => e.currentTarget.select()} />
      </div>
    </div>
  );
}

interface DeviceRowProps {
  device: Device;
  own: boolean;
  people: readonly Person[];
  mayWork: boolean;
}

function DeviceRow({ device, own, people, mayWork }: DeviceRowProps) {
  const { id, name, person, may } = device;
  const save = async (change: Partial<Pick<Device, 'name' | 'person' | 'may'>>) => {
    try {
      queryClient.setQueryData(KEY, await api.changeDevice(id, { name, person, may, ...change }));
    } catch (error) {
      showProblem(error);
    }
  };
  const end = async () => {
    try {
      queryClient.setQueryData(KEY, await api.endDevice(id));
      showWord(`${name} is let in no more.`);
    } catch (error) {
      showProblem(error);
    }
  };
  return (
    <tr data-own={own || undefined}>
      <td>
        {mayWork ? (
          <TextField
            field={`Name of ${name}`}
            value={name}
            schema={deviceChangeSchema.shape.name}
            onCommit={(changed) => void save({ name: changed })}
          />
        ) : (
          name
        )}
        {own && <small>this device</small>}
      </td>
      <td>
        {mayWork ? (
          <PersonSelect
            label={`Whose ${name} is`}
            value={person ?? ANYBODY}
            people={people}
            onChange={(chosen) => void save({ person: chosen === ANYBODY ? null : chosen })}
          />
        ) : (
          (people.find((p) => p.id === person)?.name ?? 'Everybody')
        )}
      </td>
      <td>
        {mayWork && !own ? (
          <MaySelect label={`What ${name} may`} value={may} onChange={(chosen) => void save({ may: chosen })} />
        ) : (
          MAY_WORDS[may]
        )}
      </td>
      <td>{WHEN.format(new Date(device.seenAt))}</td>
      <td>
        {mayWork && !own && (
          <Button size="xs" variant="default" onClick={() => void end()} aria-label={`End ${name}`}>
            End
          </Button>
        )}
      </td>
    </tr>
  );
}

function PersonSelect({
  label,
  shown = false,
  value,
  people,
  onChange,
}: {
  label: string;
  /** The label is seen, and not only heard. */
  shown?: boolean;
  value: string;
  people: readonly Person[];
  onChange(value: string): void;
}) {
  return (
    <NativeSelect
      size="sm"
      {...(shown ? { label } : { 'aria-label': label })}
      value={value}
      onChange={(e) => onChange(e.currentTarget.value)}
      data={[{ value: ANYBODY, label: 'Everybody' }, ...people.map((p) => ({ value: p.id, label: p.name }))]}
    />
  );
}

function MaySelect({
  label,
  shown = false,
  value,
  onChange,
}: {
  label: string;
  shown?: boolean;
  value: Right;
  onChange(value: Right): void;
}) {
  return (
    <NativeSelect
      size="sm"
      {...(shown ? { label } : { 'aria-label': label })}
      value={value}
      onChange={(e) => onChange(e.currentTarget.value as Right)}
      data={RIGHTS.map((may) => ({ value: may, label: MAY_WORDS[may] }))}
    />
  );
}
