import { Button } from '@mantine/core';
import { deviceChangeSchema, type Device } from '#contract/devices.ts';
import type { Person } from '#core/shop/people.ts';
import { useConfirmed } from '../../confirm/useConfirmed.tsx';
import { api } from '../../data/api.ts';
import { queryClient } from '../../data/queryClient.ts';
import { whenWords } from '../../quantities/moment.ts';
import { TextField } from '../../quantities/plainFields.tsx';
import { showProblem, showWord } from '../../shell/notices.tsx';
import { ANYBODY, MAY_WORDS, MaySelect, PersonSelect } from './deviceSelects.tsx';
import { devicesKey } from './devicesKey.ts';

interface DeviceRowProps {
  device: Device;
  own: boolean;
  people: readonly Person[];
  mayWork: boolean;
}

/** A device with its name, whose it is and what it may, each saved as it is left. */
export function DeviceRow({ device, own, people, mayWork }: DeviceRowProps) {
  const { id, name, person, may } = device;
  const { confirmed, dialog } = useConfirmed();
  const save = async (change: Partial<Pick<Device, 'name' | 'person' | 'may'>>) => {
    try {
      const wanted = { name, person, may, ...change };
      queryClient.setQueryData(devicesKey, await confirmed(() => api.changeDevice(id, wanted)));
    } catch (error) {
      showProblem(error);
    }
  };
  const end = async () => {
    try {
      queryClient.setQueryData(devicesKey, await api.endDevice(id));
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
      <td>{whenWords(device.seenAt)}</td>
      <td>
        {mayWork && !own && (
          <Button size="xs" variant="default" onClick={() => void end()} aria-label={`End ${name}`}>
            End
          </Button>
        )}
        {dialog}
      </td>
    </tr>
  );
}
