import { expect, it } from 'vitest';
import { fileTrouble } from './sentence.ts';

const trouble = (code: string, path?: string) => fileTrouble(Object.assign(new Error(code), { code, path }));

it('a place that cannot be written gets a sentence that names it, not a stack', () => {
  expect(trouble('EROFS', '/srv/data')).toBe(
    '/srv/data may not be written by this user. Change its owner, or run from a folder of your own.',
  );
  // What Node says of a folder that is to be made on a disk that can only be read.
  expect(trouble('ENOENT', '/srv/data/mariadb')).toBe(
    '/srv/data/mariadb cannot be used (ENOENT). Choose another folder, or make it one that this user may write.',
  );
  expect(trouble('ENOTDIR', '/etc/hostname/data')).toMatch(/^\/etc\/hostname\/data cannot be used \(ENOTDIR\)/);
  expect(trouble('ENOSPC')).toMatch(/^The disk is full/);
  expect([trouble('ENOENT'), fileTrouble(new Error('a bug'))]).toEqual([undefined, undefined]);
});
