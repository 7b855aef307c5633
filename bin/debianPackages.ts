import { spawnSync } from 'node:child_process';
import { accessSync, constants } from 'node:fs';
import { delimiter, join } from 'node:path';
import { Sentence, tell } from './sentence.ts';

/** The full path of a program, looked for in PATH and the system folders; undefined when it is not installed. */
export function findProgram(name: string): string | undefined {
  const folders = [...(process.env.PATH ?? '').split(delimiter), '/usr/sbin', '/usr/bin', '/usr/local/sbin', '/sbin'];
  return folders
    .map((folder) => join(folder, name))
    .find((path) => {
      try {
        accessSync(path, constants.X_OK);
        return true;
      } catch {
        return false;
      }
    });
}

/**
 * Finds a program and installs its Debian package when it is missing.
 * @throws Sentence when it cannot be installed, with the command that would do it
 */
export function ensureProgram(name: string, debianPackage: string): string {
  const found = findProgram(name);
  if (found) return found;
  const byHand = `sudo apt-get install ${debianPackage}`;
  const apt = findProgram('apt-get');
  if (!apt)
    throw new Sentence(
      `${debianPackage} is missing and this is not a Debian system. Install it with your package manager, or set DATABASE_URL to a MariaDB elsewhere.`,
    );
  const isRoot = process.getuid?.() === 0;
  const sudo = isRoot ? [] : [findProgram('sudo') ?? '', '-n'];
  if (sudo[0] === '')
    throw new Sentence(
      `${debianPackage} is missing and may only be installed by root. Run as root once: apt-get install ${debianPackage}`,
    );

  tell(`Installing ${debianPackage} from Debian's packages …`);
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  const apply = (...args: string[]) =>
    spawnSync(sudo[0] ?? apt, [...sudo.slice(1), ...(sudo.length > 0 ? [apt] : []), ...args], {
      env,
      encoding: 'utf8',
    });
  let done = apply('install', '-y', '--no-install-recommends', debianPackage);
  if (done.status !== 0) {
    apply('update');
    done = apply('install', '-y', '--no-install-recommends', debianPackage);
  }
  const installed = findProgram(name);
  if (done.status === 0 && installed) return installed;
  const lastLine = (done.stderr || done.stdout || '').trim().split('\n').at(-1) ?? '';
  throw new Sentence(`${debianPackage} could not be installed (${lastLine}). Install it by hand: ${byHand}`);
}

/** Path of one of MariaDB's own programs. @throws Sentence when it is not there and cannot be installed */
export function mariadbProgram(name: 'mariadb' | 'mariadb-dump'): string {
  return ensureProgram(name, 'mariadb-client');
}

/**
 * Path of the browser that the interface is tested in: Chromium's own headless shell, which draws the same pages with a sixth less work, or the whole Chromium where
 * Debian has no such package; `CHROMIUM` names another.
 * @throws Sentence when neither is there nor can be installed
 */
export function ensureBrowser(): string {
  if (process.env.CHROMIUM) return process.env.CHROMIUM;
  try {
    return ensureProgram('chromium-headless-shell', 'chromium-headless-shell');
  } catch {
    return ensureProgram('chromium', 'chromium');
  }
}
