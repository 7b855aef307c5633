// Runs a command of bin/ written in TypeScript; installs the npm packages first when they are missing or out of date.
// Plain JavaScript, because before the packages are there nothing else runs.
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');
const [major, minor] = process.versions.node.split('.').map(Number);
if (major < 20 || (major === 20 && minor < 19)) {
  console.error(
    `Cadenza needs Node.js 20.19 or newer; this is ${process.versions.node}. Install it from your distribution or nodejs.org.`,
  );
  process.exit(1);
}

const wanted = createHash('sha256')
  .update(readFileSync(join(root, 'package-lock.json')))
  .digest('hex');
const marker = join(root, 'node_modules', '.installed-from');
if (!existsSync(marker) || readFileSync(marker, 'utf8') !== wanted) {
  console.error('Installing npm packages …');
  const done = spawnSync('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], {
    cwd: root,
    stdio: ['ignore', 2, 2],
  });
  if (done.status !== 0) {
    console.error(
      'The npm packages could not be installed. See the lines above; check the network and free disk space, then run the command again.',
    );
    process.exit(1);
  }
  writeFileSync(marker, wanted);
}

const [command, ...rest] = process.argv.slice(2);
process.argv = [process.argv[0], process.argv[1], ...rest];
const { bundled } = await import('./bundled.mjs');
const file = await bundled(command).catch((error) => {
  console.error(error.message);
  process.exit(1);
});
process.setSourceMapsEnabled(true);
await import(pathToFileURL(file).href);
