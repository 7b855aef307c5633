/** A table as a backup describes it: what makes it, in words of ours alone, and the columns that its rows fill. */
export interface TableMade {
  table: string;
  sql: string;
  columns: Column[];
}

export interface Column {
  name: string;
  /** Worked out by the database: its values are read and left. */
  generated: boolean;
}

/** Rows of a table. */
export interface TableRows {
  table: string;
  /** As the statement names them; null for all of the table in their order. */
  columns: string[] | null;
  rows: Value[][];
}

/** Numbers stay as they are written, so that none is rounded; bytes are pictures. */
export type Value = string | number | Buffer | null;

/** What is no part of a backup, with the place. */
export class GrammarError extends Error {
  override name = 'GrammarError';
}

/** All that Cadenza's tables were ever described with; anything else is no description of a table. */
const WORDS = new Set(
  `null not default key varchar char int smallint bigint tinyint mediumint decimal double float datetime timestamp date longtext mediumtext text longblob mediumblob blob enum
  unsigned auto_increment primary unique constraint foreign references on delete update cascade restrict set character collate charset engine innodb check json_valid is and or
  utf8mb4 utf8mb4_general_ci utf8mb4_nopad_bin utf8mb4_bin utf8mb4_unicode_ci generated always as stored virtual if concat current_timestamp row_format dynamic`.split(
    /\s+/,
  ),
);
const TOKEN =
  /\s*(?:(`[^`]{1,64}`)|('(?:[^'\\]|\\.|'')*')|(\d+(?:\.\d+)?)|([A-Za-z_][A-Za-z_0-9]*)|(>=|<=|<>|[(),=<>+-]))/y;
const NAME = /^`([A-Za-z_][A-Za-z_0-9]{0,63})`$/;

/** @throws GrammarError for what describes no table of Cadenza's */
export function readTable(statement: string): TableMade {
  const tokens = tokensOf(statement);
  const [create, table, name, open] = tokens;
  const named = NAME.exec(name ?? '')?.[1];
  if (create?.toLowerCase() !== 'create' || table?.toLowerCase() !== 'table' || named === undefined || open !== '(')
    throw new GrammarError(statement.slice(0, 60));
  for (const token of tokens.slice(2))
    if (/^[A-Za-z_]/.test(token) && !WORDS.has(token.toLowerCase()))
      throw new GrammarError(`${token} in the table ${named}`);
  const columns: Column[] = [];
  let depth = 0;
  for (const [i, token] of tokens.entries()) {
    if (token === '(') depth += 1;
    if (token === ')') depth -= 1;
    const begins = depth === 1 && (tokens[i - 1] === ',' || i === 4);
    const column = begins ? NAME.exec(token)?.[1] : undefined;
    if (column !== undefined) columns.push({ name: column, generated: false });
    const last = columns.at(-1);
    if (last && depth === 1 && token.toLowerCase() === 'generated') last.generated = true;
  }
  if (columns.length === 0 || depth !== 0) throw new GrammarError(`the table ${named}`);
  return { table: named, sql: tokens.join(' ').replace(/(\w) \(/g, '$1('), columns };
}

function tokensOf(statement: string): string[] {
  const tokens: string[] = [];
  TOKEN.lastIndex = 0;
  const end = statement.trimEnd().length;
  while (TOKEN.lastIndex < end) {
    const at = TOKEN.lastIndex;
    const token = TOKEN.exec(statement)
      ?.slice(1)
      .find((t) => t !== undefined);
    if (token === undefined) throw new GrammarError(statement.slice(at, at + 40));
    tokens.push(token);
  }
  return tokens;
}

const HEAD = /^\s*INSERT INTO `([A-Za-z_][A-Za-z_0-9]{0,63})`\s*(?:\(([`A-Za-z_0-9, ]+)\)\s*)?VALUES\s*/;
/** Longer than that no head of rows is, bytes. */
const LONGEST_HEAD = 4000;

/** @throws GrammarError for what are no plain values: nothing in them is worked out */
export function readRows(statement: Buffer): TableRows {
  const head = HEAD.exec(statement.subarray(0, LONGEST_HEAD).toString('latin1'));
  if (!head) throw new GrammarError(statement.subarray(0, 60).toString('latin1'));
  const [whole, table = '', list] = head;
  return {
    table,
    columns: list === undefined ? null : list.split(',').map((c) => c.trim().replaceAll('`', '')),
    rows: new RowReader(statement, whole.length).rows(),
  };
}

const PLAIN = /(?:NULL|-?\d+(?:\.\d+)?(?:[eE][-+]?\d+)?)/y;
const LONGEST_NUMBER = 80;
const ESCAPED: Readonly<Record<string, number>> = { '0': 0, b: 8, t: 9, n: 10, r: 13, Z: 26 };

class RowReader {
  constructor(
    private readonly bytes: Buffer,
    private at: number,
  ) {}

  rows(): Value[][] {
    const rows = [this.row()];
    for (this.space(); this.at < this.bytes.length; this.space()) {
      this.take(',');
      rows.push(this.row());
    }
    return rows;
  }

  private row(): Value[] {
    this.take('(');
    const values = [this.value()];
    for (this.space(); this.next === ','; this.space()) {
      this.at += 1;
      values.push(this.value());
    }
    this.take(')');
    return values;
  }

  private value(): Value {
    this.space();
    if (this.next === "'") return this.text().toString('utf8');
    if (this.bytes.subarray(this.at, this.at + 8).toString('latin1') === '_binary ') {
      this.at += 8;
      if (this.next !== "'") this.fail();
      return this.text();
    }
    PLAIN.lastIndex = 0;
    const plain = PLAIN.exec(this.bytes.subarray(this.at, this.at + LONGEST_NUMBER).toString('latin1'))?.[0];
    if (plain === undefined) this.fail();
    this.at += plain.length;
    if (plain === 'NULL') return null;
    const number = Number(plain);
    return String(number) === plain ? number : plain;
  }

  /** A text between quotes, as its bytes. */
  private text(): Buffer {
    const { bytes } = this;
    const begin = this.at + 1;
    let end = begin;
    let escapes = false;
    while (bytes[end] !== 0x27) {
      if (end >= bytes.length) this.fail();
      if (bytes[end] === 0x5c) {
        escapes = true;
        end += 1;
      }
      end += 1;
    }
    this.at = end + 1;
    if (!escapes) return bytes.subarray(begin, end);
    const plain = Buffer.alloc(end - begin);
    let length = 0;
    for (let i = begin; i < end; i += 1) {
      let byte = bytes[i] as number;
      if (byte === 0x5c) {
        i += 1;
        const sign = bytes[i] as number;
        byte = ESCAPED[String.fromCharCode(sign)] ?? sign;
      }
      plain[length] = byte;
      length += 1;
    }
    return plain.subarray(0, length);
  }

  private get next(): string {
    return String.fromCharCode(this.bytes[this.at] ?? 0);
  }

  private space(): void {
    while (/\s/.test(this.next)) this.at += 1;
  }

  private take(sign: string): void {
    this.space();
    if (this.next !== sign) this.fail();
    this.at += 1;
  }

  private fail(): never {
    throw new GrammarError(this.bytes.subarray(this.at, this.at + 40).toString('latin1'));
  }
}
