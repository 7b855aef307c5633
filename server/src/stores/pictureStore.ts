import type { Knex } from 'knex';
import { GREATEST_PICTURE_BYTES, PICTURE_TYPES, type Picture } from '#contract/bench.ts';
import { idSchema } from '#core/units/textSchema.ts';
import { notFound, Problem } from '../problem.ts';

interface PictureRow {
  board_id: string;
  id: string;
  type: Picture['type'];
  bytes: Buffer;
  arrived_at: Date;
}

/** So many pictures of one board are an album; more are a mistake. */
const MOST_PICTURES = 200;

/** How a file of each kind begins. */
const BEGINS: Readonly<Record<(typeof PICTURE_TYPES)[number], (bytes: Buffer) => boolean>> = {
  'image/jpeg': (b) => b[0] === 0xff && b[1] === 0xd8 && b[2] === 0xff,
  'image/png': (b) => b.subarray(1, 4).toString('latin1') === 'PNG',
  'image/webp': (b) =>
    b.subarray(0, 4).toString('latin1') === 'RIFF' && b.subarray(8, 12).toString('latin1') === 'WEBP',
};

/**
 * Keeps a picture under an id that was made where it was taken. The same one again is taken as done.
 * @throws Problem 400 for what is no picture, 404 for no such board, 409 `another-picture`, 409 `too-many-pictures`
 */
export async function keepPicture(tx: Knex.Transaction, board: string, id: string, picture: Picture): Promise<void> {
  if (!idSchema.safeParse(id).success) throw notFound('This picture');
  const bytes = Buffer.from(picture.data, 'base64');
  const refused = (message: string) => new Problem(400, 'invalid', message, [{ path: 'data', message }]);
  if (bytes.length > GREATEST_PICTURE_BYTES) throw refused('The picture must be at most 1 MB.');
  if (!BEGINS[picture.type](bytes)) throw refused('This is no picture of the kind it says it is.');
  const there = await tx<{ id: string; removed_at: Date | null }>('boards')
    .where({ id: board })
    .whereNull('removed_at')
    .forUpdate()
    .first('id');
  if (!there) throw notFound('This board');
  const known = await tx<PictureRow>('pictures').where({ board_id: board, id }).first('bytes');
  if (known) {
    if (known.bytes.equals(bytes)) return;
    throw new Problem(
      409,
      'another-picture',
      'There is another picture under this id; every picture needs one of its own.',
    );
  }
  const [{ n }] = (await tx('pictures').where({ board_id: board }).count({ n: '*' })) as [{ n: number }];
  if (n >= MOST_PICTURES)
    throw new Problem(409, 'too-many-pictures', `A board keeps at most ${MOST_PICTURES} pictures; nothing was added.`);
  await tx('pictures').insert({ board_id: board, id, type: picture.type, bytes, arrived_at: new Date() });
}

/** @throws Problem 404 for no such picture */
export async function readPicture(db: Knex, board: string, id: string): Promise<Picture> {
  const row = await db<PictureRow>('pictures').where({ board_id: board, id }).first('type', 'bytes');
  if (!row) throw notFound('This picture');
  return { type: row.type, data: row.bytes.toString('base64') };
}
