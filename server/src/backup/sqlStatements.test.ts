import fc from 'fast-check';
import { escape } from 'mysql2';
import { expect, it } from 'vitest';
import { readRows, readTable, type Value } from './dumpGrammar.ts';
import { sqlStatements } from './sqlStatements.ts';

/** A text as it comes from a disk: in chunks that end anywhere. */
async function* inChunks(text: string, size: number): AsyncGenerator<Buffer> {
  const bytes = Buffer.from(text);
  for (let at = 0; at < bytes.length; at += size) yield bytes.subarray(at, at + size);
  await Promise.resolve();
}

async function statementsOf(text: string, size = 1000): Promise<string[]> {
  const statements: string[] = [];
  for await (const statement of sqlStatements(inChunks(text, size))) statements.push(statement.toString('utf8').trim());
  return statements;
}

it('statements end where they end, whatever their texts, names and comments hold, and wherever a chunk ends', async () => {
  const text =
    "/*M!999999\\- enable; */ \n-- a; comment\nINSERT INTO `a;b` VALUES ('x;--\\'/* ''\\\\');\n/*!40101 SET a='1;'*/;\nUNLOCK TABLES;";
  for (let size = 1; size < 40; size += 1)
    expect(await statementsOf(text, size)).toEqual([
      "INSERT INTO `a;b` VALUES ('x;--\\'/* ''\\\\')",
      '',
      'UNLOCK TABLES',
    ]);
  for (const open of ["INSERT INTO `a` VALUES ('x", 'SELECT 1', '/* for ever'])
    await expect(statementsOf(open)).rejects.toThrow('The backup ends in the middle of a statement.');
});

it('values come out as the database would read them: as mysql2 writes them, they read back', async () => {
  const value: fc.Arbitrary<Value> = fc.oneof(
    fc.string({ unit: 'binary' }),
    fc.constantFrom(null, 0, -1.5, 12345678, "it's; a \\ \n\0", 'ö"`--'),
  );
  await fc.assert(
    fc.asyncProperty(
      fc.array(fc.tuple(value, value), { minLength: 1, maxLength: 4 }),
      fc.nat(9),
      async (rows, size) => {
        const text = `INSERT INTO \`t\` VALUES ${rows.map((r) => `(${r.map((v) => escape(v)).join(',')})`).join(',\n')};`;
        const [statement] = await statementsOf(text, size + 1);
        expect(readRows(Buffer.from(statement!)).rows).toEqual(rows);
      },
    ),
  );
  expect(readRows(Buffer.from("INSERT INTO `p` (`id`, `bytes`) VALUES (1,_binary '\\0a\\'')"))).toEqual({
    table: 'p',
    columns: ['id', 'bytes'],
    rows: [[1, Buffer.from("\0a'")]],
  });
  // No figure is rounded on its way.
  expect(readRows(Buffer.from('INSERT INTO `t` VALUES (1234567890123456789.125)')).rows).toEqual([
    ['1234567890123456789.125'],
  ]);
  for (const worked of ['now()', 'sleep(9)', '1+1', '(select 1)', 'x', "'a' 'b'", '@@version', '0x41 or 1'])
    expect(() => readRows(Buffer.from(`INSERT INTO \`t\` VALUES (${worked})`))).toThrow();
});

it('a table is made in words that Cadenza described its own with, and no others', () => {
  const made = readTable(
    "CREATE TABLE `pieces` (`id` varchar(40) NOT NULL, `removed_at` datetime(3) DEFAULT NULL, `present` varchar(12) GENERATED ALWAYS AS (if(`removed_at` is null,`id`,NULL)) STORED, `kind` enum('a','it''s'), PRIMARY KEY (`id`), CONSTRAINT `positive` CHECK (`id` >= 0)) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4",
  );
  expect(made.columns).toEqual([
    { name: 'id', generated: false },
    { name: 'removed_at', generated: false },
    { name: 'present', generated: true },
    { name: 'kind', generated: false },
  ]);
  for (const odd of [
    'CREATE TABLE `a` (`id` int(11)) AS SELECT 1',
    'CREATE TABLE `a`.`b` (`id` int(11))',
    'CREATE TABLE `a` (`id` int(11) DEFAULT (sleep(9)))',
    "CREATE TABLE `a` (`id` int(11)) ENGINE=InnoDB DATA DIRECTORY='/tmp'",
    'CREATE TABLE `a` (`id` int(11) CHECK (benchmark(1e9, 1)))',
    'CREATE TABLE `a` (PRIMARY KEY (`id`))',
    'CREATE TABLE `a` (`id` int(11)',
    'CREATE VIEW `a` AS SELECT 1',
    'CREATE TABLE `a` (`id` int(11)) /* x */',
  ])
    expect(() => readTable(odd), odd).toThrow();
});
