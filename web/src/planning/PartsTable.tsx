import { firstOf } from '#core/lists/there.ts';
import { Table } from '@mantine/core';
import { listNumbers } from '#core/steps/numberList.ts';
import { cutList, type PlannedStrip } from '#core/bodies/strips.ts';
import { useSettledBoard } from '../data/openBoard.tsx';
import { Length } from '../quantities/Length.tsx';
import { Scrolled } from '../shell/Scrolled.tsx';
import classes from './PartsTable.module.css';

/** The cut list: each kind of strip with its sizes off the saw and ready for glue, and the pieces it comes from. */
const METHOD_WORDS = {
  'first-fit':
    'Pieces are chosen by first fit: offcuts before planks, the first that gives the strip. Cuts finds better ones and proves how good they are.',
  improved: 'Pieces are chosen for the least value of wood; Cuts says how good the choice is. Nothing is promised yet.',
  kept: 'This wood is promised to the board.',
};

export function PartsTable() {
  const { plan, input } = useSettledBoard();
  const { cutting, strips } = plan;
  const kept = cutting.leftovers.filter((l) => l.kept && !l.side);
  const markOf = (id: string) => input.rack.find((p) => p.id === id)?.mark ?? '?';
  return (
    <>
      <Scrolled name="Cut list">
        <Table className={classes.table} verticalSpacing={4} horizontalSpacing={8}>
          <caption className={classes.caption}>Cut list. Sizes as length × width in the panel × thickness.</caption>
          <thead>
            <tr>
              <th>Strips</th>
              <th>Species</th>
              <th>Count</th>
              <th>Rough</th>
              <th>Ready for glue</th>
              <th>From</th>
            </tr>
          </thead>
          <tbody>
            {cutList(strips, plan.allowances, cutting).map(({ strips: alike, marks, length, count, spares }) => {
              const { rough, milled, species, stack: id } = firstOf(alike);
              const stack = plan.stacks.find((s) => s.stack.operation.id === id)?.stack;
              return (
                <tr key={`${firstOf(alike).id} ${length}`}>
                  <td>{listNumbers(alike.map((s) => s.number))}</td>
                  <td>{stack ? 'Accent of bits' : (input.species.find((s) => s.code === species)?.name ?? species)}</td>
                  <td>
                    {count}
                    {spares > 0 && ` + ${spares} spare`}
                  </td>
                  <td>{stack ? 'resawn' : <SizeText size={{ ...rough, length }} />}</td>
                  <td>
                    <SizeText size={{ ...milled, length }} />
                  </td>
                  <td>
                    {stack ? (
                      `bits of ${listNumbers(stack.sticks.filter((s) => s.count > 0).map((s) => s.number))}`
                    ) : marks.length > 0 ? (
                      marks.join(', ')
                    ) : (
                      <b className={classes.missing}>missing</b>
                    )}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </Table>
      </Scrolled>
      <p className={classes.note}>
        {METHOD_WORDS[plan.cutting.method]}
        {kept.length > 0 && (
          <>
            {' '}
            Left in length:{' '}
            {kept.map((l, i) => (
              <span key={`${l.pieceId}/${l.unit}/${l.from}`}>
                {i > 0 && ', '}
                {markOf(l.pieceId)} <Length mm={l.length} />
              </span>
            ))}
            .
          </>
        )}
      </p>
    </>
  );
}

function SizeText({ size }: { size: PlannedStrip['rough'] }) {
  return (
    <>
      <Length mm={size.length} rounding="up" bare /> × <Length mm={size.width} rounding="up" bare /> ×{' '}
      <Length mm={size.thickness} rounding="up" bare />
    </>
  );
}
