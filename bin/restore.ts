import { StoreError } from '../server/src/stores/openStore.ts';
import { inspectStore, type StoreContents } from '../server/src/stores/inspectStore.ts';
import { checkBackup } from './mariadb/backupFile.ts';
import { openProjectDatabase } from './mariadb/projectDatabase.ts';
import { dropScratch, loadScratch, swapBack, swapIn } from './mariadb/scratch.ts';
import { runCommand, Sentence, tell } from './sentence.ts';

const USAGE = 'Usage: npm run restore -- FILE.sql [--look], or npm run restore -- --back';

/**
 * `npm run restore -- FILE`: puts back what a backup holds, in place of what is stored now; stop Cadenza first. The backup is read whole and tried out in a
 * database of its own before anything is touched, and what was stored stays beside it: `--back` changes the two again. `--look` only says what is in it.
 */
await runCommand(async () => {
  const options = process.argv.slice(2).filter((a) => a.startsWith('--'));
  const [file, ...more] = process.argv.slice(2).filter((a) => !a.startsWith('--'));
  const [look, back] = [options.includes('--look'), options.includes('--back')];
  if (
    more.length > 0 ||
    options.some((o) => o !== '--look' && o !== '--back') ||
    back === (file !== undefined) ||
    (back && look)
  )
    throw new Sentence(USAGE);
  const checksum = file === undefined || (await checkBackup(file)).checksum;
  const database = await openProjectDatabase({ alone: !look });
  const url = database.keeperUrl;
  try {
    if (file === undefined) {
      if (!(await swapBack(url))) throw new Sentence('Nothing was restored here yet, so there is nothing to put back.');
      tell('What was stored before the restore is back. The same command again changes the two once more.');
      return;
    }
    const scratch = await loadScratch(url, file);
    const contents = await inspectStore(scratch).catch(async (error: unknown) => {
      await dropScratch(url);
      throw error instanceof StoreError ? new Sentence(`${file}: ${error.message} Nothing was changed.`) : error;
    });
    if (contents.unreadable.length > 0) {
      await dropScratch(url);
      throw new Sentence(
        `${file} holds what this Cadenza cannot read: ${contents.unreadable.slice(0, 3).join('; ')}. Nothing was changed.`,
      );
    }
    tell(
      `${file} holds ${inWords(contents)}.${checksum ? '' : ' It was made by an earlier Cadenza and carries no checksum.'}`,
    );
    if (look) {
      await dropScratch(url);
      return;
    }
    await swapIn(url);
    tell(`Restored from ${file}. What was stored before is kept: npm run restore -- --back`);
  } finally {
    await database.stop();
  }
});

function inWords({
  version,
  boards,
  removedBoards,
  revisions,
  pieces,
  plans,
  cuttings,
  runs,
  facts,
  shopsAside,
  newest,
}: StoreContents): string {
  const some = (count: number, one: string, many: string) => `${count} ${count === 1 ? one : many}`;
  const parts = [
    some(boards, 'board', 'boards') + (removedBoards > 0 ? ` (and ${removedBoards} removed)` : ''),
    some(revisions, 'revision', 'revisions'),
    some(pieces, 'piece in the rack', 'pieces in the rack'),
    some(plans, 'kept cut plan', 'kept cut plans'),
    some(cuttings, 'cut', 'cuts'),
    some(runs, 'clock of a glue-up', 'clocks of glue-ups'),
    some(facts, 'fact from the bench', 'facts from the bench'),
    ...(shopsAside > 0 ? [some(shopsAside, 'shop set aside', 'shops set aside')] : []),
  ];
  return `${parts.join(', ')}; last changed ${newest ?? 'never'}; tables of ${version}`;
}
