import { lengthParts, type LengthDisplay, type Rounding } from '#core/units/formatLength.ts';
import type { Phrase } from '#core/units/phrase.ts';
import { useDisplay } from './display.tsx';
import { Measured } from './Measured.tsx';

interface LengthProps {
  mm: number;
  rounding?: Rounding;
  /** Leave the unit out where a heading says it. */
  bare?: boolean;
}

/** A length in the reader's unit, with a true fraction. Works in HTML and, as `LengthTspans`, in SVG text. */
export function Length({ mm, rounding, bare = false }: LengthProps) {
  const { display } = useDisplay();
  const { sign, whole, fraction, remainder, unit } = pieces(mm, display, rounding);
  return (
    <span style={{ whiteSpace: 'nowrap' }}>
      {sign}
      {whole}
      {fraction && (
        <>
          {whole && ' '}
          <span className="fraction">{fraction}</span>
        </>
      )}
      {unit === 'in' ? !bare && '"' : !bare && ' mm'}
      {remainder && ` ${remainder}`}
    </span>
  );
}

/** The same as SVG text content. */
export function LengthTspans({ mm, bare = true }: LengthProps) {
  const { display } = useDisplay();
  const [before, fraction, after] = drawnLength(mm, display, bare);
  return (
    <>
      <tspan>{before}</tspan>
      {fraction && <tspan className="fraction">{fraction}</tspan>}
      <tspan>{after}</tspan>
    </>
  );
}

/** What stands before a fraction, the fraction and what follows it, as `LengthTspans` writes them. */
export function drawnLength(mm: number, display: LengthDisplay, bare = true): [string, string, string] {
  const { sign, whole, fraction, remainder, unit } = pieces(mm, display);
  return [
    `${sign}${whole}${fraction && whole ? ' ' : ''}`,
    fraction,
    `${unit === 'in' ? (bare ? '' : '"') : bare ? '' : ' mm'}${remainder && ` ${remainder}`}`,
  ];
}

function pieces(mm: number, display: LengthDisplay, rounding?: Rounding) {
  const parts = lengthParts(mm, display, rounding);
  const fraction = parts.numerator > 0 ? `${parts.numerator}/${parts.denominator}` : '';
  return {
    sign: parts.negative ? '−' : '',
    whole: fraction && parts.whole === '0' ? '' : parts.whole,
    fraction,
    remainder: parts.remainder,
    unit: parts.unit,
  };
}

/** A phrase of the core with its lengths and figures in the reader's units. */
export function Say({ phrase }: { phrase: Phrase }) {
  return (
    <>
      {phrase.map((part, i) =>
        typeof part === 'string' ? (
          part
        ) : 'mm' in part ? (
          <Length key={i} mm={part.mm} rounding={part.rounding} />
        ) : (
          <Measured key={i} {...part} />
        ),
      )}
    </>
  );
}
