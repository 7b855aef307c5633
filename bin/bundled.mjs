// One file of plain JavaScript from a command of bin/: it starts in half the time of hundreds of modules that are each translated on their way in.
// Plain JavaScript itself, because it is what makes TypeScript run.
import { mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';
import { build, stop } from 'esbuild';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');
/** Files that ask where they lie: they are told where they lay. */
const ASKS_WHERE = /[\\/](bin[\\/]root|workers[\\/]workerPool|planning[\\/]planningThread)\.ts$/;

/**
 * @param {string} module of bin/, by its path without `.ts`
 * @returns {Promise<string>} the file that runs it, made from the sources as they are now
 * @throws what esbuild says of the sources; a line that names the folder when it cannot be written
 */
export async function bundled(module) {
  // Beside the packages, which it imports from there.
  const folder = join(root, 'node_modules', '.cadenza');
  const file = join(folder, `${module.replaceAll('/', '-')}.mjs`);
  const { outputFiles } = await build({
    entryPoints: [join(root, 'bin', `${module}.ts`)],
    absWorkingDir: root,
    outfile: file,
    bundle: true,
    write: false,
    platform: 'node',
    format: 'esm',
    packages: 'external',
    sourcemap: 'inline',
    sourcesContent: false,
    plugins: [
      {
        name: 'where files lay',
        setup(making) {
          making.onLoad({ filter: ASKS_WHERE }, ({ path }) => ({
            loader: 'ts',
            contents: readFileSync(path, 'utf8').replaceAll(
              'import.meta.url',
              JSON.stringify(pathToFileURL(path).href),
            ),
          }));
        },
      },
    ],
  });
  // The builder is a process of its own, which would stay as long as a server runs.
  await stop();
  const { text } = outputFiles[0];
  if (text.includes('import.meta.'))
    throw new Error(`A file of ${module} asks where it lies: name it in ASKS_WHERE of bin/bundled.mjs.`);
  if (textOf(file) === text) return file;
  try {
    mkdirSync(folder, { recursive: true });
    // Several starts at once each move a whole file into its place.
    const making = `${file}.${process.pid}`;
    writeFileSync(making, text);
    renameSync(making, file);
  } catch (error) {
    throw new Error(`${folder} cannot be written (${error.code}): every command is put there before it runs.`);
  }
  return file;
}

function textOf(file) {
  try {
    return readFileSync(file, 'utf8');
  } catch {
    return null;
  }
}
