import { del, entries, set } from 'idb-keyval';
import { nanoid } from 'nanoid';
import { GREATEST_PICTURE_BYTES, type Picture } from '#contract/bench.ts';
import { api, ApiProblem } from './api.ts';
import { PICTURES_WAIT_KEY } from './pictureKey.ts';

/** What a picture measures at most on its longer side, pixels, tried from the largest on until it is small enough. */
const SIDES_PX = [1600, 1200, 800];
const JPEG_QUALITY = 0.82;
/** What is larger is no photograph from a device, bytes. */
const GREATEST_FILE_BYTES = 40_000_000;
const RETRY_MS = 5000;

/**
 * Takes a picture into what happened to a board: made small here, kept on the device until the server has it.
 * @returns the id that a fact names it by
 * @throws Error with a sentence for a file that is no picture, or far too large
 */
export async function takePicture(board: string, file: File): Promise<string> {
  const picture = await madeSmall(file);
  const id = nanoid();
  await hold(`${board}/${id}`, picture);
  void sendPictures();
  return id;
}

/** A file as a picture of at most 1 MB. @throws Error with a sentence */
async function madeSmall(file: File): Promise<Picture> {
  if (file.size > GREATEST_FILE_BYTES)
    throw new Error(
      `The picture must be at most ${GREATEST_FILE_BYTES / 1e6} MB; this file has ${Math.round(file.size / 1e6)} MB.`,
    );
  const bitmap = await createImageBitmap(file).catch(() => {
    throw new Error(`"${file.name}" is no picture that this browser can read.`);
  });
  try {
    for (const side of SIDES_PX) {
      const scale = Math.min(1, side / Math.max(bitmap.width, bitmap.height));
      const canvas = document.createElement('canvas');
      canvas.width = Math.max(1, Math.round(bitmap.width * scale));
      canvas.height = Math.max(1, Math.round(bitmap.height * scale));
      canvas.getContext('2d')?.drawImage(bitmap, 0, 0, canvas.width, canvas.height);
      const data = canvas.toDataURL('image/jpeg', JPEG_QUALITY).replace(/^data:image\/jpeg;base64,/, '');
      if ((data.length * 3) / 4 <= GREATEST_PICTURE_BYTES) return { type: 'image/jpeg', data };
    }
  } finally {
    bitmap.close();
  }
  throw new Error('The picture cannot be made smaller than 1 MB.');
}

const held = new Map<string, Picture>();

async function hold(key: string, picture: Picture): Promise<void> {
  held.set(key, picture);
  try {
    await set(key, picture);
    localStorage.setItem(PICTURES_WAIT_KEY, 'yes');
  } catch {
    // A storage that is forbidden keeps it only as long as the page is open.
  }
}

/** A picture that this device still holds; undefined for one that has left. */
export const heldPicture = (board: string, id: string): Picture | undefined => held.get(`${board}/${id}`);

let sending: Promise<void> | null = null;
let timer: ReturnType<typeof setTimeout> | undefined;

/** Sends what is not there yet, one after another, until all of it is. */
export function sendPictures(): Promise<void> {
  sending ??= sendAll().finally(() => {
    sending = null;
  });
  return sending;
}

async function sendAll(): Promise<void> {
  clearTimeout(timer);
  const kept = await entries<string, Picture>().catch((): [string, Picture][] => []);
  for (const [key, picture] of new Map([...kept, ...held])) {
    const [board = '', id = ''] = key.split('/');
    try {
      await api.keepPicture(board, id, picture);
    } catch (error) {
      if (!(error instanceof ApiProblem) || error.passing) {
        timer = setTimeout(() => void sendPictures(), RETRY_MS);
        return;
      }
      // It will never be taken: its board is gone, or there is another one under its id.
    }
    held.delete(key);
    await del(key).catch(() => {});
  }
  try {
    localStorage.removeItem(PICTURES_WAIT_KEY);
  } catch {
    // Nothing was kept there.
  }
}
