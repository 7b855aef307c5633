import { firstOf, lastOf, nth } from '../lists/there.ts';
import { TOOL_NAMES } from '../shop/tools.ts';
import { atLeast, capitalised, length, say, type Phrase } from '../units/phrase.ts';
import type { InstructionOf, Rip, Thing } from './instruction.ts';
import { listNumbers, stripList } from './numberList.ts';
import type { PartChange, Setting } from './operation.ts';

/** What instructions of the mill say to a person. Each function reads its instructions and nothing else. */

export const joined = (...parts: Phrase[]): Phrase => parts.flat();
const labels = (things: readonly Thing[]): string => things.map((t) => t.label).join(', ');
/** Names alone where they are few; their number where nobody would read them all. */
const MOST_NAMES = 8;
const named = (things: readonly Thing[]): string =>
  things.length <= MOST_NAMES
    ? labels(things)
    : `${labels(things.slice(0, 3))} … ${lastOf(things).label}, ${things.length} in all`;

/** Where the first cut of a piece goes and what comes after it; neighbours of one length are counted. */
export function crosscutLines({ part, end, trim, cuts, saw }: InstructionOf<'crosscut'>): Phrase[] {
  if (saw.tool === 'hands')
    return [say`${part.label}: as long as it must be, not cut; it is ${firstOf(cuts).part.label}`];
  const runs: { gap: number; length: number; parts: Thing[] }[] = [];
  for (const cut of cuts) {
    const run = runs.at(-1);
    if (run && cut.gap === 0 && run.length === cut.length) run.parts.push(cut.part);
    else runs.push({ gap: cut.gap, length: cut.length, parts: [cut.part] });
  }
  const start = trim > 0 ? say`trim ${length(trim)} off the ${end} end, then ` : say`from the ${end} end `;
  const told = runs.map((run) =>
    joined(
      run.gap > 0 ? say`leave ${length(run.gap)}, then ` : say``,
      say`${run.parts.length} × ${atLeast(run.length)} (${labels(run.parts)})`,
    ),
  );
  return [joined(say`${part.label}: `, start, ...told.flatMap((t, i) => (i === 0 ? [t] : [say`, `, t])))];
}

export function splitLines(instructions: readonly InstructionOf<'split'>[], limit: number): Phrase[] {
  const why = {
    metal: say`clear of the metal, which stays in the waste`,
    tooWide: Number.isFinite(limit) ? say`narrower than the planer` : say``,
    ripFirst: say`strip by strip, a little fat`,
  };
  return [
    say`${TOOL_NAMES[firstOf(instructions).saw.tool]}, along a pencilled line, measured from the near edge as it was in the rack`,
    ...instructions.map((i) =>
      joined(
        say`${i.part.label} ${why[i.why]}: `,
        ...i.parts.flatMap((p, k) => [
          k > 0 ? say`; ` : say``,
          say`${p.part.label} from ${length(p.from)} to ${length(p.to)}`,
        ]),
      ),
    ),
  ];
}

export function flattenLines(instructions: readonly InstructionOf<'flatten'>[], way: string): Phrase[] {
  const { tool } = firstOf(instructions);
  return [
    tool === 'planer'
      ? say`${way}: the hollow face down first, then the other face at the settings above, thickest pieces first; turn the piece over between passes, the last pass light`
      : say`${way}: one face flat, checked with a straight edge and two battens for twist; then the other parallel to it, a line scribed round all edges at the thickness above`,
    say`Mark the flat face of each piece as it comes off`,
  ];
}

export function thicknessSettings(
  instructions: readonly (InstructionOf<'flatten'> | InstructionOf<'thickness'>)[],
): Setting[] {
  const set = instructions.filter((i) => i.tool === 'planer' || i.tool === 'drumSander');
  return [
    ...new Map(
      set.map((i): [string, Setting] => [`${i.tool}/${i.to}`, { label: TOOL_NAMES[i.tool], value: atLeast(i.to) }]),
    ).values(),
  ];
}

/** Before and after, a line a job. */
export function partChanges(
  instructions: readonly (InstructionOf<'flatten'> | InstructionOf<'thickness'>)[],
): PartChange[] {
  return instructions.map((i) => ({
    part:
      i.do === 'flatten'
        ? named(i.parts)
        : `${listNumbers(i.strips)}${i.parts.length > new Set(i.strips).size ? ` × ${i.parts.length}` : ''}`,
    dimension: 'thickness',
    before: i.from,
    after: i.to,
    passes: i.passes === 0 ? null : i.passes,
  }));
}

export function straightenLines(
  instructions: readonly InstructionOf<'straighten'>[],
  school: { name: string },
  habit: { name: string } | null,
): Phrase[] {
  return [
    ...(habit ? [say`The habit is: ${habit.name.toLowerCase()}. It does not serve here`] : []),
    say`${school.name}. The near edge, square to the flat face; mark it`,
    ...instructions.map((i) =>
      SAWS.has(i.tool)
        ? say`${named(i.parts)}: ${length(i.by)} sawn off, the straight far edge as the guide`
        : say`${named(i.parts)}: take off ${length(i.by)}`,
    ),
  ];
}

/** Tools that straighten an edge parallel to another. */
const SAWS: ReadonlySet<string> = new Set(['tableSaw', 'circularSaw', 'handSaw']);

/** Parts that are ripped alike, for the same strips, are told together. */
export function ripLines(
  instructions: readonly InstructionOf<'rip'>[],
  { relative, rest }: { relative: boolean; rest: boolean },
): Phrase[] {
  const alike = new Map<string, { parts: Thing[]; strips: number[][]; of: InstructionOf<'rip'> }>();
  for (const i of instructions) {
    // What gives other strips is another line: nobody should have to guess which.
    const key = JSON.stringify([
      i.guide,
      i.saw,
      i.parallel,
      i.cuts.map((c) => [c.width, c.skip]),
      [...new Set(i.cuts.flatMap((c) => c.strips))].sort(),
    ]);
    const entry = alike.get(key) ?? { parts: [], strips: i.cuts.map(() => []), of: i };
    entry.parts.push(...i.parts);
    i.cuts.forEach((c, k) => nth(entry.strips, k).push(...c.strips));
    alike.set(key, entry);
  }
  const entries = [...alike.values()];
  const guides = new Set(entries.map((e) => e.of.guide));
  return [
    ...entries.map(({ parts, strips, of }) =>
      joined(
        say`${named(parts)}: `,
        of.saw.tool === 'hands'
          ? say`as wide as it must be, not ripped: ${stripList(strips.flat())}`
          : ripWords(of, strips),
      ),
    ),
    ...(entries.some((e) => e.of.cuts.some((c) => c.skip > 0))
      ? [say`Waste is told with the kerf in it: what the blade takes and what falls`]
      : []),
    ...(guides.has('stop')
      ? [
          say`Thin strips: the wide side of the part along the fence, the straight edge outward against a stop before the blade, as far from the blade as the setting says; the strip falls free, the fence follows for the next`,
        ]
      : []),
    ...(guides.has('carrier')
      ? [say`Too narrow for any fence: stuck on a carrier board with hold-downs, the carrier along the fence`]
      : []),
    ...(relative
      ? [say`Set it once; for a repeat, lay a finished strip against the blade and bring the fence to it`]
      : []),
    ...(rest ? [say`Let them lie on stickers overnight: what wants to spring, springs now`] : []),
  ];
}

function ripWords({ cuts, parallel, saw }: InstructionOf<'rip'>, strips: readonly number[][]): Phrase {
  const runs: { skip: number; width: number; count: number; strips: number[] }[] = [];
  cuts.forEach((cut: Rip, k) => {
    const run = runs.at(-1);
    if (run && cut.skip === 0 && run.width === cut.width) {
      run.count += 1;
      run.strips.push(...nth(strips, k));
    } else runs.push({ skip: cut.skip, width: cut.width, count: 1, strips: [...nth(strips, k)] });
  });
  const told = runs.map((r) =>
    joined(
      r.skip > 0 ? say`${length(r.skip)} of waste off, ` : say``,
      say`${r.count} × ${atLeast(r.width)} for ${stripList(r.strips)}`,
    ),
  );
  return joined(
    parallel === null
      ? say`from the straight edge `
      : say`first parallel at ${atLeast(parallel)}, then from the straight edge `,
    ...told.flatMap((t, i) => (i === 0 ? [t] : [say`, then `, t])),
    saw.tool === 'bandSaw' ? say` on the band saw` : say``,
  );
}

export function remillLines(instructions: readonly InstructionOf<'remill'>[]): Phrase[] {
  return [
    say`One edge straight again, then the other parallel: ${[...new Set(instructions.map((i) => TOOL_NAMES[i.tool].toLowerCase()))].join(', ')}`,
  ];
}

export function resawLines(instructions: readonly InstructionOf<'resaw'>[]): Phrase[] {
  const { guide, clean } = firstOf(instructions);
  const alike = new Map<string, { of: InstructionOf<'resaw'>; parts: Thing[]; strips: number[] }>();
  for (const i of instructions) {
    const key = JSON.stringify([i.from, i.layers.map((l) => [l.setting, l.strip]), i.rest]);
    const entry = alike.get(key) ?? { of: i, parts: [], strips: [] };
    entry.parts.push(i.part);
    entry.strips.push(...i.layers.map((l) => l.strip));
    alike.set(key, entry);
  }
  return [
    guide === 'stop'
      ? say`On edge against a tall carrier board along the fence, a stop on the other side as far from the blade as the setting says: the thin strip falls free and nothing thin runs between blade and fence`
      : say`On edge, the planed face against the fence; clean the sawn face of the rest before the next cut`,
    ...[...alike.values()].map(({ of, parts, strips }) =>
      joined(
        say`${capitalised(say`${named(parts)}`)}: ${atLeast(of.from)} into ${of.layers.length} ${of.layers.length === 1 ? 'layer' : 'layers'} for ${stripList(strips)}, ${length(clean)} to clean each sawn face`,
        of.rest > 0
          ? say`; ${length(of.rest)} is left over`
          : say`; the last is what is left, ${length(lastOf(of.layers).setting)}`,
      ),
    ),
  ];
}

export function jointLines(
  instructions: readonly InstructionOf<'joint'>[],
  marks: { name: string; why: string },
): Phrase[] {
  return [
    ...instructions.map(
      (i) =>
        say`${capitalised(stripList(i.strips))}: ${length(i.by)} off each edge, to ${atLeast(i.width)}, ${TOOL_NAMES[i.tool].toLowerCase()}`,
    ),
    say`${marks.name}: ${marks.why} The marks are on the marking drawing`,
  ];
}
