import type { z } from 'zod';

/**
 * A stored JSON document, checked on reading. Depending on the MariaDB the driver hands JSON columns over as text or already parsed.
 * @throws ZodError when what is stored does not fit the schema
 */
export function readDocument<T>(schema: z.ZodType<T>, column: unknown): T {
  return schema.parse(typeof column === 'string' ? JSON.parse(column) : column);
}
