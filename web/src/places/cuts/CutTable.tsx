import type { CutSheet } from '#core/cutting/cutSheet.ts';
import { demandKey } from '#core/saw/demandKey.ts';
import { Length } from '../../quantities/Length.tsx';
import classes from './cuts.module.css';
import { copyLetter, isLit } from './words.ts';

interface CutTableProps {
  sheets: readonly CutSheet[];
  lit: string | null;
  onLight(key: string | null): void;
  nameOf(board: string): string;
  several: boolean;
}

/** The same cuts as a table, for those who prefer it: a line for every strip in cutting order. */
export function CutTable({ sheets, lit, onLight, nameOf, several }: CutTableProps) {
  return (
    <table className={classes.table} aria-label="Cut list">
      <thead>
        <tr>
          <th>Piece</th>
          <th>Crosscut from – to</th>
          <th>Rip from – to</th>
          <th>Strip</th>
          <th>Flat at</th>
          <th>Then</th>
        </tr>
      </thead>
      <tbody>
        {sheets.flatMap((sheet) =>
          sheet.blanks.flatMap(({ blank, rips }) =>
            rips.flatMap((rip) =>
              rip.strips.map((strip) => {
                const key = demandKey(strip.demand);
                return (
                  <tr
                    key={key}
                    data-lit={isLit(lit, key) || undefined}
                    onPointerEnter={() => onLight(key)}
                    onPointerLeave={() => onLight(null)}
                  >
                    <td>
                      {sheet.piece.mark}
                      {sheet.piece.count > 1 && ` no. ${sheet.unit + 1}`}, blank {blank.number}
                    </td>
                    <td>
                      <Length mm={blank.from} bare /> – <Length mm={blank.from + blank.length} />
                    </td>
                    <td>
                      <Length mm={rip.from} bare /> – <Length mm={rip.to} />
                    </td>
                    <td>
                      {several && `${nameOf(strip.demand.board)}, `}
                      {strip.demand.strip}
                      {strip.demand.spare > 0
                        ? ' (spare)'
                        : strip.demand.copy > 1 && `, board ${copyLetter(strip.demand.copy)}`}
                    </td>
                    <td>
                      <Length mm={strip.planed} />
                    </td>
                    <td>
                      {strip.layers > 1 ? (
                        <>
                          resaw, layer {strip.layer} of {strip.layers}, <Length mm={strip.way.thickness} />
                        </>
                      ) : strip.planed > strip.way.thickness + 0.05 ? (
                        <>
                          plane to <Length mm={strip.way.thickness} />
                        </>
                      ) : (
                        'ready'
                      )}
                    </td>
                  </tr>
                );
              }),
            ),
          ),
        )}
      </tbody>
    </table>
  );
}
