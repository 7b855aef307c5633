import { BackupError } from './keeper.ts';

/** No statement of a backup is longer: the database's own program breaks them at a megabyte, and one picture is at most two, bytes. */
const LONGEST_STATEMENT = 64_000_000;

const QUOTE = 0x27;
const BACKTICK = 0x60;
const BACKSLASH = 0x5c;
const SEMICOLON = 0x3b;
const DASH = 0x2d;
const SLASH = 0x2f;
const STAR = 0x2a;
const NEWLINE = 0x0a;

type Inside = 'statement' | 'text' | 'name' | 'line' | 'comment';

/**
 * The statements of a backup, as bytes without their semicolons; comments, also those that a database would run, are left out.
 * @throws BackupError for one that is longer than any, or has no end
 */
export async function* sqlStatements(chunks: AsyncIterable<Buffer>): AsyncGenerator<Buffer> {
  let open: Buffer<ArrayBufferLike> = Buffer.alloc(0);
  let at = 0;
  let begun = 0;
  let parts: Buffer[] = [];
  let inside: Inside = 'statement';
  const cut = (to: number) => {
    if (to > begun) parts.push(open.subarray(begun, to));
  };
  for await (const chunk of withEnd(chunks)) {
    open = open.length === 0 ? chunk : Buffer.concat([open, chunk]);
    // The last two bytes may be the beginning of a sign of two or three.
    for (const end = open.length - 2; at < end; at += 1) {
      const byte = open[at];
      if (inside === 'text' || inside === 'name') {
        if (inside === 'text' && byte === BACKSLASH) at += 1;
        else if (byte === (inside === 'text' ? QUOTE : BACKTICK)) inside = 'statement';
      } else if (inside === 'line') {
        if (byte === NEWLINE) [inside, begun] = ['statement', at + 1];
      } else if (inside === 'comment') {
        if (byte === STAR && open[at + 1] === SLASH) {
          [inside, begun] = ['statement', at + 2];
          at += 1;
        }
      } else if (byte === QUOTE) inside = 'text';
      else if (byte === BACKTICK) inside = 'name';
      else if (byte === DASH && open[at + 1] === DASH) {
        cut(at);
        inside = 'line';
      } else if (byte === SLASH && open[at + 1] === STAR) {
        cut(at);
        inside = 'comment';
        at += 1;
      } else if (byte === SEMICOLON) {
        cut(at);
        yield Buffer.concat(parts);
        [parts, begun] = [[], at + 1];
      }
    }
    // What was gone through and belongs to no statement is let go of.
    const keep = inside === 'line' || inside === 'comment' ? at : begun;
    open = open.subarray(Math.min(keep, open.length));
    at -= keep;
    begun = Math.max(0, begun - keep);
    if (open.length > LONGEST_STATEMENT)
      throw new BackupError('The backup holds a statement that is longer than any that Cadenza writes.');
  }
  if (
    inside !== 'statement' ||
    Buffer.concat([...parts, open.subarray(begun)])
      .toString('latin1')
      .trim() !== ''
  )
    throw new BackupError('The backup ends in the middle of a statement.');
}

/** Two more bytes at the end, so that the last sign is gone through as every other. */
async function* withEnd(chunks: AsyncIterable<Buffer>): AsyncGenerator<Buffer> {
  yield* chunks;
  yield Buffer.from('\n\n\n');
}
