import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readFileSync, readdirSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { buildSync } from 'esbuild';
import { ROOT } from './root.ts';
import { Sentence, tell } from './sentence.ts';

/**
 * Builds the interface into web/dist unless it was built from these very sources. Built beside and swapped in, so that a running server
 * never serves half of it.
 * @throws Sentence when the build fails
 */
export function buildWeb(): void {
  const dist = join(ROOT, 'web', 'dist');
  const stamp = join(dist, '.built-from');
  const sources = fingerprint();
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === sources) return;

  tell('Building the interface …');
  const fresh = join(ROOT, 'web', `dist-${process.pid}`);
  const done = spawnSync(
    process.execPath,
    [join(ROOT, 'node_modules/vite/bin/vite.js'), 'build', '--outDir', fresh, '--logLevel', 'error'],
    // A test runner says that it tests: what it serves is what everybody gets all the same.
    { cwd: ROOT, encoding: 'utf8', env: { ...process.env, NODE_ENV: 'production' } },
  );
  if (done.status !== 0) {
    rmSync(fresh, { recursive: true, force: true });
    throw new Sentence(`The interface could not be built:\n${done.stdout}${done.stderr}`);
  }
  buildServiceWorker(fresh);
  writeFileSync(join(fresh, '.built-from'), sources);
  swapIn(fresh, dist);
}

/** Builds the service worker, with the list of all that the interface consists of. */
function buildServiceWorker(folder: string): void {
  const files = readdirSync(folder, { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile() && !entry.parentPath.includes('.vite'))
    .map((entry) => join(entry.parentPath, entry.name))
    .sort()
    .map((path) => ({
      url: path.slice(folder.length).replaceAll('\\', '/'),
      revision: createHash('sha256').update(readFileSync(path)).digest('hex').slice(0, 16),
    }));
  buildSync({
    entryPoints: [join(ROOT, 'web', 'src', 'offline', 'serviceWorker.ts')],
    outfile: join(folder, 'sw.js'),
    bundle: true,
    minify: true,
    format: 'iife',
    target: 'es2022',
    define: { FILES_OF_THE_INTERFACE: JSON.stringify(files), 'process.env.NODE_ENV': '"production"' },
  });
}

/** Puts a finished build in the place of the old one; of two builds that end together either may win, they are the same. */
function swapIn(fresh: string, dist: string): void {
  const old = join(ROOT, 'web', `dist-old-${process.pid}`);
  try {
    if (existsSync(dist)) renameSync(dist, old);
    renameSync(fresh, dist);
  } catch (error) {
    rmSync(fresh, { recursive: true, force: true });
    if (!existsSync(dist)) throw error;
  }
  rmSync(old, { recursive: true, force: true });
}

/** A hash over all that goes into the interface. */
function fingerprint(): string {
  const hash = createHash('sha256');
  for (const folder of ['web', 'core/src', 'contract']) {
    const files = readdirSync(join(ROOT, folder), { recursive: true, withFileTypes: true })
      .filter((entry) => entry.isFile() && !/[/\\]dist/.test(entry.parentPath))
      .map((entry) => join(entry.parentPath, entry.name))
      .sort();
    for (const file of files) hash.update(file.slice(ROOT.length)).update(readFileSync(file));
  }
  for (const file of ['package-lock.json', 'vite.config.ts']) hash.update(readFileSync(join(ROOT, file)));
  return hash.digest('hex');
}
