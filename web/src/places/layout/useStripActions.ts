import { firstOf, lastOf, nth } from '#core/lists/there.ts';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import * as arrange from '#core/board/arrange.ts';
import type { Board } from '#core/board/board.ts';
import { useOpenBoard } from '../../data/openBoard.tsx';
import { useDisplay } from '../../quantities/display.tsx';
import { showProblem } from '../../shell/notices.tsx';
import { formatLength } from '#core/units/formatLength.ts';
import { EMPTY_HAND, heldIndices, inHandIndex, pickUp, type Hand, type PickUp } from './hand.ts';
import { offeredWidths, widestOffered, type ShelfSection } from './offers.ts';
import { GREATEST_STRIP_COUNT, type Strip, stripsOf, withStrips } from '#core/board/recipe.ts';
import { HAND_STEP } from '#core/units/length.ts';

/** Everything hands do with the strips, on what is held; each says what it did for those who cannot see it. */
export function useStripActions() {
  const { board, session, plan, input, numbersFrom = 0 } = useOpenBoard();
  const { display } = useDisplay();
  const [hand, setHand] = useState<Hand>(EMPTY_HAND);
  const [announcement, setAnnouncement] = useState('');
  const strips = stripsOf(board);
  const selected = inHandIndex(strips, hand.strip);
  const held = heldIndices(strips, hand);
  const newId = () => nanoid(10);

  const change = (edit: (strips: readonly Strip[]) => Strip[], say: string, mergeKey?: string): boolean => {
    const next = edit(stripsOf(session.snapshot().board));
    if (next.length > GREATEST_STRIP_COUNT) {
      showProblem(new Error(`A board holds at most ${GREATEST_STRIP_COUNT} strips; nothing was changed.`));
      return false;
    }
    session.edit((b: Board) => withStrips(b, next), mergeKey);
    setAnnouncement(say);
    return true;
  };
  const hold = (index: number, how: PickUp = 'only') =>
    setHand(pickUp(stripsOf(session.snapshot().board), hand, index, how));
  const named = held.length > 1 ? `${held.length} strips` : `Strip ${numbersFrom + selected + 1}`;
  const all = (flag: 'turned' | 'endForEnd' | 'rolled' | 'locked') => held.every((i) => nth(strips, i)[flag]);
  const flip = (flag: 'endForEnd' | 'rolled', say: string) => () => {
    change((s) => arrange.changeStrips(s, held, (strip) => ({ [flag]: !strip[flag] })), `${named} ${say}`);
  };

  const actions = {
    insert: (section: Pick<ShelfSection, 'species' | 'width'>, at: number) => {
      const strip: Strip = {
        id: newId(),
        species: section.species,
        width: section.width,
        endForEnd: strips[Math.max(0, at - 1)]?.endForEnd ?? false,
        turned: false,
        sideKept: false,
        rolled: false,
        locked: false,
        stack: null,
      };
      if (change((s) => arrange.insertStrip(s, at, strip), `Strip put in as number ${numbersFrom + at + 1}`))
        setHand({ strip: strip.id, also: [] });
    },
    move: (by: 1 | -1) => {
      const place = strips.slice(0, held[0]).filter((_, i) => !held.includes(i)).length;
      const first = held.every((h, n) => h === firstOf(held) + n);
      // Scattered strips come together first; then they move as one.
      const one = held.length === 1 ? arrange.placeBeyond(strips, firstOf(held), by) : place + by;
      const to = Math.max(0, Math.min(strips.length - held.length, first ? one : place));
      if (first && to === place)
        setAnnouncement(
          strips[firstOf(held) + by] && held.length === 1
            ? 'Only strips just like it lie on that side.'
            : by < 0
              ? 'Already at the start.'
              : 'Already at the end.',
        );
      else change((s) => arrange.moveStrips(s, held, to), `${named} moved to place ${to + 1}`);
    },
    swap: () => {
      const [one = selected, two = selected + 1] = held.length === 2 ? held : [];
      if (held.length > 2 || strips[two] === undefined)
        setAnnouncement('Hold two strips to swap them, or one that has another behind it.');
      else change((s) => arrange.swapPlaces(s, one, two), `Strips ${one + 1} and ${two + 1} swapped`);
    },
    repeat: () => {
      const ids = held.map(newId);
      let next = 0;
      if (
        change(
          (s) => arrange.repeatStrips(s, held, () => nth(ids, next++)),
          held.length > 1 ? `Motif of ${held.length} strips repeated` : `${named} duplicated`,
        )
      )
        setHand({ strip: firstOf(ids), also: ids.slice(1) });
    },
    repeatFull: () =>
      change(
        (s) => arrange.repeatUntil(s, held, plan.allowances.wantedPanelWidth, GREATEST_STRIP_COUNT, newId),
        'Motif repeated until the board is full',
      ),
    split: () => {
      if (nth(strips, selected).width < 2 * arrange.LEAST_STRIP_WIDTH)
        setAnnouncement('This strip is too narrow to be split.');
      else change((s) => arrange.splitStrip(s, selected, newId), `Strip ${selected + 1} split in two`);
    },
    join: () => {
      if (!arrange.canJoin(strips, held)) setAnnouncement('Hold neighbours of one species to join them.');
      else if (change((s) => arrange.joinStrips(s, held), `${held.length} strips joined`))
        setHand({ strip: nth(strips, firstOf(held)).id, also: [] });
    },
    mirror: () => change((s) => arrange.mirrorAbout(s, selected, newId), `Mirrored about strip ${selected + 1}`),
    mirrorHalf: () => change(arrange.mirrorFirstHalf, 'First half mirrored onto the second'),
    mirrorWhole: () => change((s) => arrange.mirrorWhole(s, newId), 'Whole board mirrored behind itself'),
    reverse: () =>
      change(
        (s) => arrange.reverseStrips(s, held),
        held.length > 1 ? `Order of ${held.length} strips reversed` : 'Order reversed',
      ),
    evenOut: () => {
      const wanted = plan.allowances.wantedPanelWidth;
      const { strips: evened, missing } = arrange.evenOut(stripsOf(session.snapshot().board), wanted, (strip) =>
        strip.locked || strip.stack !== null
          ? strip.width
          : Math.max(strip.width, widestOffered(plan.sections, strip, display)),
      );
      const size = formatLength(Math.abs(missing), display);
      const locked = evened.filter((s) => s.locked).length;
      const why =
        locked > 0
          ? ` ${locked} ${locked === 1 ? 'strip is' : 'strips are'} locked${missing > 0 ? ', and the rack gives the others no wider' : ''}.`
          : missing > 0
            ? ' The rack gives no wider strips in these species.'
            : '';
      const say =
        Math.abs(missing) < 0.01
          ? 'Widths evened out to the wanted width'
          : `Evened out as far as it goes: ${size} ${missing > 0 ? 'too narrow' : 'too wide'} still.${why}`;
      change(() => evened, say);
      if (Math.abs(missing) >= 0.01) showProblem(new Error(say));
    },
    turn: flip('endForEnd', 'turned end for end'),
    // From then on the maker's word counts, not the plan's.
    turnOver: () => {
      change(
        (s) =>
          arrange.changeStrips(s, held, (strip) => ({
            turned: !(plan.strips.find((p) => p.id === strip.id)?.turned ?? strip.turned),
            sideKept: true,
          })),
        `${named} turned over`,
      );
    },
    roll: flip('rolled', 'rolled a quarter turn'),
    lock: () =>
      change(
        (s) => arrange.changeStrips(s, held, { locked: !all('locked') }),
        `${named} ${all('locked') ? 'unlocked' : 'locked'}`,
      ),
    lockSpecies: () => {
      const mine = strips.flatMap((s, i) => (s.species === nth(strips, selected).species ? [i] : []));
      const locked = !mine.every((i) => nth(strips, i).locked);
      const name = input.species.find((s) => s.code === nth(strips, selected).species)?.name ?? '';
      change((s) => arrange.changeStrips(s, mine, { locked }), `All ${name} ${locked ? 'locked' : 'unlocked'}`);
    },
    holdSpecies: () =>
      setHand({
        strip: nth(strips, selected).id,
        also: strips.filter((s) => s.species === nth(strips, selected).species).map((s) => s.id),
      }),
    holdAll: () => setHand({ strip: nth(strips, selected).id, also: strips.map((s) => s.id) }),
    remove: () => {
      const next = strips[lastOf(held) + 1] ?? strips.findLast((_, i) => i < firstOf(held));
      if (change((s) => arrange.removeStrips(s, held), `${named} removed`))
        setHand({ strip: next?.id ?? null, also: [] });
    },
    setWidth: (mm: number) => change((s) => arrange.changeStrips(s, held, { width: mm }), 'Width changed'),
    setSpecies: (species: string) => {
      // An accent has the woods of its bits.
      const own = held.filter((i) => nth(strips, i).stack === null);
      if (own.length === 0) setAnnouncement('An accent has the woods of its bits: change them where it is stacked.');
      else change((s) => arrange.changeStrips(s, own, { species }), 'Species changed');
    },
    stepWidth: (steps: number) => {
      const strip = strips[selected];
      if (strip)
        change(
          (s) => arrange.moveJoint(s, selected, strip.width + steps * HAND_STEP[display.system], false),
          'Width changed',
          `width-${strip.id}`,
        );
    },
    stepOffered: (direction: 1 | -1) => {
      const strip = strips[selected];
      if (!strip) return;
      const offered = offeredWidths(plan.sections, strip.species, display).map((o) => o.width);
      const next =
        direction > 0 ? offered.find((w) => w > strip.width + 1e-6) : offered.findLast((w) => w < strip.width - 1e-6);
      if (next === undefined) setAnnouncement('The rack offers no further width in this species.');
      else change((s) => arrange.changeStrip(s, selected, { width: next }), 'Width set to what the rack gives');
    },
  };
  return { actions, selected, held, hold, hand, announcement };
}

export type StripActions = ReturnType<typeof useStripActions>['actions'];
