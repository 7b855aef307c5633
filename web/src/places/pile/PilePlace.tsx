import { certain, firstOf, nth } from '#core/lists/there.ts';
import { Button, FileButton, Select } from '@mantine/core';
import { IconFileImport, IconPlus } from '@tabler/icons-react';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useCallback, useMemo, useRef, useState, type ClipboardEvent, type KeyboardEvent } from 'react';
import { Link, useNavigate } from 'react-router';
import { EXTRA_COLUMNS, PILE_WORDS, pileColumns, type PileColumn, type PileRow } from '#core/format/pileColumns.ts';
import { freeMark, readPile, splitCell, withMarks, withPasted } from '#core/format/readPile.ts';
import { readRackCsv } from '#core/format/rackCsv.ts';
import type { PieceFields } from '#core/stock/piece.ts';
import { newSpecies } from '#core/wood/newSpecies.ts';
import type { Species } from '#core/wood/species.ts';
import { api, ApiProblem } from '../../data/api.ts';
import { useRack, useSpecies } from '../../data/queries.ts';
import { keys, queryClient } from '../../data/queryClient.ts';
import { useDisplay } from '../../quantities/display.tsx';
import { showProblem, showWord } from '../../shell/notices.tsx';
import { marksOf } from '#core/stock/marks.ts';
import { PileLine, ROW_HEIGHT } from './PileLine.tsx';
import classes from './PilePlace.module.css';
import { readTextFile } from './readTextFile.ts';

const MAIN_COLUMNS = pileColumns.filter((c) => !EXTRA_COLUMNS.includes(c));
/** The whole list of troubles would hide the grid. */
const MOST_TROUBLES = 6;

/** A whole pile typed, pasted or read from a file: the grid shows what was understood and what was not, and nothing is stored until it is put in the rack. */
export function PilePlace() {
  const { display } = useDisplay();
  const rack = useRack();
  const known = useSpecies();
  const navigate = useNavigate();
  const [rows, setRows] = useState<PileRow[]>(() => [{}]);
  const [system, setSystem] = useState(display.system);
  const [fileNote, setFileNote] = useState<string | null>(null);
  const [made, setMade] = useState<Species[]>([]);
  const [busy, setBusy] = useState(false);
  const [serverSays, setServerSays] = useState<string | null>(null);
  const scroller = useRef<HTMLDivElement>(null);

  const species = useMemo(() => [...(known.data ?? []), ...made], [known.data, made]);
  const taken = useMemo(() => marksOf(rack.data ?? []), [rack.data]);
  const read = useMemo(() => readPile(rows, { species, system, taken }), [rows, species, system, taken]);
  const columns = useMemo(() => {
    const used = EXTRA_COLUMNS.filter((c) => rows.some((row) => row[c]));
    return [...MAIN_COLUMNS, ...used];
  }, [rows]);
  const filled = read.filter((r) => r !== null);
  const bad = filled.filter((r) => r.piece === null);
  const unknown = [...new Set(filled.flatMap((r) => r.unknownSpecies ?? []))];
  // The grid is drawn anew whenever it scrolls; nothing that is remembered hangs on what this returns.
  // oxlint-disable-next-line react/incompatible-library
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW_HEIGHT,
    overscan: 12,
  });

  const focus = useCallback(
    (row: number, column: number) => {
      virtual.scrollToIndex(row);
      // The row may have to be drawn first.
      requestAnimationFrame(() =>
        requestAnimationFrame(() => {
          const cell = scroller.current?.querySelector<HTMLInputElement>(`[data-cell="${row}/${column}"]`);
          cell?.focus();
          cell?.select();
        }),
      );
    },
    [virtual],
  );
  const setCell = useCallback((row: number, column: PileColumn, value: string) => {
    setServerSays(null);
    setRows((old) => old.with(row, { ...old[row], [column]: value }));
  }, []);
  // A whole size in one cell is taken apart when the cell is left.
  const leaveCell = useCallback((row: number, column: PileColumn, value: string) => {
    const size = splitCell(column, value);
    if (size) setRows((old) => old.with(row, { ...old[row], ...size }));
  }, []);
  const addLine = () => {
    setRows((old) => [...old, { mark: freeMark(old, taken), species: old.at(-1)?.species ?? '' }]);
    focus(rows.length, 1);
  };
  const onKey = (event: KeyboardEvent<HTMLInputElement>, row: number, column: number) => {
    const ctrl = event.ctrlKey || event.metaKey;
    const name = nth(columns, column);
    if (event.key === 'Enter') {
      event.preventDefault();
      if (ctrl) void store();
      else if (row === rows.length - 1) addLine();
      else focus(row + 1, column);
    } else if (event.key === 'ArrowDown' && row < rows.length - 1) focus(row + 1, column);
    else if (event.key === 'ArrowUp' && row > 0) focus(row - 1, column);
    else if (ctrl && event.key.toLowerCase() === 'd' && row > 0) {
      event.preventDefault();
      if (event.shiftKey)
        setRows((old) => old.with(row, { ...old[row - 1], mark: nth(old, row).mark ?? freeMark(old, taken) }));
      else setCell(row, name, nth(rows, row - 1)[name] ?? '');
    } else if (ctrl && event.key === 'Delete') {
      event.preventDefault();
      setRows((old) => (old.length > 1 ? old.toSpliced(row, 1) : [{}]));
      focus(Math.max(0, row - 1), column);
    }
  };
  const takeText = (text: string, note: string | null): boolean => {
    const csv = readRackCsv(text);
    if (!csv.ok) return false;
    if (csv.system) setSystem(csv.system);
    setRows(withMarks(csv.rows, taken));
    setFileNote(
      [note, csv.ignored.length > 0 ? `Columns left out: ${csv.ignored.join(', ')}.` : null]
        .filter(Boolean)
        .join(' ') || null,
    );
    return true;
  };
  const onPaste = (event: ClipboardEvent<HTMLInputElement>, row: number, column: number) => {
    const text = event.clipboardData.getData('text');
    if (!/[\t\n]/.test(text.trim())) return;
    event.preventDefault();
    if (takeText(text, 'Pasted.')) return;
    // No headings: cells go where the cursor is, a line a row.
    setRows((old) => withPasted(old, text, columns, { row, column }, taken));
  };
  const open = async (file: File | null) => {
    if (!file) return;
    const { text, encoding } = await readTextFile(file);
    const csv = readRackCsv(text);
    if (!csv.ok) showProblem(new Error(`${file.name}: ${csv.message}`));
    else
      takeText(
        text,
        `${file.name}: ${csv.rows.length} rows.${encoding ? ` It was read as ${encoding}; look at special letters.` : ''}`,
      );
  };
  const store = async () => {
    const pieces = filled.map((r) => r.piece);
    if (pieces.some((p) => p === null) || pieces.length === 0) return;
    setBusy(true);
    setServerSays(null);
    try {
      const used = new Set(pieces.map((p) => certain(p).species));
      const { added } = await api.addPieces(
        pieces as PieceFields[],
        made.filter((s) => used.has(s.code)),
      );
      await Promise.all([
        queryClient.invalidateQueries({ queryKey: keys.rack }),
        queryClient.invalidateQueries({ queryKey: keys.species }),
      ]);
      showWord(`${added} ${added === 1 ? 'piece is' : 'pieces are'} in the rack now.`);
      await navigate('/rack');
    } catch (error) {
      setServerSays(error instanceof ApiProblem ? error.message : 'Something went wrong; nothing was stored.');
    } finally {
      setBusy(false);
    }
  };

  return (
    <div className={classes.page}>
      <header>
        <h1>A whole pile</h1>
        <Button onClick={() => void store()} loading={busy} disabled={filled.length === 0 || bad.length > 0}>
          Put {filled.length === 1 ? '1 piece' : `${filled.length} pieces`} in the rack
        </Button>
        <Button variant="default" leftSection={<IconPlus size={16} />} onClick={addLine}>
          Add a line
        </Button>
        <FileButton accept=".csv,.tsv,.txt,text/csv" onChange={(file) => void open(file)}>
          {(props) => (
            <Button {...props} variant="default" leftSection={<IconFileImport size={16} />}>
              Read a CSV file
            </Button>
          )}
        </FileButton>
        <Select
          aria-label="Unit of bare numbers"
          w={190}
          allowDeselect={false}
          value={system}
          onChange={(v) => setSystem(v as typeof system)}
          data={[
            { value: 'metric', label: 'Bare numbers are mm' },
            { value: 'inch', label: 'Bare numbers are inches' },
          ]}
        />
        <Link to="/rack">Back to the rack</Link>
      </header>
      <p className={classes.hint}>
        Type a size as <kbd>4/4 x 7 1/2 x 8&apos;</kbd>, thickness first. <kbd>Enter</kbd> next line, <kbd>Ctrl D</kbd>{' '}
        copies the cell above, <kbd>Ctrl Shift D</kbd> the whole line, <kbd>Ctrl Delete</kbd> takes a line out,{' '}
        <kbd>Ctrl Enter</kbd> puts all in the rack. Paste from a spreadsheet anywhere.
      </p>
      {fileNote && <p className={classes.note}>{fileNote} Nothing is stored yet.</p>}
      {unknown.map((name) => (
        <div key={name} className={classes.make}>
          <span>
            Nobody knows <b>{name}</b> yet. Make it, with figures like those of
          </span>
          <Select
            aria-label={`Figures for ${name}`}
            searchable
            w={200}
            placeholder="choose a species"
            data={(known.data ?? []).map((s) => ({ value: s.code, label: s.name }))}
            onChange={(code) => {
              const like = known.data?.find((s) => s.code === code);
              if (like) setMade((old) => [...old, newSpecies(name, like, [...species])]);
            }}
          />
        </div>
      ))}
      {(bad.length > 0 || serverSays) && (
        <div className={classes.troubles} role="alert">
          {serverSays && <p>{serverSays} Nothing was stored.</p>}
          {bad.slice(0, MOST_TROUBLES).map((r) => (
            <p key={r.index}>
              <button
                type="button"
                onClick={() => focus(r.index, Math.max(0, columns.indexOf(firstOf(r.problems).column)))}
              >
                Line {r.index + 1}
              </button>{' '}
              {r.problems.map((p) => p.message).join(' ')}
            </p>
          ))}
          {bad.length > MOST_TROUBLES && <p>… and {bad.length - MOST_TROUBLES} more lines.</p>}
        </div>
      )}
      <div
        className={classes.grid}
        ref={scroller}
        role="grid"
        aria-label="Pieces to put in the rack"
        aria-rowcount={rows.length + 1}
        tabIndex={-1}
      >
        <div className={classes.head} role="row">
          <span role="columnheader" className={classes.number}>
            Line
          </span>
          {columns.map((c) => (
            <span key={c} role="columnheader" className={classes.cell} data-column={c}>
              {PILE_WORDS[c]}
            </span>
          ))}
          <span role="columnheader" className={classes.number}>
            <span className={classes.hidden}>Take out</span>
          </span>
        </div>
        <div style={{ height: virtual.getTotalSize(), position: 'relative' }} role="rowgroup">
          {virtual.getVirtualItems().map((item) => (
            <PileLine
              key={item.key}
              index={item.index}
              top={item.start}
              row={nth(rows, item.index)}
              read={read[item.index] ?? null}
              columns={columns}
              onChange={setCell}
              onLeave={leaveCell}
              onKey={onKey}
              onPaste={onPaste}
              onRemove={() => setRows((old) => (old.length > 1 ? old.toSpliced(item.index, 1) : [{}]))}
            />
          ))}
        </div>
      </div>
    </div>
  );
}
