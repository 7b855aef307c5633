import { z } from 'zod';
import type { Reply } from '../reply.ts';
import type { Page } from '../stores/page.ts';

/** Where a page of a list begins. */
export const pageQuerySchema = z.object({
  after: z.string().max(400).optional(),
});

/** A page of a list: the rows, a tag, and the address of the next page in a `Link` header (RFC 8288). */
export function pageReply(path: string, { rows, next, tag }: Page): Reply {
  return {
    status: 200,
    json: null,
    write: () => `[${rows.join(',')}]`,
    headers: { ETag: tag, ...(next === null ? {} : { Link: `<${path}?after=${next}>; rel="next"` }) },
  };
}
