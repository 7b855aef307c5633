import {
  chmodSync,
  existsSync,
  mkdirSync,
  readFileSync,
  readdirSync,
  realpathSync,
  statfsSync,
  writeFileSync,
} from 'node:fs';
import { randomBytes } from 'node:crypto';
import { join, resolve } from 'node:path';
import { freePort } from './ports.ts';

/** Where the database listens, and what its accounts sign in with. */
export interface Connection {
  port: number;
  /** Of the account that serves: it sees Cadenza's database and nothing else. */
  password: string;
  /** Of the account that looks after it: backups, and a second database to try a backup out in. */
  keeperPassword: string;
}

const MAKING = 'making-';

/** The files of one project database. Everything in the folder is for its owner alone. */
export class DatabaseFolder {
  readonly folder: string;
  /** MariaDB's own data, once they are whole. */
  readonly data: string;
  /** Where this very start makes data before they are whole. */
  readonly making: string;
  readonly log: string;
  readonly pidFile: string;
  readonly initFile: string;
  /** Temporary files of MariaDB, shared with nobody. */
  readonly temporary: string;
  /** Where SQL may read and write files: an empty folder. */
  readonly files: string;
  /** Held by whoever starts, restarts or ends the database. */
  readonly startLock: string;
  /** Shared by everyone who works on the database. */
  readonly usersLock: string;
  /** In the data folder: it was made to the end. */
  static readonly WHOLE = 'cadenza-whole';
  private readonly marker: string;
  private readonly connectionFile: string;
  private readonly launchedFile: string;

  constructor(folder: string) {
    mkdirSync(folder, { recursive: true, mode: 0o700 });
    this.folder = realpathSync(resolve(folder));
    const within = (name: string) => join(this.folder, name);
    this.data = within('data');
    this.making = within(`${MAKING}${process.pid}-${randomBytes(4).toString('hex')}`);
    this.log = within('mariadb.log');
    this.pidFile = within('mariadb.pid');
    this.initFile = within('init.sql');
    this.temporary = within('tmp');
    this.files = within('files');
    this.startLock = within('start.lock');
    this.usersLock = within('users.lock');
    this.marker = within('made-by-cadenza');
    this.connectionFile = within('connection.json');
    this.launchedFile = within('launched.pid');
    chmodSync(this.folder, 0o700);
    for (const inner of [this.temporary, this.files]) mkdirSync(inner, { recursive: true, mode: 0o700 });
  }

  /** Whether data lie here that Cadenza did not make. */
  get isForeign(): boolean {
    return isFilled(this.data) && !existsSync(this.marker);
  }

  sign(): void {
    if (!existsSync(this.marker))
      writeFileSync(this.marker, 'The database in this folder was made by Cadenza.\n', { mode: 0o600 });
  }

  /** What is known of the connection; what an older Cadenza did not keep is made up. */
  async connection(): Promise<Connection> {
    let known: Partial<Connection> = {};
    try {
      known = JSON.parse(readFileSync(this.connectionFile, 'utf8')) as Partial<Connection>;
    } catch {
      // A new folder, or one whose file was lost: every start sets all passwords anew.
    }
    const secret = () => randomBytes(24).toString('base64url');
    return {
      port: known.port ?? (await freePort()),
      password: known.password ?? secret(),
      keeperPassword: known.keeperPassword ?? secret(),
    };
  }

  saveConnection(connection: Connection): void {
    writeWhenChanged(this.connectionFile, JSON.stringify(connection));
  }

  /** What MariaDB runs before it lets anybody in. Kept: on a full disk it could not be written again. */
  saveInitFile(sql: string): void {
    writeWhenChanged(this.initFile, sql);
  }

  /** The process that was launched on these data, though it may not be up yet. */
  noteLaunch(pid: number): void {
    writeFileSync(this.launchedFile, String(pid), { mode: 0o600 });
  }

  /** The process id of the MariaDB that runs on this data folder. */
  runningPid(): number | undefined {
    return [this.launchedFile, this.pidFile]
      .map(readPid)
      .find((pid) => pid !== undefined && commandOf(pid).includes(`--datadir=${this.data} `));
  }

  freeBytes(): number {
    const { bavail, bsize } = statfsSync(this.folder);
    return bavail * bsize;
  }

  /** Where earlier starts made data and did not come to an end. */
  unfinished(): string[] {
    return readdirSync(this.folder)
      .filter((name) => name.startsWith(MAKING))
      .map((name) => join(this.folder, name));
  }

  /** Takes the rights of group and others away from everything here: older folders were more open. */
  close(): void {
    chmodSync(this.folder, 0o700);
    for (const entry of readdirSync(this.folder, { recursive: true, withFileTypes: true })) {
      if (entry.isSymbolicLink()) continue;
      try {
        chmodSync(join(entry.parentPath, entry.name), entry.isDirectory() ? 0o700 : 0o600);
      } catch (error) {
        // A running database may have taken a temporary file away meanwhile.
        if ((error as NodeJS.ErrnoException).code !== 'ENOENT') throw error;
      }
    }
  }
}

/** Whether a folder is there and holds anything. */
export function isFilled(folder: string): boolean {
  return existsSync(folder) && readdirSync(folder).length > 0;
}

function writeWhenChanged(path: string, text: string): void {
  if (!existsSync(path) || readFileSync(path, 'utf8') !== text) writeFileSync(path, text, { mode: 0o600 });
}

function readPid(path: string): number | undefined {
  try {
    const pid = Number(readFileSync(path, 'utf8').trim());
    return Number.isInteger(pid) && pid > 0 ? pid : undefined;
  } catch {
    return undefined;
  }
}

function commandOf(pid: number): string {
  try {
    return readFileSync(`/proc/${pid}/cmdline`, 'utf8').replaceAll('\0', ' ');
  } catch {
    return '';
  }
}
