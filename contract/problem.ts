import { z } from 'zod';

/** What is wrong with a request, after RFC 9457: a short code, a sentence, and the bad fields. `current` is what is stored, where that helps to go on. */
export const problemSchema = z.looseObject({
  type: z.literal('about:blank'),
  title: z.string(),
  status: z.int(),
  code: z.string(),
  detail: z.string(),
  fields: z.array(z.strictObject({ path: z.string(), message: z.string() })),
});
export type ProblemJson = z.infer<typeof problemSchema> & { current?: unknown };
