import { Button, TextInput } from '@mantine/core';
import { IconDeviceTablet } from '@tabler/icons-react';
import { useMemo, useState } from 'react';
import type { Devices, Invitation, Right } from '#contract/devices.ts';
import type { Person } from '#core/shop/people.ts';
import { useConfirmed } from '../../confirm/useConfirmed.tsx';
import { api } from '../../data/api.ts';
import { showProblem } from '../../shell/notices.tsx';
import { codeOf } from '../labels/useCodes.ts';
import { ANYBODY, MaySelect, PersonSelect } from './deviceSelects.tsx';
import classes from './DevicesPlace.module.css';

const TIME = new Intl.DateTimeFormat(undefined, { hour: '2-digit', minute: '2-digit', hourCycle: 'h23' });

/** Where the other device finds this server: as this page is reached, unless that is by a name that only this machine has. */
function addressFor({ addresses }: Devices): string | null {
  const { hostname, origin } = window.location;
  const loopback = hostname === 'localhost' || hostname === '[::1]' || hostname.startsWith('127.');
  return loopback ? (addresses[0] ?? null) : origin;
}

/** Another device is let in by a code that it scans. */
export function InviteDevice({ devices, people }: { devices: Devices; people: readonly Person[] }) {
  const [person, setPerson] = useState(ANYBODY);
  const [may, setMay] = useState<Right>('work');
  const [invitation, setInvitation] = useState<Invitation | null>(null);
  const [busy, setBusy] = useState(false);
  const { confirmed, dialog } = useConfirmed();
  const address = addressFor(devices);
  const make = async () => {
    setBusy(true);
    try {
      const wanted = { person: person === ANYBODY ? null : person, may };
      setInvitation(await confirmed(() => api.invite(wanted)));
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
      {dialog}
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
