import { z } from 'zod';

/** The version or revision a write is based on. */
export const versionSchema = z.int().min(0);
