import { checkBackup } from '../server/src/backup/backupFile.ts';
import { goBack, lookInside, restore, type LookedAt } from '../server/src/backup/restore.ts';
import { mariadbProgram } from './debianPackages.ts';
import { openProjectDatabase } from './mariadb/projectDatabase.ts';
import { runCommand, Sentence, tell } from './sentence.ts';

const USAGE = 'Usage: npm run restore -- FILE.sql [--look], or npm run restore -- --back';

/**
 * `npm run restore -- FILE`: puts back what a backup holds, in place of what is stored now; stop Cadenza first. Who is let in stays as it is here. The backup is read whole and tried out in a
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
  if (file !== undefined) await checkBackup(file);
  const database = await openProjectDatabase({ alone: !look });
  const tools = { url: database.keeperUrl, program: mariadbProgram };
  try {
    if (file === undefined) {
      if (!(await goBack(tools))) throw new Sentence('Nothing was restored here yet, so there is nothing to put back.');
      tell('What was stored before the restore is back. The same command again changes the two once more.');
      return;
    }
    const looked = await (look ? lookInside : restore)(tools, { file });
    tell(
      `${file} holds ${inWords(looked)}.${looked.checksum ? '' : ' It was made by an earlier Cadenza and carries no checksum.'}`,
    );
    if (!look) tell(`Restored from ${file}. What was stored before is kept: npm run restore -- --back`);
  } finally {
    await database.stop();
  }
});

function inWords({ version, holds, madeAt }: LookedAt): string {
  const { boards, removedBoards, revisions, pieces, plans, cuttings, runs, facts, shopsAside, newest } = holds;
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
  return `${parts.join(', ')}; last changed ${newest ?? 'never'}; ${madeAt === null ? '' : `made ${madeAt}, `}tables of ${version}`;
}
