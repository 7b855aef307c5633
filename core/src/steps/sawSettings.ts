import type { ToolId } from '../shop/tools.ts';
import type { Rounding } from '../units/formatLength.ts';
import type { Guide, Instruction, InstructionOf, SawUse } from './instruction.ts';
import type { Operation, Setting } from './operation.ts';

/** Equal settings of one saw: what is cut at it without setting anything anew. */
export interface SawSetting {
  /** What the setting is called on the saw that is there. */
  label: string;
  tool: ToolId;
  value: { mm: number; rounding: Rounding };
  /** The parts it is cut from or to, and how often. */
  parts: { label: string; count: number }[];
}

const GUIDES: Readonly<Record<Guide, string>> = {
  fence: 'Fence',
  stop: 'Stop beside the blade',
  guide: 'Guide',
  line: 'Line',
  carrier: 'Carrier',
};
const BAND_FENCE = 'Band saw fence';
const STOPS: Partial<Record<ToolId, string>> = { mitreSaw: 'Stop', sled: 'Stop' };
const SAWN = ['crosscut', 'rip', 'resaw'] as const;

const labelOf = {
  /** A stop, or a pencil mark. */
  crosscut: ({ saw }: InstructionOf<'crosscut'>) => STOPS[saw.tool] ?? 'Mark',
  rip: ({ saw, guide }: InstructionOf<'rip'>) => (saw.tool === 'bandSaw' ? BAND_FENCE : GUIDES[guide]),
  /** Layers on a table saw fall free beside a stop outside the blade. */
  resaw: ({ saw }: InstructionOf<'resaw'>) => (saw.tool === 'bandSaw' ? BAND_FENCE : 'Stop from the blade'),
};

/** The settings of one step. */
export function settingsOf(instructions: readonly Instruction[]): Setting[] {
  return sawSettings([{ instructions: [...instructions] }]).map(({ label, value }) => ({ label, value }));
}

/** Every setting of the saws in a board's steps, read off their instructions; in the order of the steps, largest first. */
export function sawSettings(operations: readonly Pick<Operation, 'instructions'>[]): SawSetting[] {
  const settings = new Map<string, SawSetting>();
  const counts = new Map<string, { label: string; count: number }>();
  const add = (label: string, { tool }: SawUse, mm: number, part: string) => {
    const key = `${label}/${tool}/${mm.toFixed(4)}`;
    const setting = settings.get(key) ?? { label, tool, value: { mm, rounding: 'up' as const }, parts: [] };
    settings.set(key, setting);
    const known = counts.get(`${key} ${part}`);
    if (known) {
      known.count += 1;
      return;
    }
    const first = { label: part, count: 1 };
    counts.set(`${key} ${part}`, first);
    setting.parts.push(first);
  };
  const instructions = operations.flatMap((o) => o.instructions);
  for (const kind of SAWN) for (const i of instructions.filter((one) => one.do === kind)) addSettings(i, add);
  const order = [...settings.values()];
  // Settings of one saw stay together, in the order their saw is first used.
  const group = (s: SawSetting) => order.findIndex((o) => o.label === s.label && o.tool === s.tool);
  return [...order].sort((a, b) => group(a) - group(b) || b.value.mm - a.value.mm);
}

function addSettings(i: Instruction, add: (label: string, saw: SawUse, mm: number, part: string) => void): void {
  if ('saw' in i && i.saw.tool === 'hands') return;
  if (i.do === 'crosscut') for (const cut of i.cuts) add(labelOf.crosscut(i), i.saw, cut.length, i.part.label);
  if (i.do === 'rip')
    for (const part of i.parts) for (const cut of i.cuts) add(labelOf.rip(i), i.saw, cut.width, part.label);
  if (i.do === 'resaw')
    for (const layer of i.layers.slice(0, i.rest > 0 ? undefined : -1))
      add(labelOf.resaw(i), i.saw, layer.setting, i.part.label);
}
