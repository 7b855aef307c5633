import { flatteningLoss } from '#core/cutting/flattening.ts';
import { orderOutcomes } from '#core/cutting/millingOrder.ts';
import { madeFor } from '#core/board/madeFor.ts';
import { allowancesFor } from '#core/board/allowances.ts';
import type { Form, Piece } from '#core/stock/piece.ts';
import type { Shop } from '#core/shop/shop.ts';
import type { ListedBoard } from '#contract/boards.ts';
import { Length } from '../../quantities/Length.tsx';
import classes from './PiecePlace.module.css';
import { FORBIDDEN_WORDS, ORDER_WORDS } from './words.ts';
import { stripsOf } from '#core/board/recipe.ts';

/** Drawings of form are this much exaggerated. */
const EXAGGERATION = 8;
const WIDTH = 150;
const HEIGHT = 54;

/** Bow, cup, crook and twist, each drawn exaggerated from its figure. */
export function FormFigures({ piece, form }: { piece: Piece; form: Form }) {
  const along = WIDTH / piece.length;
  const across = WIDTH / Math.max(piece.width, piece.farEnd?.width ?? 0);
  const rise = (mm: number, scale: number) => Math.min(HEIGHT - 18, mm * scale * EXAGGERATION);
  const arc = (lift: number) =>
    `M4 ${HEIGHT - 10}Q${WIDTH / 2 + 4} ${HEIGHT - 10 - 2 * lift} ${WIDTH + 4} ${HEIGHT - 10}`;
  const figures: [keyof Form, string, string, number][] = [
    ['bow', 'Bow', 'seen from the edge', rise(form.bow, along)],
    ['crook', 'Crook', 'seen from above', rise(form.crook, along)],
    ['cup', 'Cup', 'seen from the end', rise(form.cup, across)],
  ];
  return (
    <div className={classes.figures}>
      {figures.map(([key, name, seen, lift]) => (
        <figure key={key}>
          <svg
            width={WIDTH + 8}
            height={HEIGHT}
            role="img"
            aria-label={`${name}, ${seen}, ${EXAGGERATION} times exaggerated`}
          >
            <path d={`M4 ${HEIGHT - 10}H${WIDTH + 4}`} className={classes.true} />
            <path d={arc(lift)} className={classes.bent} />
          </svg>
          <figcaption>
            {name}{' '}
            <b>
              <Length mm={form[key]} />
            </b>{' '}
            <small>{seen}</small>
          </figcaption>
        </figure>
      ))}
      <figure>
        <svg
          width={WIDTH + 8}
          height={HEIGHT}
          role="img"
          aria-label={`Twist, both ends seen, ${EXAGGERATION} times exaggerated`}
        >
          <path d={`M30 ${HEIGHT - 10}H${WIDTH - 20}`} className={classes.true} />
          <path
            d={`M30 ${HEIGHT - 10}L${WIDTH - 20} ${HEIGHT - 10 - rise(form.twist, across)}`}
            className={classes.bent}
          />
        </svg>
        <figcaption>
          Twist{' '}
          <b>
            <Length mm={form.twist} />
          </b>{' '}
          <small>far end against marked end</small>
        </figcaption>
      </figure>
      <p className={classes.soft}>Drawn {EXAGGERATION} times exaggerated.</p>
    </div>
  );
}

/** What flattening leaves of the piece for the parts that boards ask for, by order of milling. */
export function OrderCosts({ piece, shop, boards }: { piece: Piece; shop: Shop; boards: readonly ListedBoard[] }) {
  const wanted = boards
    .filter((b) => stripsOf(b.board).some((s) => s.species === piece.species))
    .map((b) => {
      const { roughLength, glueThickness, ripExtra } = allowancesFor(b.board, shop, madeFor(b.board, b.facts));
      const widest = Math.max(
        ...stripsOf(b.board)
          .filter((s) => s.species === piece.species)
          .map((s) => s.width),
      );
      return {
        name: b.board.name,
        length: roughLength,
        width: b.board.construction === 'edge' ? glueThickness + ripExtra.edge : widest + ripExtra.face,
      };
    });
  const parts = [...wanted, ...(wanted.length === 0 ? [{ name: 'A common part', length: 429, width: 40 }] : [])].slice(
    0,
    4,
  );
  const thinnest = Math.min(piece.thickness, piece.farEnd?.thickness ?? piece.thickness);
  return (
    <table className={classes.costs}>
      <caption>
        Thickness left once flat, of <Length mm={thinnest} />
      </caption>
      <thead>
        <tr>
          <th>Part</th>
          {orderOutcomes(piece, { length: 429, width: 40 }, shop).map((o) => (
            <th key={o.order}>{ORDER_WORDS[o.order]}</th>
          ))}
        </tr>
      </thead>
      <tbody>
        {parts.map((part) => (
          <tr key={part.name}>
            <th scope="row">
              {part.name}
              <small>
                <Length mm={part.length} bare /> × <Length mm={part.width} />
              </small>
            </th>
            {orderOutcomes(piece, part, shop).map((o) => (
              <td key={o.order}>
                <b>
                  <Length mm={Math.max(0, thinnest - o.loss.total)} />
                </b>
                <small>
                  {o.forbidden ? (
                    FORBIDDEN_WORDS[o.forbidden]
                  ) : (
                    <>
                      loses <Length mm={o.loss.total} />
                    </>
                  )}
                </small>
              </td>
            ))}
          </tr>
        ))}
      </tbody>
      <tfoot>
        <tr>
          <td colSpan={4}>
            {piece.form ? (
              'From the figures measured on this piece.'
            ) : (
              <>
                Not measured yet: the shop&apos;s habit for its surface stands in (
                <Length mm={flatteningLoss(piece, { length: 400, width: 40 }, shop.habits).total} />
                ).
              </>
            )}
          </td>
        </tr>
      </tfoot>
    </table>
  );
}
