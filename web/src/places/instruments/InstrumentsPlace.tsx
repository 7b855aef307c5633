import { Button, NativeSelect, NumberInput, Switch } from '@mantine/core';
import { useEffect, useRef, useState } from 'react';
import { INSTRUMENT_KINDS, READING_UNITS, type InstrumentKind, type ReadingUnit } from '#core/bench/reading.ts';
import { api } from '../../data/api.ts';
import classes from './instruments.module.css';

const NAMES: Readonly<Record<InstrumentKind, { name: string; unit: ReadingUnit; usual: number; noise: number }>> = {
  caliper: { name: 'Caliper', unit: 'mm', usual: 28.3, noise: 0.02 },
  moistureMeter: { name: 'Moisture meter', unit: '%', usual: 8.5, noise: 0.3 },
  hygrometer: { name: 'Hygrometer', unit: '%', usual: 48, noise: 1 },
  scale: { name: 'Scale', unit: 'g', usual: 2350, noise: 2 },
};
/** One that never stops sends so often, ms. */
const EVERY_MS = 40;

/** Stand-ins for instruments: they send what is set here, with noise, in the wrong unit or with a flat battery where that is wished. */
export function InstrumentsPlace() {
  const [kind, setKind] = useState<InstrumentKind>('caliper');
  const [value, setValue] = useState<number>(NAMES.caliper.usual);
  const [noise, setNoise] = useState<number>(NAMES.caliper.noise);
  const [unit, setUnit] = useState<ReadingUnit>('mm');
  const [flat, setFlat] = useState(false);
  const [stuck, setStuck] = useState(false);
  const [said, setSaid] = useState('');
  const send = async () => {
    const shown = Math.round((value + (Math.random() * 2 - 1) * noise) * 1000) / 1000;
    try {
      await api.sendReading({ instrument: kind, value: shown, unit, flat });
      setSaid(`Sent ${shown} ${unit}`);
    } catch (error) {
      setSaid(error instanceof Error ? error.message : 'Not sent.');
    }
  };
  const latest = useRef(send);
  useEffect(() => {
    latest.current = send;
  });
  useEffect(() => {
    if (!stuck) return undefined;
    const timer = setInterval(() => void latest.current(), EVERY_MS);
    return () => clearInterval(timer);
  }, [stuck]);
  const choose = (next: InstrumentKind) => {
    setKind(next);
    setValue(NAMES[next].usual);
    setNoise(NAMES[next].noise);
    setUnit(NAMES[next].unit);
  };
  return (
    <div className={classes.page}>
      <h1>Instruments to try</h1>
      <p>
        No real instrument: this page sends readings as one would. Open a board at the bench beside it, press Measure
        there, then send.
      </p>
      <div className={classes.fields}>
        <NativeSelect
          label="Instrument"
          value={kind}
          onChange={(event) => choose(event.currentTarget.value as InstrumentKind)}
          data={INSTRUMENT_KINDS.map((k) => ({ value: k, label: NAMES[k].name }))}
        />
        <NumberInput label="What it lies on" value={value} onChange={(v) => setValue(Number(v) || 0)} />
        <NumberInput label="Noise" min={0} value={noise} onChange={(v) => setNoise(Math.abs(Number(v)) || 0)} />
        <NativeSelect
          label="Unit it sends"
          value={unit}
          onChange={(event) => setUnit(event.currentTarget.value as ReadingUnit)}
          data={[...READING_UNITS]}
        />
      </div>
      <Switch label="Its battery is flat" checked={flat} onChange={(event) => setFlat(event.currentTarget.checked)} />
      <Switch
        label="Its button is stuck: it never stops sending"
        checked={stuck}
        onChange={(event) => setStuck(event.currentTarget.checked)}
      />
      <Button size="lg" onClick={() => void send()}>
        Send a reading
      </Button>
      <p role="status">{said}</p>
    </div>
  );
}
