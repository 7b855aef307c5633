import { Button, Checkbox, NativeSelect, TextInput } from '@mantine/core';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import { z } from 'zod';
import { nth } from '#core/lists/there.ts';
import type { Away, DayHours, OpenToo } from '#core/shop/hours.ts';
import { shopSchema, type Shop } from '#core/shop/shop.ts';
import { OptionalNumber, TextField } from '../../quantities/plainFields.tsx';
import { RemoveButton } from '../../quantities/RemoveButton.tsx';
import type { EditShop } from './editShop.ts';
import classes from './ShopPlace.module.css';

const DAYS = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'];
const EVERYBODY = '';
const { people: peopleShape, space } = shopSchema.shape;

/** Who works here and when, days away, evenings more, and room for what takes its time. */
export function PeopleRoom({ shop, change }: { shop: Shop; change: EditShop }) {
  const setPerson = (id: string, own: Partial<Shop['people'][number]>) =>
    change((s) => ({ ...s, people: s.people.map((p) => (p.id === id ? { ...p, ...own } : p)) }));
  return (
    <>
      {shop.people.map((person) => (
        <div key={person.id} className={classes.machine} role="group" aria-label={person.name}>
          <div className={classes.line}>
            <TextField
              field="Pair of hands"
              value={person.name}
              schema={peopleShape.element.shape.name}
              onCommit={(name) => setPerson(person.id, { name })}
            />
            <Checkbox
              label="Comes whenever the shop is open"
              checked={person.hours === null}
              onChange={(e) => setPerson(person.id, { hours: e.currentTarget.checked ? null : [...shop.hours] })}
            />
            {shop.people.length > 1 && (
              <RemoveButton
                label={`Remove ${person.name}`}
                onClick={() =>
                  change((s) => ({
                    ...s,
                    people: s.people.filter((p) => p.id !== person.id),
                    away: s.away.filter((a) => a.person !== person.id),
                  }))
                }
              />
            )}
          </div>
          {person.hours && (
            <div className={classes.days}>
              {DAYS.map((day, i) => (
                <DayTimes
                  key={day}
                  day={`${person.name}, ${day}`}
                  label={day}
                  hours={nth(person.hours ?? [], i)}
                  onCommit={(own) =>
                    setPerson(person.id, { hours: (person.hours ?? []).map((h, k) => (k === i ? own : h)) })
                  }
                />
              ))}
            </div>
          )}
        </div>
      ))}
      {shop.people.length < 8 && (
        <Button
          size="xs"
          variant="default"
          onClick={() =>
            change((s) => ({
              ...s,
              people: [...s.people, { id: nanoid(8), name: 'Another pair of hands', hours: null }],
            }))
          }
        >
          Add a pair of hands
        </Button>
      )}
      <AwayList shop={shop} change={change} />
      <MoreEvenings shop={shop} change={change} />
      <div className={classes.grid}>
        <OptionalNumber
          field="Glue-ups at once"
          suffix=""
          value={shop.space.glueUps}
          schema={space.shape.glueUps}
          onCommit={(glueUps) => change((s) => ({ ...s, space: { ...s.space, glueUps } }))}
        />
        <OptionalNumber
          field="Places for boards to dry"
          suffix=""
          value={shop.space.drying}
          schema={space.shape.drying}
          onCommit={(drying) => change((s) => ({ ...s, space: { ...s.space, drying } }))}
        />
        <TextField
          field="Time zone"
          description="Such as Europe/Vienna. Empty: of the device that looks."
          value={shop.zone ?? ''}
          schema={zoneField}
          onCommit={(zone) => change((s) => ({ ...s, zone: zone === '' ? null : zone }))}
        />
      </div>
    </>
  );
}

const zoneField = z.string().refine((text) => text === '' || shopSchema.shape.zone.safeParse(text).success, {
  error: 'must be the name of a time zone such as Europe/Vienna',
});

/** From when to when on a day, or not at all. */
function DayTimes({
  day,
  label,
  hours,
  onCommit,
}: {
  day: string;
  label: string;
  hours: DayHours;
  onCommit(hours: DayHours): void;
}) {
  const [problem, setProblem] = useState<string | null>(null);
  const set = (own: { from: string; to: string }) => {
    if (own.from === '' || own.to === '') return setProblem(`${day} must have two times.`);
    if (own.to <= own.from) return setProblem(`${day} must end later than it begins.`);
    setProblem(null);
    onCommit(own);
  };
  return (
    <div role="group" aria-label={day}>
      <label>
        <input
          type="checkbox"
          checked={hours !== null}
          onChange={(e) => onCommit(e.currentTarget.checked ? { from: '09:00', to: '18:00' } : null)}
        />{' '}
        {label}
      </label>
      {hours ? (
        <span>
          <TextInput
            size="xs"
            type="time"
            aria-label={`${day} from`}
            defaultValue={hours.from}
            onBlur={(e) => set({ ...hours, from: e.currentTarget.value })}
          />
          <TextInput
            size="xs"
            type="time"
            aria-label={`${day} to`}
            defaultValue={hours.to}
            onBlur={(e) => set({ ...hours, to: e.currentTarget.value })}
          />
        </span>
      ) : (
        <span>does not come</span>
      )}
      {problem && <small role="alert">{problem}</small>}
    </div>
  );
}

/** A first and a last day that were typed, or why they are none. */
function daysProblem(from: string, to: string): string | null {
  if (from === '') return 'The first day must be a day such as 2026-12-24.';
  if (to !== '' && to < from) return 'The last day must not be before the first.';
  return null;
}

function AwayList({ shop, change }: { shop: Shop; change: EditShop }) {
  const [from, setFrom] = useState('');
  const [to, setTo] = useState('');
  const [person, setPerson] = useState(EVERYBODY);
  const [problem, setProblem] = useState<string | null>(null);
  const add = () => {
    const wrong = daysProblem(from, to);
    setProblem(wrong);
    if (wrong) return;
    const away: Away = { from, to: to === '' ? from : to, person: person === EVERYBODY ? null : person };
    change((s) => ({ ...s, away: [...s.away, away].sort((a, b) => (a.from < b.from ? -1 : 1)) }));
    setFrom('');
    setTo('');
  };
  const nameOf = (id: string | null) => shop.people.find((p) => p.id === id)?.name ?? 'everybody';
  return (
    <div className={classes.machine} role="group" aria-label="Days away">
      <h3>Days away</h3>
      <ul>
        {shop.away.map((a, i) => (
          <li key={`${a.from} ${a.to} ${a.person}`}>
            {a.from === a.to ? a.from : `${a.from} to ${a.to}`}, {nameOf(a.person)}{' '}
            <RemoveButton
              label={`Remove ${a.from}`}
              onClick={() => change((s) => ({ ...s, away: s.away.filter((_, k) => k !== i) }))}
            />
          </li>
        ))}
      </ul>
      <div className={classes.line}>
        <TextInput
          size="sm"
          type="date"
          label="First day away"
          value={from}
          error={problem}
          onChange={(e) => setFrom(e.currentTarget.value)}
        />
        <TextInput
          size="sm"
          type="date"
          label="Last day away"
          value={to}
          onChange={(e) => setTo(e.currentTarget.value)}
        />
        <NativeSelect
          size="sm"
          label="Who is away"
          value={person}
          onChange={(e) => setPerson(e.currentTarget.value)}
          data={[{ value: EVERYBODY, label: 'Everybody' }, ...shop.people.map((p) => ({ value: p.id, label: p.name }))]}
        />
        <Button size="sm" variant="default" onClick={add}>
          Add days away
        </Button>
      </div>
    </div>
  );
}

function MoreEvenings({ shop, change }: { shop: Shop; change: EditShop }) {
  const [open, setOpen] = useState<OpenToo>({ day: '', from: '17:00', to: '21:00' });
  const [problem, setProblem] = useState<string | null>(null);
  const add = () => {
    const wrong =
      open.day === ''
        ? 'The evening must be a day such as 2026-12-24.'
        : open.to <= open.from
          ? 'The evening must end later than it begins.'
          : null;
    setProblem(wrong);
    if (wrong) return;
    change((s) => ({ ...s, openToo: [...s.openToo, open].sort((a, b) => (a.day < b.day ? -1 : 1)) }));
    setOpen({ ...open, day: '' });
  };
  return (
    <div className={classes.machine} role="group" aria-label="Evenings more">
      <h3>Evenings more</h3>
      <ul>
        {shop.openToo.map((o, i) => (
          <li key={`${o.day} ${o.from}`}>
            {o.day}, {o.from} to {o.to}{' '}
            <RemoveButton
              label={`Remove the evening of ${o.day}`}
              onClick={() => change((s) => ({ ...s, openToo: s.openToo.filter((_, k) => k !== i) }))}
            />
          </li>
        ))}
      </ul>
      <div className={classes.line}>
        <TextInput
          size="sm"
          type="date"
          label="Evening on"
          value={open.day}
          error={problem}
          onChange={(e) => setOpen({ ...open, day: e.currentTarget.value })}
        />
        <TextInput
          size="sm"
          type="time"
          label="Evening from"
          value={open.from}
          onChange={(e) => setOpen({ ...open, from: e.currentTarget.value })}
        />
        <TextInput
          size="sm"
          type="time"
          label="Evening to"
          value={open.to}
          onChange={(e) => setOpen({ ...open, to: e.currentTarget.value })}
        />
        <Button size="sm" variant="default" onClick={add}>
          Add an evening
        </Button>
      </div>
    </div>
  );
}
