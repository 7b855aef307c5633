import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { certain } from '#core/lists/there.ts';
import { ROOT } from '../root.ts';

/** JavaScript that the first page loads before anything is clicked, gzipped, kB: the entry and all it imports at once. */
export function firstPageKilobytes(): number {
  const dist = join(ROOT, 'web', 'dist');
  const manifest = JSON.parse(readFileSync(join(dist, '.vite/manifest.json'), 'utf8')) as Record<
    string,
    { file: string; isEntry?: boolean; imports?: string[]; dynamicImports?: string[] }
  >;
  const seen = new Set<string>();
  const visit = (key: string) => {
    if (seen.has(key)) return;
    seen.add(key);
    manifest[key]?.imports?.forEach(visit);
  };
  Object.keys(manifest)
    .filter((key) => manifest[key]?.isEntry)
    .forEach((key) => {
      visit(key);
      // The entry only takes over what closed tabs left, and then loads the application.
      manifest[key]?.dynamicImports?.forEach(visit);
    });
  return (
    [...seen].reduce((sum, key) => sum + gzipSync(readFileSync(join(dist, certain(manifest[key]).file))).length, 0) /
    1000
  );
}
