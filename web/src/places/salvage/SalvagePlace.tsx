import { firstOf } from '#core/lists/there.ts';
import { Button, Checkbox, NumberInput, Radio, Select, TextInput } from '@mantine/core';
import { useElementSize } from '@mantine/hooks';
import { useState, type FormEvent } from 'react';
import { Link, useNavigate } from 'react-router';
import {
  METAL_CLEARANCE,
  salvagedBits,
  salvagedPieces,
  salvageTrouble,
  UNKNOWN_THING,
  withSize,
  withSkin,
  type SalvagedThing,
  type Skin,
} from '#core/cutting/salvage.ts';
import { pieceShape } from '#core/stock/piece.ts';
import { api } from '../../data/api.ts';
import { useRack, useShop, useSpecies } from '../../data/queries.ts';
import { keys, queryClient } from '../../data/queryClient.ts';
import { fitScale, scaleWords } from '../../drawing/scale.ts';
import { StockFace } from '../../drawing/StockFace.tsx';
import { Length } from '../../quantities/Length.tsx';
import { LengthInput, readLength } from '../../quantities/LengthInput.tsx';
import { useDisplay } from '../../quantities/display.tsx';
import { showProblem, showWord } from '../../shell/notices.tsx';
import { marksOf, nextMark } from '#core/stock/marks.ts';
import classes from './SalvagePlace.module.css';

const SKINS = [
  ['bare', 'Bare wood'],
  ['painted', 'Painted'],
  ['veneered', 'Veneered'],
  ['treated', 'Treated or unknown'],
] as const;

/** From a thing that was something else to solid bits in the rack: metal, paint, skin, seams, in that order. */
export function SalvagePlace() {
  const { display } = useDisplay();
  const species = useSpecies();
  const rack = useRack();
  const shop = useShop();
  const navigate = useNavigate();
  const { ref, width } = useElementSize();
  const [thing, setThing] = useState(UNKNOWN_THING);
  const [stem, setStem] = useState('S1');
  const [metalDone, setMetalDone] = useState(false);
  const [skin, setSkin] = useState<Skin | null>(null);
  const [busy, setBusy] = useState(false);
  const [text, setText] = useState({ seam: '', at: '', across: '' });
  const [problem, setProblem] = useState<string | null>(null);
  const set = (change: Partial<SalvagedThing>) => setThing((t) => ({ ...t, ...change }));
  const kerf = shop.data?.shop.crosscutSaw.kerf ?? 3;
  const keep = shop.data?.shop.habits.keepLength ?? 0;
  const bits = salvagedBits(thing, kerf);
  const used = marksOf(rack.data ?? []);
  const pieces = salvagedPieces(thing, kerf, () => {
    const mark = nextMark(stem || 'S1', used);
    used.add(mark.toLowerCase());
    return mark;
  });
  const solid = pieces.reduce((sum, p) => sum + p.count, 0);
  const scale = fitScale([thing.length + 4, 1], [Math.max(280, width), 1e6], 1.2);
  const drawn = {
    ...pieceShape.parse({
      ...(pieces[0] ?? firstOf(salvagedPieces({ ...UNKNOWN_THING, species: 'none' }, kerf, () => 'S'))),
      species: thing.species || 'none',
      length: thing.length,
      width: thing.width,
      thickness: Math.max(2, thing.thickness),
      defects: [],
    }),
    id: 'salvage',
  };
  const wrong = salvageTrouble(thing, { skin, metalSought: metalDone, solid });

  const length = (value: string, field: string, least: number, most: number): number | null => {
    const mm = readLength(value, field, display.system, pieceShape.shape.ends.shape.mark.shape.checked);
    if (typeof mm === 'string') setProblem(mm);
    else if (mm < least || mm > most) setProblem(`${field} must lie on the piece.`);
    else {
      setProblem(null);
      return mm;
    }
    return null;
  };
  const addSeam = (event: FormEvent) => {
    event.preventDefault();
    const mm = length(text.seam, 'Glue seam', 1, thing.length - 1);
    if (mm === null) return;
    set({ seams: [...new Set([...thing.seams, mm])].sort((a, b) => a - b) });
    setText({ ...text, seam: '' });
  };
  const addMetal = (event: FormEvent) => {
    event.preventDefault();
    const at = length(text.at, 'Metal, from the end', 0, thing.length);
    const across = at === null ? null : length(text.across, 'Metal, from the edge', 0, thing.width);
    if (at === null || across === null) return;
    set({ metal: [...thing.metal, { at, across }] });
    setText({ ...text, at: '', across: '' });
  };
  const chooseSkin = (next: Skin) => {
    setSkin(next);
    setThing((t) => withSkin(t, next));
  };
  const store = async () => {
    setBusy(true);
    try {
      await api.addPieces(pieces, []);
      await queryClient.invalidateQueries({ queryKey: keys.rack });
      showWord(`${solid} ${solid === 1 ? 'bit is' : 'bits are'} in the rack: ${pieces.map((p) => p.mark).join(', ')}.`);
      await navigate('/rack');
    } catch (error) {
      showProblem(error);
      setBusy(false);
    }
  };

  return (
    <div className={classes.page}>
      <header>
        <h1>Salvage</h1>
        <Link to="/rack">Back to the rack</Link>
      </header>
      <section>
        <h2>1. What it is</h2>
        <div className={classes.fields}>
          <TextInput
            label="It was"
            placeholder="a bench, a counter"
            value={thing.of}
            onChange={(e) => set({ of: e.currentTarget.value.slice(0, 120) })}
          />
          <Select
            label="Species"
            searchable
            value={thing.species || null}
            data={(species.data ?? []).map((s) => ({ value: s.code, label: s.name }))}
            onChange={(code) => set({ species: code ?? '' })}
          />
          <LengthInput
            field="Length"
            mm={thing.length}
            schema={pieceShape.shape.length}
            onCommit={(mm) => setThing((t) => withSize(t, { length: mm }))}
          />
          <LengthInput
            field="Width"
            mm={thing.width}
            schema={pieceShape.shape.width}
            onCommit={(mm) => setThing((t) => withSize(t, { width: mm }))}
          />
          <LengthInput
            field="Thickness"
            mm={thing.thickness}
            schema={pieceShape.shape.thickness}
            onCommit={(mm) => set({ thickness: mm })}
          />
          <NumberInput
            label="Equal ones"
            min={1}
            max={999}
            allowDecimal={false}
            clampBehavior="strict"
            value={thing.count}
            onChange={(n) => typeof n === 'number' && n >= 1 && set({ count: n })}
          />
          <TextInput label="First mark" value={stem} onChange={(e) => setStem(e.currentTarget.value.slice(0, 9))} />
        </div>
      </section>
      <section>
        <h2>2. Metal</h2>
        <p>
          A hidden nail breaks a blade and throws its splinters. Go over both faces, both edges and the ends; pull what
          can be pulled, and note the rest: {METAL_CLEARANCE} mm round it are cut out.
        </p>
        <form className={classes.row} onSubmit={addMetal} noValidate>
          <TextInput
            label="From the first end"
            w={140}
            value={text.at}
            onChange={(e) => setText({ ...text, at: e.currentTarget.value })}
          />
          <TextInput
            label="From the near edge"
            w={140}
            value={text.across}
            onChange={(e) => setText({ ...text, across: e.currentTarget.value })}
          />
          <Button type="submit" variant="default">
            Metal here
          </Button>
          {thing.metal.map((m, i) => (
            <Button
              key={i}
              variant="subtle"
              aria-label={`Take metal place ${i + 1} off`}
              onClick={() => set({ metal: thing.metal.filter((_, k) => k !== i) })}
            >
              <Length mm={m.at} bare /> / <Length mm={m.across} /> ×
            </Button>
          ))}
        </form>
        <Checkbox
          mt={8}
          label="The metal detector has been over all of it"
          checked={metalDone}
          onChange={(e) => setMetalDone(e.currentTarget.checked)}
        />
      </section>
      <section>
        <h2>3. Paint and skin</h2>
        <Radio.Group aria-label="On its faces" value={skin ?? ''} onChange={(v) => chooseSkin(v as Skin)}>
          <div className={classes.row}>
            {SKINS.map(([value, label]) => (
              <Radio key={value} value={value} label={label} />
            ))}
          </div>
        </Radio.Group>
        {skin === 'painted' && (
          <p className={classes.caution}>
            <b>Old paint may hold lead.</b> Test it; do not sand or burn it off dry. Plane it off outdoors or with
            extraction and a mask, and collect every chip. Local rules come first.
          </p>
        )}
        {skin === 'veneered' && (
          <p className={classes.caution}>
            Under a veneer there are often short glued bits. Look at the ends for seams before you count on its length.
          </p>
        )}
        {skin === 'treated' && (
          <p className={classes.stop}>
            <b>Not for food.</b> Preservatives stay in the wood. If nobody knows what is in it, leave it out of the
            rack.
          </p>
        )}
        <div className={classes.fields}>
          <LengthInput
            field="Off the upper face"
            mm={thing.skinUp}
            schema={pieceShape.shape.ends.shape.mark.shape.snipe}
            onCommit={(mm) => set({ skinUp: mm })}
          />
          <LengthInput
            field="Off the lower face"
            mm={thing.skinDown}
            schema={pieceShape.shape.ends.shape.mark.shape.snipe}
            onCommit={(mm) => set({ skinDown: mm })}
          />
        </div>
        <p>
          Clean wood left:{' '}
          <b>
            <Length mm={Math.max(0, thing.thickness - thing.skinUp - thing.skinDown)} />
          </b>{' '}
          of <Length mm={thing.thickness} />.
        </p>
      </section>
      <section>
        <h2>4. Glue seams</h2>
        <p>
          Bits glued end to end do not hold in a board. Cut at every seam; each cut takes <Length mm={kerf} />.
        </p>
        <form className={classes.row} onSubmit={addSeam} noValidate>
          <TextInput
            label="Seam, from the first end"
            w={180}
            value={text.seam}
            onChange={(e) => setText({ ...text, seam: e.currentTarget.value })}
          />
          <Button type="submit" variant="default">
            Seam here
          </Button>
          {thing.seams.map((s) => (
            <Button
              key={s}
              variant="subtle"
              aria-label={`Take the seam at ${s} mm off`}
              onClick={() => set({ seams: thing.seams.filter((x) => x !== s) })}
            >
              <Length mm={s} /> ×
            </Button>
          ))}
        </form>
        {problem && (
          <p role="alert" className={classes.problem}>
            {problem}
          </p>
        )}
        <div ref={ref} className={classes.drawing} tabIndex={0} role="group" aria-label="Drawing">
          <svg
            width={thing.length * scale + 4}
            height={thing.width * scale + 30}
            role="img"
            aria-label={`The thing to scale, ${bits.length} bits`}
          >
            <g transform="translate(2 4)">
              <StockFace
                piece={drawn}
                species={species.data?.find((s) => s.code === thing.species)}
                scale={scale}
                face="up"
              />
              {thing.seams.map((s) => (
                <path key={s} d={`M${s * scale} -4v${thing.width * scale + 8}`} className={classes.seam} />
              ))}
              {thing.metal.map((m, i) => (
                <g key={i} className={classes.metal}>
                  <circle cx={m.at * scale} cy={m.across * scale} r={Math.max(4, METAL_CLEARANCE * scale)} />
                  <path d={`M${m.at * scale - 3} ${m.across * scale - 3}l6 6m0 -6l-6 6`} />
                </g>
              ))}
              {bits.map((b) => (
                <text
                  key={b.from}
                  x={(b.from + b.length / 2) * scale}
                  y={thing.width * scale + 18}
                  textAnchor="middle"
                  className={classes.bit}
                >
                  {Math.round(b.length * 10) / 10}
                  {b.length < keep ? ' short' : ''}
                </text>
              ))}
            </g>
          </svg>
          <small>
            At {scaleWords(scale)}; lengths in mm. Short: under the shop&apos;s keep length, kept as a group all the
            same.
          </small>
        </div>
      </section>
      <section>
        <h2>5. Into the rack</h2>
        <ul>
          {pieces.map((p) => (
            <li key={p.mark}>
              <b>{p.mark}</b> {p.count} × <Length mm={p.length} bare /> × <Length mm={p.width} bare /> ×{' '}
              <Length mm={p.thickness} />
              {p.defects.length > 0 &&
                `, ${p.defects.length} ${p.defects.length === 1 ? 'place' : 'places'} to cut out`}
            </li>
          ))}
        </ul>
        <Button loading={busy} disabled={wrong !== null} onClick={() => void store()}>
          Put {solid} {solid === 1 ? 'bit' : 'bits'} in the rack
        </Button>
        {wrong && (
          <p className={classes.soft} role="status">
            {wrong}
          </p>
        )}
      </section>
    </div>
  );
}
