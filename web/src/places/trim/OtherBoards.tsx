import { TextField } from '../../quantities/plainFields.tsx';
import { Button } from '@mantine/core';
import { IconPlus } from '@tabler/icons-react';
import { otherSchema, type OtherBoard } from '#core/features/feature.ts';
import { LengthInput } from '../../quantities/LengthInput.tsx';
import classes from './SpotList.module.css';
import { freshId, useWorked } from './useWorked.ts';
import { RemoveButton } from '../../quantities/RemoveButton.tsx';

/** Smaller boards that come out of the same panel, which is glued that much longer; they are placed where they leave most. */
export function OtherBoards() {
  const { worked, now, change } = useWorked();
  const add = () => {
    const id = freshId(worked.others, 'other');
    const other: OtherBoard = {
      id,
      name: `Small board ${id.slice('other'.length)}`,
      length: 200,
      width: Math.max(20, Math.min(150, Math.floor(now.size.width))),
    };
    change((w) => ({ ...w, others: [...w.others, other] }));
  };
  const set = (id: string, to: Partial<OtherBoard>) =>
    change((w) => ({ ...w, others: w.others.map((o) => (o.id === id ? { ...o, ...to } : o)) }));
  return (
    <>
      <p className={classes.head}>
        <b>Other boards</b> from the same panel, glued longer for them{' '}
        <Button
          size="compact-xs"
          variant="default"
          leftSection={<IconPlus size={13} />}
          onClick={add}
          disabled={worked.others.length >= 8}
        >
          Add one
        </Button>
      </p>
      {worked.others.map((other) => (
        <fieldset key={other.id} className={classes.spot} data-kind="other">
          <legend className={classes.legend}>{other.name}</legend>
          <TextField
            size="xs"
            field="Name"
            label="Its name"
            value={other.name}
            schema={otherSchema.shape.name}
            onCommit={(name) => set(other.id, { name })}
          />
          <LengthInput
            size="xs"
            field="Its length"
            mm={other.length}
            schema={otherSchema.shape.length}
            onCommit={(length) => set(other.id, { length })}
          />
          <LengthInput
            size="xs"
            field="Its width"
            mm={other.width}
            schema={otherSchema.shape.width}
            onCommit={(width) => set(other.id, { width })}
          />
          <RemoveButton
            label={`Take ${other.name} off the panel`}
            onClick={() => change((w) => ({ ...w, others: w.others.filter((o) => o.id !== other.id) }))}
          />
        </fieldset>
      ))}
    </>
  );
}
