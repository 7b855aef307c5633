import { dumpToFile } from '../server/src/backup/dump.ts';
import { mariadbProgram } from './debianPackages.ts';
import { openProjectDatabase } from './mariadb/projectDatabase.ts';
import { runCommand, Sentence, tell } from './sentence.ts';

/** `npm run backup -- FILE`: everything that is stored, as SQL with a checksum; Cadenza may go on running. */
await runCommand(async () => {
  const [file, ...more] = process.argv.slice(2);
  if (!file || file.startsWith('-') || more.length > 0) throw new Sentence('Usage: npm run backup -- FILE.sql');
  mariadbProgram('mariadb-dump');
  const database = await openProjectDatabase();
  try {
    await dumpToFile({ url: database.keeperUrl, program: mariadbProgram }, file, new Date());
    tell(`Backed up to ${file}`);
  } finally {
    await database.stop();
  }
});
