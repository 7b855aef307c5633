import { Button, Checkbox } from '@mantine/core';
import type { SawBook, StripName } from '#core/saw/sawRecords.ts';
import { demandKey } from '#core/saw/demandKey.ts';
import { api } from '../../data/api.ts';
import { useSettledBoard } from '../../data/openBoard.tsx';
import { takeBook } from '../../data/queries.ts';
import { showProblem } from '../../shell/notices.tsx';
import classes from './cuts.module.css';
import { copyLetter, isLit } from './words.ts';

const WHEN = new Intl.DateTimeFormat(undefined, { dateStyle: 'medium', timeStyle: 'short' });

/** What is cut already: strips on the bench, strike out the ones that failed, take a cut back. */
export function DoneCuts({ lit, onLight }: { lit: string | null; onLight(key: string | null): void }) {
  const { book, id } = useSettledBoard();
  const mine = book.cuttings.filter((c) => c.boards.includes(id));
  if (mine.length === 0) return null;
  const tell = (work: Promise<SawBook>) => work.then((changed) => takeBook(id, changed), showProblem);
  return (
    <section aria-label="Cut already">
      <h3>After the saw</h3>
      <p className={classes.soft}>
        These strips lie on the bench. Strike out one that wandered, split or came out short: it is planned again, and
        nothing that is cut is touched.
      </p>
      {mine.map(({ id: cutting, version, cutAt, record }) => (
        <div key={cutting} className={classes.done}>
          <header>
            <h4>{record.piece.mark}</h4>
            <span className={classes.soft}>
              cut {WHEN.format(new Date(cutAt))}
              {record.leftovers.length > 0 && `; back in the rack: ${record.leftovers.map((l) => l.mark).join(', ')}`}
            </span>
            <Button size="compact-sm" variant="subtle" onClick={() => void tell(api.undoCutting(cutting))}>
              Take this cut back
            </Button>
          </header>
          <ul>
            {record.blanks
              .flatMap((b) => b.strips)
              .filter((s) => s.demand.board === id)
              .map(({ demand }) => {
                const name: StripName = {
                  board: demand.board,
                  stripId: demand.stripId,
                  copy: demand.copy,
                  spare: demand.spare,
                };
                const same = (f: StripName) => demandKey(f) === demandKey(name);
                const failed = record.failed.some(same);
                return (
                  <li
                    key={demandKey(name)}
                    data-lit={isLit(lit, demandKey(name)) || undefined}
                    onPointerEnter={() => onLight(demandKey(name))}
                    onPointerLeave={() => onLight(null)}
                  >
                    <Checkbox
                      checked={failed}
                      label={
                        <span
                          style={failed ? { textDecoration: 'line-through' } : undefined}
                        >{`Strip ${demand.strip}${demand.copy > 1 ? ` of board ${copyLetter(demand.copy)}` : ''}${demand.spare > 0 ? ' (spare)' : ''}${failed ? ' failed' : ''}`}</span>
                      }
                      onChange={() =>
                        void tell(
                          api.failStrips(
                            cutting,
                            version,
                            failed ? record.failed.filter((f) => !same(f)) : [...record.failed, name],
                          ),
                        )
                      }
                    />
                  </li>
                );
              })}
          </ul>
        </div>
      ))}
    </section>
  );
}
