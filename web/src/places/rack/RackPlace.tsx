import { nth } from '#core/lists/there.ts';
import { Button, Menu } from '@mantine/core';
import { useElementSize } from '@mantine/hooks';
import {
  IconCopy,
  IconDots,
  IconFileExport,
  IconListDetails,
  IconPencil,
  IconPlus,
  IconRecycle,
  IconTag,
  IconTrash,
} from '@tabler/icons-react';
import { useWindowVirtualizer } from '@tanstack/react-virtual';
import { useCallback, useDeferredValue, useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { writeRackCsv } from '#core/format/rackCsv.ts';
import { EMPTY_SAW_BOOK, promisedByPiece, promisedToOthers } from '#core/saw/sawBook.ts';
import { DEFAULT_SHOP } from '#core/shop/shop.ts';
import type { Piece } from '#core/stock/piece.ts';
import type { StoredPiece } from '#contract/rack.ts';
import { api, ApiProblem } from '../../data/api.ts';
import { NO_BOARDS, trouble, useRack, useSawBook, useShop, useSpecies } from '../../data/queries.ts';
import { keys, queryClient } from '../../data/queryClient.ts';
import { saveFile } from '../../data/saveFile.ts';
import { fitScale, scaleWords } from '../../drawing/scale.ts';
import { DemoNote } from '../../shell/DemoNote.tsx';
import { useShortcuts } from '../../shortcuts/Shortcuts.tsx';
import { showProblem, showUndo } from '../../shell/notices.tsx';
import { FIND_ALL, findPieces } from '#core/cutting/findPieces.ts';
import { marksOf, nextMark } from '#core/stock/marks.ts';
import { PieceDialog } from './PieceDialog.tsx';
import classes from './RackPlace.module.css';
import { RackSearch } from './RackSearch.tsx';
import { shelfRows } from './shelfRows.ts';
import { StockPiece } from './StockPiece.tsx';

const reload = () => queryClient.invalidateQueries({ queryKey: keys.rack });
/** A rack of this many lines is drawn whole; of a larger one only what is in sight. */
const MOST_ROWS_DRAWN = 60;
const NO_PIECES: StoredPiece[] = [];
const NO_PROMISES: ReturnType<typeof promisedToOthers> = [];

/** What the dialog works on: a new piece (perhaps filled from another), or a stored one. */
type Editing = { stored: StoredPiece | null; start: Partial<Piece> };

/** Every piece of stock at one scale on shelves by species, with what lies on it and what is promised of it. */
export function RackPlace() {
  const rack = useRack();
  const species = useSpecies();
  const shop = useShop();
  const book = useSawBook(NO_BOARDS);
  const navigate = useNavigate();
  const { ref, width } = useElementSize();
  const [chosen, setChosen] = useState<string | null>(null);
  const [editing, setEditing] = useState<Editing | null>(null);
  const reveal = useRef<string | null>(null);
  const [search, setSearch] = useState(FIND_ALL);
  const sought = useDeferredValue(search);
  const pieces = rack.data ?? NO_PIECES;
  const problem = trouble(rack, species);
  const selected = pieces.find((p) => p.piece.id === chosen);
  const ranges = useMemo(() => promisedToOthers(book.data ?? EMPTY_SAW_BOOK, []), [book.data]);
  const promised = useMemo(() => promisedByPiece(ranges), [ranges]);
  const found = useMemo(
    () => findPieces(pieces, sought, species.data ?? [], shop.data?.shop ?? DEFAULT_SHOP, ranges),
    [pieces, sought, species.data, shop.data, ranges],
  );
  const longest = useMemo(() => pieces.reduce((most, p) => Math.max(most, p.piece.length), 600), [pieces]);
  // On a wide page the longest plank leaves room for offcuts beside it.
  const room = width > 900 ? width * 0.64 : width - 36;
  const scale = fitScale([longest, 1], [Math.max(240, room), 1e6], 0.6);
  const rows = useMemo(
    () => (width > 0 ? shelfRows(found, species.data ?? [], scale, width) : []),
    [found, species.data, scale, width],
  );

  const list = useRef<HTMLDivElement>(null);
  const [top, setTop] = useState(0);
  useLayoutEffect(() => setTop(list.current?.offsetTop ?? 0), [width]);
  // The list is drawn anew whenever it scrolls; nothing that is remembered hangs on what this returns.
  // oxlint-disable-next-line react/incompatible-library
  const virtual = useWindowVirtualizer({
    count: rows.length,
    estimateSize: (i) => nth(rows, i).height,
    overscan: rows.length > MOST_ROWS_DRAWN ? 6 : MOST_ROWS_DRAWN,
    scrollMargin: top,
  });
  useLayoutEffect(() => virtual.measure(), [rows, virtual]);

  // What was just put in is brought into sight, once it stands on its shelf.
  useEffect(() => {
    const index =
      reveal.current === null
        ? -1
        : rows.findIndex((r) => r.kind === 'pieces' && r.pieces.some((p) => p.piece.id === reveal.current));
    if (index < 0) return;
    virtual.scrollToIndex(index, { align: 'center' });
    reveal.current = null;
  }, [rows, virtual]);

  const add = () => setEditing({ stored: null, start: { mark: nextMark('N1', marksOf(pieces)) } });
  const edit = () => selected && setEditing({ stored: selected, start: selected.piece });
  const duplicate = () =>
    selected &&
    setEditing({ stored: null, start: { ...selected.piece, mark: nextMark(selected.piece.mark, marksOf(pieces)) } });
  const openPiece = useCallback((id: string) => void navigate(`/rack/${id}`), [navigate]);
  const remove = async () => {
    if (!selected) return;
    try {
      const removed = await api.removePiece(selected.piece.id, selected.version);
      await reload();
      showUndo(`${selected.piece.mark} taken out of the rack.`, async () => {
        await api.restorePiece(removed.piece.id, removed.version);
        await reload();
      });
    } catch (error) {
      showProblem(error);
      if (error instanceof ApiProblem) void reload();
    }
  };
  const choose = (by: number) => {
    const order = rows.flatMap((r, index) =>
      r.kind === 'pieces' ? r.pieces.map((p) => ({ id: p.piece.id, index })) : [],
    );
    const at = order.findIndex((p) => p.id === chosen);
    const next = order[Math.min(order.length - 1, Math.max(0, at + by))];
    if (!next) return;
    setChosen(next.id);
    virtual.scrollToIndex(next.index);
    requestAnimationFrame(() => requestAnimationFrame(() => document.getElementById(`piece-${next.id}`)?.focus()));
  };
  const exportCsv = () => {
    const csv = writeRackCsv(found.map(({ piece: { id: _id, ...fields } }) => fields));
    saveFile(new Blob(['\uFEFF', csv], { type: 'text/csv' }), 'rack', 'csv');
  };
  useShortcuts('Rack', [
    { keys: 'a', does: 'Add a piece', run: add },
    { keys: 'p', does: 'Enter a whole pile', run: () => void navigate('/rack/pile') },
    { keys: 'ArrowRight', does: 'Next piece', run: () => choose(1) },
    { keys: 'ArrowLeft', does: 'Piece before', run: () => choose(-1) },
    { keys: 'Enter', does: 'Open the page of the piece in focus', run: () => chosen && openPiece(chosen) },
    { keys: 'e', does: 'Edit the chosen piece', run: () => void edit() },
    { keys: 'd', does: 'Duplicate the chosen piece', run: () => void duplicate() },
    { keys: 'Delete', does: 'Remove the chosen piece', run: () => void remove() },
  ]);

  return (
    <div className={classes.page}>
      <header>
        <h1>Rack</h1>
        <Button leftSection={<IconPlus size={17} />} onClick={add}>
          Add a piece
        </Button>
        <Button variant="default" component={Link} to="/rack/pile" leftSection={<IconListDetails size={16} />}>
          A whole pile
        </Button>
        <Button variant="default" component={Link} to="/rack/salvage" leftSection={<IconRecycle size={16} />}>
          Salvage
        </Button>
        <span className={classes.actions} role="group" aria-label="Chosen piece">
          <Button variant="default" disabled={!selected} onClick={() => selected && openPiece(selected.piece.id)}>
            Open{selected && ` ${selected.piece.mark}`}
          </Button>
          <Button variant="default" leftSection={<IconPencil size={16} />} disabled={!selected} onClick={edit}>
            Edit{selected && ` ${selected.piece.mark}`}
          </Button>
          <Menu position="bottom-end">
            <Menu.Target>
              <Button variant="default" aria-label="More for the rack">
                <IconDots size={17} />
              </Button>
            </Menu.Target>
            <Menu.Dropdown>
              <Menu.Item leftSection={<IconCopy size={16} />} disabled={!selected} onClick={duplicate}>
                Duplicate {selected?.piece.mark ?? 'the chosen piece'}
              </Menu.Item>
              <Menu.Item leftSection={<IconTrash size={16} />} disabled={!selected} onClick={() => void remove()}>
                Remove {selected?.piece.mark ?? 'the chosen piece'}
              </Menu.Item>
              <Menu.Divider />
              <Menu.Item leftSection={<IconFileExport size={16} />} onClick={exportCsv}>
                Save {found.length} as CSV
              </Menu.Item>
              <Menu.Item
                leftSection={<IconTag size={16} />}
                component={Link}
                to={
                  found.length === pieces.length
                    ? '/rack/labels'
                    : `/rack/labels?pieces=${found
                        .slice(0, 200)
                        .map((p) => p.piece.id)
                        .join(',')}`
                }
              >
                Shelf labels for {found.length}
              </Menu.Item>
            </Menu.Dropdown>
          </Menu>
        </span>
        <p role="status">
          {found.length === pieces.length ? pieces.length : `${found.length} of ${pieces.length}`}{' '}
          {pieces.length === 1 ? 'piece' : 'pieces'}, all drawn at {scaleWords(scale)}
        </p>
        <RackSearch search={search} species={species.data ?? []} onChange={setSearch} />
      </header>
      <DemoNote />
      {problem && (
        <p role="alert" className={classes.problem}>
          {problem.message} Cadenza keeps trying.
        </p>
      )}
      {rack.data?.length === 0 && (
        <div className={classes.empty}>
          <p>The rack is empty. Enter what really stands there, rough sizes first: boards are laid out from it.</p>
          <p>
            <Button component={Link} to="/rack/pile" leftSection={<IconListDetails size={16} />}>
              Enter the pile
            </Button>
          </p>
          <p>
            A line a piece, as you would read it off the tape, in any notation; what cannot be read is asked. Salvage
            with its screw holes, and single pieces, are added above.
          </p>
        </div>
      )}
      {rack.data && rack.data.length > 0 && found.length === 0 && (
        <p className={classes.empty}>
          No piece fits.{' '}
          <Button variant="subtle" size="compact-sm" onClick={() => setSearch(FIND_ALL)}>
            Show all
          </Button>
        </p>
      )}
      <div ref={list}>
        <div ref={ref} style={{ height: virtual.getTotalSize(), position: 'relative' }}>
          {virtual.getVirtualItems().map((item) => {
            const row = rows[item.index];
            if (!row) return null;
            const place = { transform: `translateY(${item.start - virtual.options.scrollMargin}px)` };
            return row.kind === 'name' ? (
              <h2 key={item.key} className={classes.name} style={place}>
                {row.species.name} <small>{row.count}</small>
              </h2>
            ) : (
              <div
                key={item.key}
                className={classes.pieces}
                data-last={row.last || undefined}
                style={{ ...place, height: row.height }}
                role="group"
                aria-label={row.species.name}
              >
                {row.pieces.map(({ piece }) => (
                  <StockPiece
                    key={piece.id}
                    piece={piece}
                    species={row.species}
                    scale={scale}
                    chosen={piece.id === chosen}
                    promised={promised.get(piece.id) ?? NO_PROMISES}
                    onChoose={setChosen}
                    onOpen={openPiece}
                  />
                ))}
              </div>
            );
          })}
        </div>
      </div>
      {editing && (
        <PieceDialog
          stored={editing.stored}
          start={editing.start}
          species={species.data ?? []}
          currency={shop.data?.shop.currency ?? ''}
          onClose={() => setEditing(null)}
          onSaved={(saved) => {
            setEditing(null);
            setChosen(saved.piece.id);
            reveal.current = saved.piece.id;
            void reload();
          }}
        />
      )}
    </div>
  );
}
