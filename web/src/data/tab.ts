import { nanoid } from 'nanoid';

/** What this page is called, so that it need not be told what it did itself. */
export const tab = nanoid(12);
