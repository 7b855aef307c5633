import { TextInput } from '@mantine/core';
import { IconBackspace } from '@tabler/icons-react';
import classes from './bench.module.css';

interface NumberPadProps {
  label: string;
  unit: string;
  /** With a bar for fractions and a space before them. */
  fractions: boolean;
  text: string;
  problem: string | null;
  placeholder: string;
  onText(text: string): void;
  onEnter(): void;
}

const DIGITS = ['7', '8', '9', '4', '5', '6', '1', '2', '3'];

/** Big keys for a figure; a keyboard, or an instrument that types like one, goes into the field itself. */
export function NumberPad({ label, unit, fractions, text, problem, placeholder, onText, onEnter }: NumberPadProps) {
  const key = (sign: string, says?: string) => (
    <button key={sign} type="button" className={classes.key} aria-label={says} onClick={() => onText(text + sign)}>
      {sign === ' ' ? '␣' : sign}
    </button>
  );
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        onEnter();
      }}
    >
      <TextInput
        label={label}
        size="xl"
        data-autofocus
        inputMode="none"
        autoComplete="off"
        value={text}
        error={problem}
        placeholder={placeholder}
        rightSection={<span className={classes.unit}>{unit}</span>}
        onChange={(event) => onText(event.currentTarget.value)}
      />
      <div className={classes.pad} role="group" aria-label="Keys for figures">
        {DIGITS.map((d) => key(d))}
        {key('.', 'Point')}
        {key('0')}
        <button
          type="button"
          className={classes.key}
          aria-label="Take the last sign away"
          onClick={() => onText(text.slice(0, -1))}
        >
          <IconBackspace size={30} />
        </button>
        {fractions && key(' ', 'Space')}
        {fractions && key('/', 'Fraction bar')}
        <button type="submit" className={classes.enter} style={fractions ? undefined : { gridColumn: '1 / -1' }}>
          Note it
        </button>
      </div>
    </form>
  );
}
