/** A backup, or a restore, cannot be made; the message is one sentence with the way out. */
export class BackupError extends Error {
  override name = 'BackupError';
}

/** What it takes to look after a database beside serving from it. */
export interface Keeper {
  /** `mysql://…` of the account that may make a second database beside the one that is served, to try a backup out in. */
  url: string;
  /** Path of one of MariaDB's own programs. @throws Error with a sentence when it is not there and cannot be had */
  program(name: 'mariadb-dump'): string;
  /** Where copies are kept, and what is brought waits to be looked at. */
  folder: string;
}

/** Path of one of MariaDB's own programs. @throws BackupError when it is not there and cannot be had */
export function programOf({ program }: Pick<Keeper, 'program'>, name: 'mariadb-dump'): string {
  try {
    return program(name);
  } catch (error) {
    throw new BackupError((error as Error).message);
  }
}
