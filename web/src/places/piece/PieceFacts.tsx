import { certain } from '#core/lists/there.ts';
import { NumberField, TextField } from '../../quantities/plainFields.tsx';
import { Checkbox, NativeSelect, NumberInput, Select } from '@mantine/core';
import type { ReactNode } from 'react';
import { z } from 'zod';
import {
  grainDirections,
  originKinds,
  pieceShape,
  priceUnits,
  straightEdges,
  surfaces,
  type Form,
  type Piece,
} from '#core/stock/piece.ts';
import { ringOrientations } from '#core/wood/rings.ts';
import type { Species } from '#core/wood/species.ts';
import { CommitField } from '../../quantities/CommitField.tsx';
import { LengthInput } from '../../quantities/LengthInput.tsx';
import classes from './PiecePlace.module.css';
import { SURFACE_WORDS } from './words.ts';

interface PieceFactsProps {
  piece: Piece;
  species: readonly Species[];
  currency: string;
  onChange(edit: (piece: Piece) => Piece): void;
}

const STRAIGHT_WORDS = { none: 'neither', near: 'the near one', far: 'the far one', both: 'both' };
const GRAIN_WORDS = {
  unknown: 'not looked at',
  straight: 'straight',
  toFar: 'rises to the far end',
  toMark: 'rises to the marked end',
};
const PRICE_WORDS = {
  cubicMetre: 'a cubic metre',
  boardFoot: 'a board foot',
  kilogram: 'a kilogram',
  piece: 'the piece',
};
const FORM = [
  ['bow', 'Bow'],
  ['cup', 'Cup'],
  ['crook', 'Crook'],
  ['twist', 'Twist'],
] as const;
const END = [
  ['checked', 'checked for'],
  ['snipe', 'sniped for'],
] as const;
const { shape } = pieceShape;
const formShape = shape.form.unwrap().shape;
const farShape = shape.farEnd.unwrap().shape;
const optionalNumber = (schema: z.ZodType<number | null>) => schema;

/** Everything known about a piece beside what lies on it, each figure saved as it is left. */
export function PieceFacts({ piece, species, currency, onChange }: PieceFactsProps) {
  const set = (change: Partial<Piece>) => onChange((p) => ({ ...p, ...change }));
  const options = <T extends string>(values: readonly T[], words: Record<T, string>) =>
    values.map((value) => ({ value, label: words[value] }));
  const form = piece.form ?? { bow: 0, cup: 0, crook: 0, twist: 0 };
  return (
    <>
      <Group title="Sizes">
        {(['length', 'width', 'thickness'] as const).map((key) => (
          <LengthInput
            key={key}
            field={
              key === 'length'
                ? 'Length'
                : `${key === 'width' ? 'Width' : 'Thickness'}${piece.farEnd ? ' at the marked end' : ''}`
            }
            mm={piece[key]}
            schema={shape[key]}
            onCommit={(mm) => set({ [key]: mm })}
          />
        ))}
        <Checkbox
          label="It tapers"
          checked={piece.farEnd !== null}
          onChange={(e) =>
            set({ farEnd: e.currentTarget.checked ? { width: piece.width, thickness: piece.thickness } : null })
          }
        />
        {piece.farEnd &&
          (['width', 'thickness'] as const).map((key) => (
            <LengthInput
              key={key}
              field={`${key === 'width' ? 'Width' : 'Thickness'} at the far end`}
              mm={certain(piece.farEnd)[key]}
              schema={farShape[key]}
              onCommit={(mm) => onChange((p) => ({ ...p, farEnd: { ...certain(p.farEnd), [key]: mm } }))}
            />
          ))}
        <NumberField
          field="Identical pieces"
          value={piece.count}
          schema={shape.count}
          onCommit={(count) => set({ count })}
        />
      </Group>
      <Group title="Wood">
        <TextField field="Mark" value={piece.mark} schema={shape.mark} onCommit={(mark) => set({ mark })} />
        <Select
          label="Species"
          searchable
          allowDeselect={false}
          value={piece.species}
          data={species.map((s) => ({ value: s.code, label: s.name }))}
          onChange={(code) => code && set({ species: code })}
        />
        <NativeSelect
          label="Surface"
          value={piece.surface}
          data={options(surfaces, SURFACE_WORDS)}
          onChange={(e) => set({ surface: e.currentTarget.value as Piece['surface'] })}
        />
        <NativeSelect
          label="Straight edges"
          value={piece.straight}
          data={options(straightEdges, STRAIGHT_WORDS)}
          onChange={(e) => set({ straight: e.currentTarget.value as Piece['straight'] })}
        />
        <NativeSelect
          label="Rings on its end"
          value={piece.rings}
          data={options(ringOrientations, { flat: 'flat', rift: 'rift', quarter: 'quarter' })}
          onChange={(e) => set({ rings: e.currentTarget.value as Piece['rings'] })}
        />
        <NativeSelect
          label="Grain"
          value={piece.grain}
          data={options(grainDirections, GRAIN_WORDS)}
          onChange={(e) => set({ grain: e.currentTarget.value as Piece['grain'] })}
        />
        <CommitField
          value={piece.moisture}
          schema={optionalNumber(shape.moisture)}
          field="Moisture"
          onCommit={(moisture) => set({ moisture })}
        >
          {(typed, change, problem, leave) => (
            <NumberInput
              label="Moisture"
              suffix=" %"
              hideControls
              value={typed ?? ''}
              error={problem}
              onChange={(n) => change(typeof n === 'number' ? n : n === '' ? null : Number.NaN)}
              onBlur={leave}
              onKeyDown={(e) => e.key === 'Enter' && leave()}
            />
          )}
        </CommitField>
      </Group>
      <Group title="Out of true" note="Measured over the whole piece on a flat table.">
        {FORM.map(([key, label]) => (
          <LengthInput
            key={key}
            field={label}
            mm={piece.form?.[key]}
            schema={formShape[key]}
            onCommit={(mm) => onChange((p) => ({ ...p, form: { ...(p.form ?? form), [key]: mm } satisfies Form }))}
          />
        ))}
        {piece.form && <Checkbox label="Measured" checked onChange={() => set({ form: null })} />}
      </Group>
      <Group title="Ends">
        {(['mark', 'far'] as const).flatMap((end) => [
          ...END.map(([key, label]) => (
            <LengthInput
              key={`${end}${key}`}
              field={`${end === 'mark' ? 'Marked' : 'Far'} end ${label}`}
              mm={piece.ends[end][key]}
              schema={shape.ends.shape[end].shape[key]}
              onCommit={(mm) => onChange((p) => ({ ...p, ends: { ...p.ends, [end]: { ...p.ends[end], [key]: mm } } }))}
            />
          )),
          <Checkbox
            key={`${end}sawn`}
            label={`${end === 'mark' ? 'Marked' : 'Far'} end sawn clean`}
            checked={piece.ends[end].sawn}
            onChange={(e) => {
              const sawn = e.currentTarget.checked;
              onChange((p) => ({ ...p, ends: { ...p.ends, [end]: { ...p.ends[end], sawn } } }));
            }}
          />,
        ])}
      </Group>
      <Group title="Where from, where to">
        <NativeSelect
          label="Origin"
          value={piece.origin.kind}
          data={options(originKinds, { bought: 'bought', offcut: 'offcut of', salvage: 'salvaged from' })}
          onChange={(e) => {
            const kind = e.currentTarget.value as Piece['origin']['kind'];
            onChange((p) => ({ ...p, origin: { ...p.origin, kind } }));
          }}
        />
        <TextField
          field="Of what"
          value={piece.origin.of}
          schema={shape.origin.shape.of}
          onCommit={(of) => onChange((p) => ({ ...p, origin: { ...p.origin, of } }))}
        />
        <TextField field="Shelf" value={piece.shelf} schema={shape.shelf} onCommit={(shelf) => set({ shelf })} />
        <TextField field="Note" value={piece.note} schema={shape.note} onCommit={(note) => set({ note })} />
        <NumberInput
          label={`Price, ${currency}`}
          hideControls
          min={0}
          value={piece.price?.amount ?? ''}
          onBlur={(e) => {
            const text = e.currentTarget.value.trim();
            const amount = Number(text);
            if (text === '') {
              if (piece.price) set({ price: null });
            } else if (Number.isFinite(amount) && amount !== piece.price?.amount)
              set({ price: { amount, per: piece.price?.per ?? 'cubicMetre' } });
          }}
        />
        <NativeSelect
          label="for"
          disabled={!piece.price}
          value={piece.price?.per ?? 'cubicMetre'}
          data={options(priceUnits, PRICE_WORDS)}
          onChange={(e) =>
            piece.price &&
            set({ price: { ...piece.price, per: e.currentTarget.value as NonNullable<Piece['price']>['per'] } })
          }
        />
      </Group>
    </>
  );
}

function Group({ title, note, children }: { title: string; note?: string; children: ReactNode }) {
  return (
    <section>
      <h2>{title}</h2>
      {note && <p className={classes.soft}>{note}</p>}
      <div className={classes.fields}>{children}</div>
    </section>
  );
}
