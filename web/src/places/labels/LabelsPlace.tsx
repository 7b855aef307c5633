import { Button } from '@mantine/core';
import { IconPrinter } from '@tabler/icons-react';
import QRCode from 'qrcode';
import { useEffect, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import type { Piece } from '#core/stock/piece.ts';
import { useRack, useSpecies } from '../../data/queries.ts';
import { Length } from '../../quantities/Length.tsx';
import classes from './LabelsPlace.module.css';

/** Shelf labels to print: the mark to be read from across the shop, sizes, and a code that opens the piece's page. `?pieces=` picks some. */
export function LabelsPlace() {
  const rack = useRack();
  const species = useSpecies();
  const [params] = useSearchParams();
  const wanted = params.get('pieces')?.split(',');
  const pieces = (rack.data ?? []).map((p) => p.piece).filter((p) => !wanted || wanted.includes(p.id));
  return (
    <div className={classes.page}>
      <div className={classes.tools}>
        <h1>Shelf labels</h1>
        <Button leftSection={<IconPrinter size={17} />} disabled={pieces.length === 0} onClick={() => window.print()}>Print {pieces.length === 1 ? '1 label' : `${pieces.length} labels`}</Button>
        <Link to="/rack">Back to the rack</Link>
        <span>Two across on A4 and Letter. The code opens the piece&apos;s page at this address.</span>
      </div>
      <ul className={classes.labels} aria-label="Labels">
        {pieces.map((piece) => <Label key={piece.id} piece={piece} species={species.data?.find((s) => s.code === piece.species)?.name ?? piece.species} />)}
      </ul>
    </div>
  );
}

function Label({ piece, species }: { piece: Piece; species: string }) {
  const [code, setCode] = useState('');
  const address = `${window.location.origin}/rack/${piece.id}`;
  useEffect(() => {
    let current = true;
    void QRCode.toString(address, { type: 'svg', margin: 0, errorCorrectionLevel: 'M' }).then((svg) => current && setCode(svg));
    return () => {
      current = false;
    };
  }, [address]);
  return (
    <li className={classes.label}>
      <div>
        <b>{piece.mark}</b>
        <p className={classes.species}>{species}{piece.count > 1 && `, ${piece.count} pieces`}</p>
        <p className={classes.size}><Length mm={piece.length} bare /> × <Length mm={piece.width} bare /> × <Length mm={piece.thickness} /></p>
        <p>{[piece.shelf, piece.origin.of && `${piece.origin.kind} of ${piece.origin.of}`].filter(Boolean).join(' · ')}</p>
      </div>
      <img className={classes.code} alt={`Code that opens ${address}`} src={code ? `data:image/svg+xml;utf8,${encodeURIComponent(code)}` : undefined} />
    </li>
  );
}
