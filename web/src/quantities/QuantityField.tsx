import { z } from 'zod';
import { formatQuantity, inUnit, unitFor, type QuantityKind } from '#core/units/quantity.ts';
import { useDisplay } from './display.tsx';
import { NumberField } from './plainFields.tsx';

interface QuantityFieldProps {
  field: string;
  quantity: QuantityKind;
  /** In the unit of the core. */
  value: number;
  schema: z.ZodType<number>;
  onCommit(value: number): void;
}

/** What the core's own words call a limit, so that a reader finds it in his units. */
const LIMIT = /(-?\d+(?:\.\d+)?) (?:°C|kN|g\/m²)/g;
/** What is stored is no finer than this: it comes from a whole figure in another unit. */
const STORED_DECIMALS = 4;

/** A figure that is typed in the reader's units and stored in the core's; a wrong one stays as typed and says why. */
export function QuantityField({ field, quantity, value, schema, onCommit }: QuantityFieldProps) {
  const { display } = useDisplay();
  const { unit, to } = unitFor(quantity, display);
  const stored = (typed: number) => Number(to(typed).toFixed(STORED_DECIMALS));
  const inReadersUnit = z.any().superRefine((typed: number, ctx) => {
    const checked = schema.safeParse(stored(typed));
    if (!checked.success)
      ctx.addIssue({
        code: 'custom',
        message: (checked.error.issues[0]?.message ?? 'is not valid').replace(LIMIT, (_, n: string) =>
          formatQuantity({ quantity, value: Number(n) }, display),
        ),
      });
  }) as z.ZodType<number>;
  return (
    <NumberField
      field={field}
      value={inUnit({ quantity, value }, display)}
      schema={inReadersUnit}
      suffix={` ${unit}`}
      onCommit={(typed) => onCommit(stored(typed))}
    />
  );
}
