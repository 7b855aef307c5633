import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { projectFiles } from './projectFiles.ts';
import { ROOT } from './root.ts';
import { tell } from './sentence.ts';

/** `npm run schema`: writes the JSON Schema and the examples anew from the code they describe. */
for (const folder of ['docs/format', 'examples']) mkdirSync(join(ROOT, folder), { recursive: true });
for (const [path, text] of Object.entries(projectFiles())) {
  writeFileSync(join(ROOT, path), text);
  tell(`Wrote ${path}`);
}
