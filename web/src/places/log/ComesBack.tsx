import { useMemo } from 'react';
import { pitRun } from '#core/shop/grits.ts';
import { resandings, USUAL_SCARS_MM } from '#core/finish/resanding.ts';
import type { LogEntry } from '#core/log/entry.ts';
import { useShop } from '../../data/queries.ts';
import { Length } from '../../quantities/Length.tsx';

/** What can be done with a board that comes back: how thick it still is, with which papers, how often, and what goes over its finish. */
export function ComesBack({ entry }: { entry: LogEntry }) {
  const shop = useShop();
  const { board, reached, care } = entry;
  const told = useMemo(() => {
    if (!shop.data) return null;
    const grooves = board.worked.features.flatMap((f) => (f.kind === 'groove' && f.face === 'top' ? [f.depth] : []));
    const grits = pitRun(shop.data.shop, USUAL_SCARS_MM).steps.map((s) => s.grit);
    const of = (thickness: number, groove: number | null) => resandings(thickness, groove, grits);
    const whole = of(reached.thickness, null);
    const off = care.filter((c) => c.what === 'sanded').length * whole.each;
    const deepest = grooves.length > 0 ? Math.max(...grooves) - off : null;
    return { now: reached.thickness - off, ...of(reached.thickness - off, deepest) };
  }, [shop.data, board, reached, care]);
  if (!told) return null;
  const { now, each, grits, times, until } = told;
  return (
    <section>
      <h2>If it comes back</h2>
      <p>
        It is about <Length mm={now} /> thick now. Sanding scars out with {grits.join(', ')} takes about{' '}
        <Length mm={each} /> off a face:{' '}
        {times === 0
          ? `not any more, ${until === 'groove' ? 'its groove would hold nothing' : 'it would be too thin'}.`
          : `it can be done ${times === 1 ? 'once' : `${times} times`} until ${until === 'groove' ? 'its groove holds nothing' : 'it is too thin'}.`}{' '}
        Feet come off first. Over oil or wax goes oil or wax again; a finish that hardens is sanded through before it is
        put on anew.
      </p>
    </section>
  );
}
