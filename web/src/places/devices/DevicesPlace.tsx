import { Button } from '@mantine/core';
import { IconLogout } from '@tabler/icons-react';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { deviceChangeSchema, type Devices } from '#contract/devices.ts';
import type { Person } from '#core/shop/people.ts';
import { api } from '../../data/api.ts';
import { deviceName, nameDevice } from '../../data/deviceName.ts';
import { trouble, useShop } from '../../data/queries.ts';
import { forgetAnswers } from '../../offline/keptAnswers.ts';
import { TextField } from '../../quantities/plainFields.tsx';
import { DeviceRow } from './DeviceRow.tsx';
import { devicesKey } from './devicesKey.ts';
import classes from './DevicesPlace.module.css';
import { InviteDevice } from './InviteDevice.tsx';

/** Devices that use this shop: which they are, whose, what they may; and how another one comes to be known. */
export function DevicesPlace() {
  const devices = useQuery({ queryKey: devicesKey, queryFn: api.devices });
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
      {may === 'work' && <InviteDevice devices={devices} people={people} />}
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
