import { Button, Loader, Select } from '@mantine/core';
import { useElementSize } from '@mantine/hooks';
import { IconArrowBackUp, IconPlus, IconPrinter, IconSparkles } from '@tabler/icons-react';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { usableZones } from '#core/cutting/usable.ts';
import { EMPTY_SAW_BOOK, promisedToOthers } from '#core/saw/sawBook.ts';
import { defectKinds, USUAL_TREATMENT, type Defect, type DefectKind } from '#core/stock/defect.ts';
import { NO_BOARDS, trouble, useBoards, useRack, useSawBook, useShop, useSpecies } from '../../data/queries.ts';
import { fitScale, scaleWords } from '../../drawing/scale.ts';
import { stockBody } from '#core/bodies/stripBody.ts';
import { Wood } from '../../drawing/Wood.tsx';
import { Length } from '../../quantities/Length.tsx';
import { useShortcuts } from '../../shortcuts/Shortcuts.tsx';
import { DefectFields } from './DefectFields.tsx';
import { FaceEditor } from './FaceEditor.tsx';
import { FormFigures, OrderCosts } from './FormFigures.tsx';
import { PieceFacts } from './PieceFacts.tsx';
import classes from './PiecePlace.module.css';
import { usePieceEdits } from '../../data/recordEdits.ts';
import { LineNote } from '../../shell/LineNote.tsx';
import { DEFECT_WORDS } from './words.ts';

const STRAIGHT = { bow: 0, cup: 0, crook: 0, twist: 0 };

/** One piece of stock: both faces and an end to scale, what lies on them, its form and what that costs, and everything known about it. */
export function PiecePlace() {
  const { id = '' } = useParams();
  const rack = useRack();
  const species = useSpecies();
  const shop = useShop();
  const boards = useBoards();
  const book = useSawBook(NO_BOARDS);
  const edits = usePieceEdits(id);
  const { ref, width } = useElementSize();
  const [chosen, setChosen] = useState<string | null>(null);
  const [kind, setKind] = useState<DefectKind>('knot');
  useShortcuts('Piece', [{ keys: 'mod+z', does: 'Undo the last change of this piece', run: edits.undo }]);
  const problem = trouble(rack, species, shop);
  const piece = rack.data?.find((p) => p.piece.id === id)?.piece;
  if (problem)
    return (
      <p className={classes.page} role="alert">
        {problem.message} Cadenza keeps trying.
      </p>
    );
  if (!rack.data || !species.data || !shop.data)
    return (
      <div className={classes.page}>
        <Loader aria-label="Loading the piece" />
      </div>
    );
  if (!piece)
    return (
      <div className={classes.page}>
        <h1>This piece is not in the rack</h1>
        <p>It was cut, taken out, or never there.</p>
        <Button component={Link} to="/rack">
          The rack
        </Button>
      </div>
    );

  const wood = species.data.find((s) => s.code === piece.species);
  const end = Math.max(piece.thickness, piece.farEnd?.thickness ?? 0);
  const scale = fitScale([piece.length + 4, 1], [Math.max(280, width), 1e6], 1);
  const endScale = Math.min(1.6, 150 / Math.max(piece.width, piece.farEnd?.width ?? 0));
  const promises = promisedToOthers(book.data ?? EMPTY_SAW_BOOK, []).filter((r) => r.pieceId === id);
  const usable = usableZones(piece, shop.data.shop);
  const face = {
    piece,
    species: wood,
    shop: shop.data.shop,
    scale,
    kind,
    chosen,
    onChoose: setChosen,
    newId: () => nanoid(10),
    onChange: (edit: (d: Defect[]) => Defect[]) => edits.change((p) => ({ ...p, defects: edit(p.defects) })),
  };
  const middle = { x: piece.length / 2, y: piece.width / 2 };
  const addPlace = () => {
    const place = {
      id: nanoid(10),
      kind,
      face: 'up' as const,
      from: Math.round(middle.x - 20),
      across: Math.round(middle.y - 15),
      length: Math.min(40, 2 * middle.x),
      width: Math.min(30, 2 * middle.y),
      treatment: USUAL_TREATMENT[kind],
    };
    edits.change((p) => ({
      ...p,
      defects: [...p.defects, { ...place, from: Math.max(0, place.from), across: Math.max(0, place.across) }],
    }));
    setChosen(place.id);
  };

  return (
    <div className={classes.page}>
      <header>
        <h1>{piece.mark}</h1>
        <p>
          {wood?.name ?? piece.species}, <Length mm={piece.length} bare /> × <Length mm={piece.width} bare /> ×{' '}
          <Length mm={piece.thickness} />
          {piece.count > 1 && `, ${piece.count} of them`}
        </p>
        <LineNote state={edits.state} className={classes.soft} />
        <span className={classes.grow} />
        <Button
          variant="default"
          leftSection={<IconArrowBackUp size={16} />}
          disabled={!edits.canUndo}
          onClick={edits.undo}
        >
          Undo
        </Button>
        <Button
          variant="default"
          component={Link}
          to={`/propose?useUp=${piece.id}`}
          leftSection={<IconSparkles size={16} />}
        >
          Boards from it
        </Button>
        <Button
          variant="default"
          component={Link}
          to={`/rack/labels?pieces=${piece.id}`}
          leftSection={<IconPrinter size={16} />}
        >
          Label
        </Button>
        <Link to="/rack">Back to the rack</Link>
      </header>
      <div className={classes.columns}>
        <div className={classes.drawings} ref={ref} tabIndex={-1}>
          <div className={classes.tools}>
            <Select
              aria-label="What is drawn on the wood"
              w={150}
              allowDeselect={false}
              value={kind}
              onChange={(v) => setKind(v as DefectKind)}
              data={defectKinds.map((k) => ({ value: k, label: DEFECT_WORDS[k] }))}
            />
            <Button variant="default" leftSection={<IconPlus size={16} />} onClick={addPlace}>
              Put one on
            </Button>
            <span className={classes.soft}>
              or drag it out on the wood. Blue: the largest clear places. Faces at {scaleWords(scale)}.
            </span>
          </div>
          <h2>Upper face</h2>
          <FaceEditor {...face} face="up" />
          <h2>
            Lower face <small>turned over, marked end still left</small>
          </h2>
          <FaceEditor {...face} face="down" />
          <div className={classes.endAndForm}>
            <figure>
              <svg
                width={Math.max(piece.width, 1) * endScale + 4}
                height={end * endScale + 4}
                role="img"
                aria-label="Marked end"
              >
                <g transform="translate(2 2)">
                  <Wood x={0} y={0} scale={endScale} species={wood} body={stockBody(piece)} side="markedEnd" />
                  <rect
                    width={piece.width * endScale}
                    height={piece.thickness * endScale}
                    className={classes.outline}
                  />
                </g>
              </svg>
              <figcaption>Marked end, {scaleWords(endScale)}</figcaption>
            </figure>
            <FormFigures piece={piece} form={piece.form ?? STRAIGHT} />
          </div>
          <OrderCosts piece={piece} shop={shop.data.shop} boards={boards.data ?? []} />
        </div>
        <aside className={classes.rail}>
          {usable.length === 0 && (
            <p className={classes.gone} role="alert">
              Nothing clear is left of {piece.mark}: end trims, edges and what must be cut out take all of it. No strip
              will come from it until that changes.
            </p>
          )}
          {usable.length > 0 && Math.max(...usable.map((z) => z.to - z.from)) < shop.data.shop.habits.keepLength && (
            <p className={classes.promised}>The longest clear place is shorter than the length the shop keeps.</p>
          )}
          {shop.data.shop.planer && piece.thickness < shop.data.shop.planer.leastThickness && (
            <p className={classes.gone} role="alert">
              {piece.mark} is thinner than the planer takes (<Length mm={shop.data.shop.planer.leastThickness} />
              ): plane it on a carrier board, or sand it flat.
            </p>
          )}
          {promises.length > 0 && (
            <p className={classes.promised}>
              Promised:{' '}
              {promises.map((r, i) => (
                <span key={i}>
                  {i > 0 && ', '}
                  <Length mm={r.from} bare /> – <Length mm={r.to} />
                  {piece.count > 1 && ` of no. ${r.unit + 1}`}
                </span>
              ))}
            </p>
          )}
          <DefectFields piece={piece} chosen={chosen} onChoose={setChosen} onChange={face.onChange} />
          <PieceFacts piece={piece} species={species.data} currency={shop.data.shop.currency} onChange={edits.change} />
        </aside>
      </div>
    </div>
  );
}
