import { createHash } from 'node:crypto';

/** SHA-256 of a text, in hexadecimal. Of a long random secret only this is stored: whoever reads the database, or a copy of it, is not let in by it. */
export const sha256 = (text: string): string => createHash('sha256').update(text).digest('hex');
