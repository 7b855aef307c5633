import { z } from 'zod';

/** The version or revision a write is based on. */
export const versionSchema = z.int({ error: 'must be a whole number' }).min(0, { error: 'must not be negative' });
