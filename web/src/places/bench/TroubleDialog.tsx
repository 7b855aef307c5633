import { Button, FileButton, Modal, NativeSelect, Textarea, TextInput } from '@mantine/core';
import { IconCamera } from '@tabler/icons-react';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import { cutStripsOf } from '#core/board/recipe.ts';
import type { Look } from '#core/bench/inspection.ts';
import type { Operation } from '#core/steps/operation.ts';
import { spotSchema, type Spot } from '#core/facts/fact.ts';
import { LengthInput } from '../../quantities/LengthInput.tsx';
import type { Noted } from '../../data/factLine.ts';
import { useSettledBoard } from '../../data/openBoard.tsx';
import { takePicture } from '../../data/pictures.ts';
import { showProblem } from '../../shell/notices.tsx';
import classes from './bench.module.css';

interface TroubleDialogProps {
  step: Operation;
  copy: number;
  /** What a look at it found; nothing where somebody only says that there is trouble. */
  about?: Look['finding'];
  /** @returns whether it was noted */
  onNote(noted: Noted): boolean;
  onClose(): void;
}

type Kind = 'strip' | 'joint' | 'slice' | 'place' | 'ranOut' | 'note';
const FOUND: Readonly<Record<NonNullable<Look['finding']>, Kind>> = {
  strip: 'strip',
  glueLine: 'joint',
  slice: 'slice',
  badPlace: 'place',
};

const KINDS: readonly { kind: Kind; label: string }[] = [
  { kind: 'strip', label: 'A strip' },
  { kind: 'joint', label: 'A joint' },
  { kind: 'slice', label: 'A slice' },
  { kind: 'place', label: 'A bad place' },
  { kind: 'ranOut', label: 'Ran out of' },
  { kind: 'note', label: 'Note or picture' },
];
const WHYS: Readonly<Record<'strip' | 'joint' | 'slice', readonly string[]>> = {
  strip: ['too thin', 'torn out', 'a knot or check', 'sprang', 'cut too short'],
  joint: ['gapes', 'slid', 'starved of glue'],
  slice: ['a wedge', 'burnt', 'broken out', 'too thin'],
};

/** What went wrong, in two presses: what it is, and why. */
export function TroubleDialog({ step, copy, about, onNote, onClose }: TroubleDialogProps) {
  const { board, plan, id } = useSettledBoard();
  const [kind, setKind] = useState<Kind>(about ? FOUND[about] : 'strip');
  const strips = cutStripsOf(board);
  const [strip, setStrip] = useState(strips[0]?.id ?? '');
  const [panel, setPanel] = useState(copy);
  const [words, setWords] = useState('');
  const panels = plan.allowances.panels.length;
  const note = (noted: Noted) => {
    if (onNote(noted)) onClose();
  };
  const at = { step: step.id };
  const fail = (why: string) => {
    const last = board.recipe.at(-1)?.id ?? 'panel';
    note(
      kind === 'strip'
        ? { kind: 'failed', what: 'strip', thing: strip, copy: panel, why, ...at }
        : { kind: 'failed', what: kind === 'slice' ? 'slice' : 'glueLine', thing: last, copy: panel, why, ...at },
    );
  };
  return (
    <Modal opened onClose={onClose} title="What went otherwise?" size="lg" centered>
      <div className={classes.measures} role="radiogroup" aria-label="What it is about">
        {KINDS.filter((k) => k.kind !== 'slice' || plan.recut).map((k) => (
          <Button
            key={k.kind}
            size="md"
            role="radio"
            aria-checked={kind === k.kind}
            variant={kind === k.kind ? 'filled' : 'default'}
            onClick={() => setKind(k.kind)}
          >
            {k.label}
          </Button>
        ))}
      </div>
      {kind === 'strip' && (
        <NativeSelect
          size="lg"
          label="Which strip"
          value={strip}
          onChange={(event) => setStrip(event.currentTarget.value)}
          data={strips.map((s, i) => ({ value: s.id, label: `Strip ${i + 1}` }))}
        />
      )}
      {panels > 1 && kind !== 'note' && kind !== 'ranOut' && (
        <NativeSelect
          size="lg"
          label="Of which panel"
          value={String(panel)}
          onChange={(event) => setPanel(Number(event.currentTarget.value))}
          data={Array.from({ length: panels }, (_, k) => ({ value: String(k + 1), label: `Panel ${k + 1}` }))}
        />
      )}
      {kind === 'ranOut' && (
        <div className={classes.measures}>
          {(['glue', 'oil', 'wax', 'paper'] as const).map((what) => (
            <Button key={what} size="xl" variant="default" onClick={() => note({ kind: 'usedUp', what, ...at })}>
              {what === 'paper' ? 'Sandpaper' : what.charAt(0).toUpperCase() + what.slice(1)}
            </Button>
          ))}
        </div>
      )}
      {kind === 'note' && (
        <FileButton
          accept="image/*"
          inputProps={{ 'aria-label': 'Picture' }}
          capture="environment"
          onChange={(file) => {
            if (!file) return;
            takePicture(id, file)
              .then((picture) => note({ kind: 'picture', picture, ...at }))
              .catch(showProblem);
          }}
        >
          {(props) => (
            <Button {...props} size="xl" variant="default" leftSection={<IconCamera size={26} />}>
              Take a picture
            </Button>
          )}
        </FileButton>
      )}
      {kind === 'note' && (
        <form
          onSubmit={(event) => {
            event.preventDefault();
            note({ kind: 'note', text: words.replaceAll(/\s+/g, ' '), ...at });
          }}
        >
          <Textarea
            size="lg"
            label="Note"
            autosize
            minRows={2}
            maxLength={500}
            value={words}
            onChange={(event) => setWords(event.currentTarget.value)}
          />
          <Button type="submit" size="lg" mt={12} disabled={words.trim() === ''}>
            Keep the note
          </Button>
        </form>
      )}
      {kind === 'place' && (
        <PlaceForm
          onNote={(spot) =>
            note({ kind: 'badPlace', thing: board.recipe.at(-1)?.id ?? 'panel', copy: panel, spot, ...at })
          }
        />
      )}
      {kind !== 'ranOut' && kind !== 'note' && kind !== 'place' && (
        <>
          <p className={classes.expected}>What is the matter with it?</p>
          <div className={classes.measures}>
            {WHYS[kind].map((why) => (
              <Button key={why} size="lg" variant="default" onClick={() => fail(why)}>
                {why.charAt(0).toUpperCase() + why.slice(1)}
              </Button>
            ))}
          </div>
          <form
            className={classes.other}
            onSubmit={(event) => {
              event.preventDefault();
              if (words.trim() !== '') fail(words);
            }}
          >
            <TextInput
              size="lg"
              label="Something else"
              maxLength={120}
              value={words}
              onChange={(event) => setWords(event.currentTarget.value)}
            />
            <Button type="submit" size="lg" disabled={words.trim() === ''}>
              Note it
            </Button>
          </form>
        </>
      )}
    </Modal>
  );
}

const PLACES = [
  ['x', 'From the left end'],
  ['y', 'From the far edge'],
  ['length', 'Long'],
  ['width', 'Wide'],
] as const;

/** Where a bad place is, and what: it may be drawn on the panel as well, at the steps that trim it. */
function PlaceForm({ onNote }: { onNote(spot: Spot): void }) {
  const [spot, setSpot] = useState<Spot>(() => ({
    id: nanoid(10),
    x: 0,
    y: 0,
    length: 15,
    width: 15,
    what: 'Torn out',
  }));
  return (
    <>
      <div className={classes.measures}>
        {PLACES.map(([key, label]) => (
          <LengthInput
            key={key}
            size="lg"
            w={190}
            field={label}
            mm={spot[key]}
            schema={spotSchema.shape[key]}
            onCommit={(mm) => setSpot({ ...spot, [key]: mm })}
          />
        ))}
      </div>
      <div className={classes.measures}>
        {['Torn out', 'Gap', 'Snipe', 'Knot', 'Burn'].map((what) => (
          <Button key={what} size="lg" variant="default" onClick={() => onNote({ ...spot, what })}>
            {what}
          </Button>
        ))}
      </div>
    </>
  );
}
