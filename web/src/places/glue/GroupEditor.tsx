import { firstOf, nth } from '#core/lists/there.ts';
import { Button } from '@mantine/core';
import { useSettledBoard } from '../../data/openBoard.tsx';
import { useDisplay } from '../../quantities/display.tsx';
import { formatLength } from '#core/units/formatLength.ts';
import classes from './GroupEditor.module.css';
import { stripsOf } from '#core/board/recipe.ts';

/** The first groups as the strips lie: the joint between two strips is either glued in a first group or left for later. A press on a joint changes that. */
export function GroupEditor() {
  const { board, plan, input, session } = useSettledBoard();
  const { display } = useDisplay();
  const first = plan.gluing.glueUps.filter((g) => g.level === 1);
  // Strips in no first group stand alone.
  const groupOf = (n: number) => first.find((g) => n >= g.firstStrip && n <= g.lastStrip)?.id ?? `alone ${n}`;
  const sizes = () => {
    const list: number[] = [];
    stripsOf(board).forEach((_, i) => {
      if (i > 0 && groupOf(i + 1) === groupOf(i)) list[list.length - 1] = nth(list, list.length - 1) + 1;
      else list.push(1);
    });
    return list;
  };
  const toggle = (joint: number) => {
    const bounds = new Set<number>();
    sizes().reduce((at, s) => {
      bounds.add(at + s);
      return at + s;
    }, 0);
    if (bounds.has(joint)) bounds.delete(joint);
    else bounds.add(joint);
    const ends = [...bounds]
      .filter((b) => b < stripsOf(board).length)
      .sort((a, b) => a - b)
      .concat(stripsOf(board).length);
    const groups = ends.map((end, i) => end - (ends[i - 1] ?? 0));
    session.edit((b) => ({ ...b, gluing: { ...b.gluing, groups } }));
  };
  const widths = plan.panelWidth;
  return (
    <div>
      <div
        className={classes.row}
        role="group"
        aria-label="Strips and their joints: glued together first, or joined later"
      >
        {stripsOf(board).map((strip, i) => {
          const species = input.species.find((s) => s.code === strip.species);
          const together = i > 0 && groupOf(i + 1) === groupOf(i);
          return (
            <span
              key={strip.id}
              className={classes.cell}
              style={{ flexGrow: Math.max(strip.width / widths, 0.01) * 100 }}
            >
              {i > 0 && (
                <button
                  type="button"
                  className={classes.joint}
                  aria-pressed={together}
                  onClick={() => toggle(i)}
                  aria-label={`Joint between strips ${i} and ${i + 1}: ${together ? 'glued in a group' : 'joined later'}`}
                  title={
                    together
                      ? 'Glued in a group; press to leave it for later'
                      : 'Joined later; press to glue it in a group'
                  }
                />
              )}
              <span
                className={classes.strip}
                style={{ background: species?.colour ?? 'var(--line)' }}
                title={`Strip ${i + 1}, ${formatLength(strip.width, display)}`}
              >
                {stripsOf(board).length <= 40 && <b>{i + 1}</b>}
              </span>
            </span>
          );
        })}
      </div>
      <p className={classes.note}>
        {plan.gluing.byHand ? (
          <>
            {first.length === 1 && firstOf(first).parts === stripsOf(board).length
              ? 'Your own way: all strips in one glue-up.'
              : 'Your own groups.'}{' '}
            <Button
              size="compact-xs"
              variant="default"
              onClick={() => session.edit((b) => ({ ...b, gluing: { ...b.gluing, groups: null } }))}
            >
              Let Cadenza choose
            </Button>
          </>
        ) : (
          'Chosen for the fewest hours in clamps. Press a joint to group otherwise.'
        )}
      </p>
    </div>
  );
}
