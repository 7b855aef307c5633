import { firstOf } from '#core/lists/there.ts';
import { Button, Modal, NativeSelect, NumberInput, SegmentedControl, Select, Textarea, TextInput } from '@mantine/core';
import { useMediaQuery } from '@mantine/hooks';
import { useState, type FormEvent, type ReactNode } from 'react';
import { fieldProblems } from '#core/format/fieldProblems.ts';
import {
  pieceFieldsSchema,
  pieceShape,
  PLAIN_CONDITION,
  surfaces,
  type Piece,
  type PieceFields,
} from '#core/stock/piece.ts';
import { formatLengthForInput } from '#core/units/formatLength.ts';
import { newSpecies } from '#core/wood/newSpecies.ts';
import type { Species } from '#core/wood/species.ts';
import type { StoredPiece } from '#contract/rack.ts';
import { api, ApiProblem } from '../../data/api.ts';
import { keys, queryClient } from '../../data/queryClient.ts';
import { useDisplay } from '../../quantities/display.tsx';
import { readLength } from '../../quantities/LengthInput.tsx';
import classes from './PieceDialog.module.css';

interface PieceDialogProps {
  /** The piece being edited, or null for a new one. */
  stored: StoredPiece | null;
  start: Partial<Piece>;
  species: readonly Species[];
  currency: string;
  onClose(): void;
  onSaved(saved: StoredPiece): void;
}

/** Stands for a species that nobody has entered yet; no code looks like it. */
const ANOTHER = '+';
const SIZES = ['length', 'width', 'thickness'] as const;
const SIZE_LABELS = { length: 'Length', width: 'Width', thickness: 'Thickness' } as const;
type Per = NonNullable<Piece['price']>['per'];
const SURFACE_LABELS: Record<Piece['surface'], string> = {
  rough: 'Rough',
  oneFace: 'One face planed',
  twoFaces: 'Both faces',
  fourSides: 'All round',
  ready: 'Ready: use as it is',
};
const ASKED = ['mark', 'species', 'length', 'width', 'thickness', 'surface', 'rings', 'price', 'note'];

/** Enters or edits a piece. What is wrong stays typed and gets its sentence; nothing is lost by a refusal. */
export function PieceDialog({ stored, start, species, currency, onClose, onSaved }: PieceDialogProps) {
  const { display } = useDisplay();
  const [mark, setMark] = useState(start.mark ?? '');
  const [code, setCode] = useState<string | null>(start.species ?? null);
  const [newName, setNewName] = useState('');
  const [like, setLike] = useState<string | null>(null);
  const [sizes, setSizes] = useState<Record<string, string>>({});
  // Five surfaces side by side are wider than a phone.
  const narrow = useMediaQuery('(max-width: 640px)') ?? false;
  const [surface, setSurface] = useState<Piece['surface']>(start.surface ?? 'rough');
  const [rings, setRings] = useState<Piece['rings']>(start.rings ?? 'flat');
  const [amount, setAmount] = useState<number | string>(start.price?.amount ?? '');
  const [per, setPer] = useState<Per>(start.price?.per ?? 'cubicMetre');
  const [note, setNote] = useState(start.note ?? '');
  const [problems, setProblems] = useState<Record<string, string>>({});
  const [version, setVersion] = useState(stored?.version ?? 0);
  const [busy, setBusy] = useState(false);
  const shownSize = (size: (typeof SIZES)[number]) =>
    sizes[size] ?? (start[size] === undefined ? '' : formatLengthForInput(start[size], display));

  /** The species that is made together with the piece; null for one that is known. */
  const made = (): Species | null => {
    const model = species.find((s) => s.code === like);
    return code === ANOTHER && model && newName.trim() !== '' ? newSpecies(newName.trim(), model, species) : null;
  };
  const read = (): PieceFields | Record<string, string> => {
    const found: Record<string, string> = {};
    if (code === ANOTHER && newName.trim() === '') found.newName = 'The name must not be empty.';
    if (code === ANOTHER && like === null) found.like = 'Choose a species whose density and movement are like its own.';
    const lengths: Partial<Record<(typeof SIZES)[number], number>> = {};
    for (const size of SIZES) {
      const untouched = sizes[size] === undefined ? start[size] : undefined;
      const value = untouched ?? readLength(shownSize(size), SIZE_LABELS[size], display.system, pieceShape.shape[size]);
      if (typeof value === 'string') found[size] = value;
      else lengths[size] = value;
    }
    const price = amount === '' ? null : { amount: Number(amount), per };
    // What the dialog does not ask about stays as it is, or at its plainest.
    const { id: _id, ...rest } = { id: '', ...PLAIN_CONDITION, defects: [], ...start };
    const sizesRead =
      Object.keys(lengths).length === SIZES.length ? lengths : { length: 100, width: 100, thickness: 20, defects: [] };
    const fields = pieceFieldsSchema.safeParse({
      ...rest,
      mark,
      species: made()?.code ?? (code === ANOTHER ? 'none' : (code ?? '')),
      surface,
      rings,
      price,
      note,
      ...sizesRead,
    });
    if (!fields.success) {
      for (const p of fieldProblems(fields.error)) {
        const field = firstOf(p.path.split(/[.[]/));
        found[ASKED.includes(field) ? field : 'form'] ??= p.message;
      }
    }
    return fields.success && Object.keys(found).length === 0 ? fields.data : found;
  };
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const fields = read();
    if (!('species' in fields) || !('rings' in fields)) {
      setProblems(fields);
      return;
    }
    const piece = fields as PieceFields;
    setProblems({});
    setBusy(true);
    try {
      const entered = made();
      if (entered) queryClient.setQueryData(keys.species, await api.addSpecies(entered));
      onSaved(stored ? await api.changePiece(stored.piece.id, version, piece) : await api.addPiece(piece));
    } catch (error) {
      setBusy(false);
      const problem = error as ApiProblem;
      const current = problem.current as StoredPiece | undefined;
      // Stale: say so; saving again is then the person's choice over the newer version.
      if (problem.code === 'stale' && current) setVersion(current.version);
      setProblems(
        problem.fields?.length > 0
          ? Object.fromEntries(problem.fields.map((f) => [firstOf(f.path.split('.')), f.message]))
          : {
              form:
                problem.code === 'stale' && current
                  ? `${problem.message} It is now ${SIZES.map((s) => formatLengthForInput(current.piece[s], display)).join(' × ')}. Save again to put yours in its place, or cancel.`
                  : problem.message,
            },
      );
    }
  };

  return (
    <Modal
      opened
      onClose={onClose}
      title={stored ? `Piece ${stored.piece.mark}` : 'A piece for the rack'}
      size="lg"
      closeButtonProps={{ 'aria-label': 'Close' }}
    >
      <form onSubmit={(event) => void submit(event)} className={classes.form} noValidate>
        <div className={classes.row}>
          <TextInput
            label="Mark"
            w={120}
            value={mark}
            error={problems.mark}
            onChange={(e) => setMark(e.currentTarget.value)}
            data-autofocus
          />
          <Select
            label="Species"
            flex={1}
            searchable
            value={code}
            error={problems.species}
            onChange={setCode}
            data={[
              ...species.map((s) => ({ value: s.code, label: s.name })),
              { value: ANOTHER, label: 'Another species …' },
            ]}
          />
        </div>
        {code === ANOTHER && (
          <div className={classes.row}>
            <TextInput
              label="Its name"
              flex={1}
              value={newName}
              error={problems.newName}
              onChange={(e) => setNewName(e.currentTarget.value)}
            />
            <Select
              label="With figures like those of"
              flex={1}
              searchable
              placeholder="choose a species"
              value={like}
              error={problems.like}
              onChange={setLike}
              data={species.map((s) => ({ value: s.code, label: s.name }))}
            />
          </div>
        )}
        <div className={classes.sizes}>
          {SIZES.map((size) => (
            <TextInput
              key={size}
              label={SIZE_LABELS[size]}
              value={shownSize(size)}
              error={problems[size]}
              autoComplete="off"
              placeholder={display.system === 'metric' ? 'mm, or 8/4, 7 1/2"' : 'in, or 45 mm'}
              onChange={(e) => {
                const { value } = e.currentTarget;
                setSizes((old) => ({ ...old, [size]: value }));
              }}
            />
          ))}
        </div>
        <div className={classes.row}>
          <Labelled label="Surface">
            <SegmentedControl
              aria-label="Surface"
              orientation={narrow ? 'vertical' : 'horizontal'}
              value={surface}
              onChange={(v) => setSurface(v)}
              data={surfaces.map((value) => ({ value, label: SURFACE_LABELS[value] }))}
            />
          </Labelled>
          <Labelled label="Rings on its end">
            <SegmentedControl
              aria-label="Rings"
              value={rings}
              onChange={(v) => setRings(v)}
              data={[
                { value: 'flat', label: 'Flat' },
                { value: 'rift', label: 'Rift' },
                { value: 'quarter', label: 'Quarter' },
              ]}
            />
          </Labelled>
        </div>
        <div className={classes.row}>
          <NumberInput
            label={`Price${currency && `, ${currency}`}`}
            w={140}
            value={amount}
            error={problems.price}
            onChange={setAmount}
            hideControls
          />
          <NativeSelect
            label="for"
            value={per}
            onChange={(e) => setPer(e.currentTarget.value as Per)}
            data={[
              { value: 'cubicMetre', label: 'a cubic metre' },
              { value: 'boardFoot', label: 'a board foot' },
              { value: 'kilogram', label: 'a kilogram' },
              { value: 'piece', label: 'the piece' },
            ]}
          />
        </div>
        <Textarea
          label="Note"
          value={note}
          error={problems.note}
          autosize
          minRows={1}
          maxRows={4}
          onChange={(e) => setNote(e.currentTarget.value.replace(/\n/g, ' '))}
        />
        {problems.form && (
          <p role="alert" className={classes.problem}>
            {problems.form}
          </p>
        )}
        <div className={classes.row}>
          <Button type="submit" loading={busy}>
            {stored ? 'Save' : 'Put it in the rack'}
          </Button>
          <Button variant="default" onClick={onClose}>
            Cancel
          </Button>
        </div>
      </form>
    </Modal>
  );
}

function Labelled({ label, children }: { label: string; children: ReactNode }) {
  return (
    <div className={classes.labelled}>
      <span>{label}</span>
      {children}
    </div>
  );
}
