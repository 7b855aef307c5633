import { nth } from '#core/lists/there.ts';
import { Button } from '@mantine/core';
import { IconPrinter } from '@tabler/icons-react';
import { memo, useMemo } from 'react';
import { Link, useSearchParams } from 'react-router';
import type { Piece } from '#core/stock/piece.ts';
import { useRack, useSpecies } from '../../data/queries.ts';
import { Length } from '../../quantities/Length.tsx';
import classes from './LabelsPlace.module.css';
import { useCodes, type Code } from './useCodes.ts';

const addressOf = ({ id }: Piece) => `${window.location.origin}/rack/${id}`;

/** Shelf labels to print: the mark to be read from across the shop, sizes, and a code that opens the piece's page. `?pieces=` picks some. */
export function LabelsPlace() {
  const rack = useRack();
  const species = useSpecies();
  const [params] = useSearchParams();
  const wanted = params.get('pieces');
  const pieces = useMemo(() => {
    const chosen = wanted === null ? null : new Set(wanted.split(','));
    return (rack.data ?? []).map((p) => p.piece).filter((p) => !chosen || chosen.has(p.id));
  }, [rack.data, wanted]);
  const addresses = useMemo(() => pieces.map(addressOf), [pieces]);
  const codes = useCodes(addresses);
  const names = useMemo(() => new Map(species.data?.map((s) => [s.code, s.name])), [species.data]);
  const ready = codes.length === pieces.length;
  return (
    <div className={classes.page}>
      <div className={classes.tools}>
        <h1>Shelf labels</h1>
        <Button
          leftSection={<IconPrinter size={17} />}
          disabled={pieces.length === 0 || !ready}
          onClick={() => window.print()}
        >
          Print {pieces.length === 1 ? '1 label' : `${pieces.length} labels`}
        </Button>
        <Link to="/rack">Back to the rack</Link>
        <span role="status">
          {ready
            ? 'Two across on A4 and Letter. The code opens the piece’s page at this address.'
            : `Drawing labels: ${codes.length} of ${pieces.length} …`}
        </span>
      </div>
      <ul className={classes.labels} aria-label="Labels">
        {codes.map((code, i) => (
          <Label
            key={nth(pieces, i).id}
            piece={nth(pieces, i)}
            code={code}
            species={names.get(nth(pieces, i).species) ?? nth(pieces, i).species}
          />
        ))}
      </ul>
    </div>
  );
}

const Label = memo(function Label({ piece, code, species }: { piece: Piece; code: Code; species: string }) {
  return (
    <li className={classes.label}>
      <div>
        <b>{piece.mark}</b>
        <p className={classes.species}>
          {species}
          {piece.count > 1 && `, ${piece.count} pieces`}
        </p>
        <p className={classes.size}>
          <Length mm={piece.length} bare /> × <Length mm={piece.width} bare /> × <Length mm={piece.thickness} />
        </p>
        <p>
          {[piece.shelf, piece.origin.of && `${piece.origin.kind} of ${piece.origin.of}`].filter(Boolean).join(' · ')}
        </p>
      </div>
      <svg
        className={classes.code}
        role="img"
        aria-label={`Code that opens ${addressOf(piece)}`}
        viewBox={`0 0 ${code.modules} ${code.modules}`}
        shapeRendering="crispEdges"
      >
        <rect width={code.modules} height={code.modules} fill="#fff" />
        <path d={code.path} fill="#000" />
      </svg>
    </li>
  );
});
