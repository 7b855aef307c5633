import { formatQuantity, type Quantity } from '#core/units/quantity.ts';
import { useDisplay } from './display.tsx';

/** A figure to be read, in the reader's units. */
export function Measured(q: Quantity) {
  const { display } = useDisplay();
  return <span style={{ whiteSpace: 'nowrap' }}>{formatQuantity(q, display)}</span>;
}
