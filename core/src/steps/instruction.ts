import type { FinishKind } from '../shop/finishes.ts';
import type { Cut } from '../features/edgeCuts.ts';
import type { FrameSide } from '../board/frame.ts';
import type { Turn } from '../board/recipe.ts';
import type { ToolId } from '../shop/tools.ts';

/** A saw as it is used for one cut. */
export interface SawUse {
  tool: ToolId;
  /** Wood the blade turns to dust, mm. */
  kerf: number;
}

/** A thing on the bench: its id for good, and what is pencilled on it. */
export interface Thing {
  id: string;
  label: string;
}

/** A face that is made flat, mm: `removal` is what goes off both faces together. */
export interface Face {
  length: number;
  width: number;
  removal: number;
  /** Side hardness of the hardest wood in it, N; null where it is not known. */
  hardness: number | null;
}

/** All faces and edges of all boards together, m², and how wide a board is, mm. */
export interface SandedArea {
  squareMetres: number;
  width: number;
}

/** A part sawn out of what is left of a piece of stock, mm from its marked end and its near edge. */
export interface PlugWood {
  part: Thing;
  from: number;
  length: number;
  across: number;
  width: number;
  thickness: number;
}

/** What a rip is guided by: the part runs along a fence, falls free beside a stop outside the blade, or the saw runs along a guide or a line. */
export type Guide = 'fence' | 'stop' | 'guide' | 'line' | 'carrier';

/**
 * One thing that is done, told so that it can be done with eyes shut: ids of things and tools, sizes in mm. Sentences, settings, lists of parts and times are
 * read off instructions; no figure stands in a sentence that is not in one. Places along a piece are measured from the end that is named, places across from
 * the near edge as it was in the rack.
 */
export type Instruction =
  /** Lengths off a piece of stock, in order from one end. `at` is where the part begins, `trim` what falls off before the first. */
  | {
      do: 'crosscut';
      part: Thing;
      end: 'marked' | 'far';
      trim: number;
      saw: SawUse;
      cuts: { part: Thing; at: number; length: number; gap: number }[];
    }
  /** A rough part sawn apart along its length before anything is flat; what lies between the new parts is waste. */
  | {
      do: 'split';
      part: Thing;
      saw: SawUse;
      why: 'metal' | 'tooWide' | 'ripFirst';
      parts: { part: Thing; from: number; to: number }[];
    }
  /** One face flat, the other parallel to it. `first` is how the first face gets flat. */
  | {
      do: 'flatten';
      parts: Thing[];
      faces: Face[];
      from: number;
      to: number;
      passes: number | null;
      tool: ToolId;
      first: 'jointer' | 'sled' | 'asItIs';
    }
  /** A straight edge, square to the flat face. */
  | { do: 'straighten'; parts: Thing[]; by: number; tool: ToolId }
  /** Widths off a part, from its straight edge on. `parallel` is how wide it is made first, where the far edge must be straight and is not. */
  | { do: 'rip'; parts: Thing[]; saw: SawUse; guide: Guide; parallel: number | null; cuts: Rip[] }
  /** Nothing but time. */
  | { do: 'wait'; parts: Thing[]; minutes: number; for: string }
  /** So much wider than they will be. */
  | { do: 'fat'; by: number }
  /** A part that lay ripped is made straight again and brought to width. */
  | { do: 'remill'; parts: Thing[]; from: number; to: number; tool: ToolId }
  /** A ripping sawn into layers through its thickness, `height` above the table, each `setting` thick off the saw; `rest` is what is left over, 0 where the last layer is the rest. */
  | {
      do: 'resaw';
      part: Thing;
      saw: SawUse;
      guide: Guide;
      height: number;
      from: number;
      layers: { part: Thing; setting: number; strip: number }[];
      rest: number;
      clean: number;
    }
  /** Through a machine, or by hand, to a thickness; both faces are flat already or are sawn. */
  | {
      do: 'thickness';
      parts: Thing[];
      faces: Face[];
      from: number;
      to: number;
      passes: number | null;
      tool: ToolId;
      carrier: boolean;
      strips: number[];
    }
  /** Both edges made ready for glue, so much off each. */
  | { do: 'joint'; parts: Thing[]; by: number; width: number; tool: ToolId; strips: number[] }
  /** Bits crosscut from a strip that is milled, each as long: from that end, which is sawn square first, so that the first begins so far from it. So much of the strip stays to hold it by. */
  | {
      do: 'cutBits';
      part: Thing;
      end: 'marked' | 'far';
      saw: SawUse;
      first: number;
      each: number;
      hold: number;
      bits: Thing[];
    }
  /** Bits end to end in order, each as it came from its strip; so long together. */
  | { do: 'layBits'; stack: Thing; bits: { part: Thing; up: 'edge' | 'face' }[]; length: number }
  /** Both ends of a stack sawn off, so much of each, so that it is as long as that. */
  | { do: 'cutStack'; part: Thing; saw: SawUse; off: number; length: number }
  /** `ahead` is how much further along a strip lies than the one that lies least far; left out where all are flush. */
  | {
      do: 'layOut';
      panel: Thing;
      strips: { part: Thing; up: 'edge' | 'face'; turned: boolean; endForEnd: boolean; ahead?: number }[];
    }
  /** A panel sawn into slices, each `pitch` thick between its cut faces. `end` is where its first end is sawn off, from the end of every strip; the angle in degrees from a square cut. */
  | {
      do: 'slice';
      part: Thing;
      saw: SawUse;
      angle: number;
      end: number;
      pitch: number;
      takes: number;
      length: number;
      /** All slices of it together, without and with their kerfs, square to the cuts. */
      wood: number;
      kerfs: number;
      /** Less of the panel than that is not steady along a fence. */
      leastLeft: number;
      slices: Thing[];
    }
  /** Slices turned before they are glued again. */
  | { do: 'turn'; parts: Thing[]; turn: Turn }
  /** Rows side by side in order; `shift` is how much further along than flush each lies. */
  | { do: 'layRows'; block: Thing; runs: 'along' | 'across'; stack: number; rows: { part: Thing; shift: number }[] }
  /** A panel sawn through: the cut begins at these places along its far and its near edge, from its left end, and its kerf lies behind them. The part before it is `makes`; what is left behind the last cut is `rest`. */
  | {
      do: 'sawApart';
      part: Thing;
      saw: SawUse;
      angle: number;
      far: number;
      near: number;
      makes: Thing;
      rest: Thing | null;
    }
  /** Parts of a panel and the strips between them, from the left: `over` is how far a strip reaches beyond the edges, `step` how much nearer the part behind it lies than the one before. */
  | {
      do: 'layParts';
      block: Thing;
      pieces: (
        | { part: Thing; strip: false }
        | {
            part: Thing;
            strip: true;
            up: 'edge' | 'face';
            turned: boolean;
            endForEnd: boolean;
            over: number;
            step: number;
          }
      )[];
    }
  /** Strips laid round a thing, a pair at a time: `over` is how far each reaches beyond its joint at both ends. Of a strip along the board the first side lies away, of one at an end its first end at the far edge. */
  | {
      do: 'layFrame';
      part: Thing;
      strips: {
        part: Thing;
        side: FrameSide;
        up: 'edge' | 'face';
        turned: boolean;
        endForEnd: boolean;
        over: number;
      }[];
    }
  /** A back laid under a thing: how its strips run, and how far it reaches over each end and each edge. */
  | { do: 'layBack'; part: Thing; back: Thing; runs: 'along' | 'across'; over: { along: number; across: number } }
  /** Ends of strips that reach over cut off flush with what they are glued to: so much off each of both ends. */
  | { do: 'flushEnds'; parts: Thing[]; strips: { part: Thing; off: number }[]; saw: SawUse }
  | { do: 'keys'; parts: Thing[]; joints: number; each: number; copies: number }
  | { do: 'rehearse'; glueUps: number; clamps: ClampUse[]; cauls: number; wanted: number }
  /** Oil off the glue faces, and so long until glue. */
  | { do: 'wipe'; parts: Thing[]; minutes: number }
  | {
      do: 'glue';
      makes: Thing;
      parts: Thing[];
      glue: string;
      grams: number;
      clamps: ClampUse[];
      wanted: number;
      layingMinutes: number;
      assemblyMinutes: number;
      usableMinutes: number;
      waitMinutes: number;
    }
  | { do: 'scrape'; parts: Thing[]; when: 'skinned' | 'hard' | 'wet'; from: number; to: number }
  /** Scrap glued along all four sides of a thing, as high as it is and so wide: it breaks out instead of end grain under knives, and is sawn off afterwards. No pass is deeper than `pass`. */
  | { do: 'guard'; parts: Thing[]; high: number; wide: number; pass: number }
  /** Strips that stand over the others made level with them. */
  | { do: 'flush'; parts: Thing[]; strips: Thing[]; by: number; tool: ToolId }
  /** One long edge of a panel sawn off, `leaves` wide. */
  | {
      do: 'trimEdge';
      parts: Thing[];
      side: 'far' | 'near';
      from: number;
      off: number;
      leaves: number;
      saw: SawUse;
      guide: Guide;
    }
  /** Ends squared and boards cut apart: where each begins from the panel's left end, and how long it is. */
  | {
      do: 'crosscutPanel';
      part: Thing;
      panelLength: number;
      panelWidth: number;
      saw: SawUse;
      width: number;
      first: number;
      cuts: { part: Thing; at: number; length: number; width: number }[];
    }
  /** So much too long first, then measured. */
  | { do: 'sneak'; parts: Thing[]; by: number; first: number }
  /** Lanes of a router sled, and the ridges they leave. */
  | { do: 'lanes'; bit: number; lane: number; ridges: number }
  /** A feature of the board worked into it: what goes of the finished board is in `cuts`. */
  | {
      do: 'work';
      parts: Thing[];
      cuts: Cut[];
      what: WorkKind;
      feature: string;
      place: string;
      tool: ToolId;
      passes: number | null;
      figures: Record<string, number>;
    }
  /** `plug`: where its wood comes from, along and across the piece; null where nothing that is left gives it. */
  | {
      do: 'inlay';
      parts: Thing[];
      cuts: Cut[];
      plug: PlugWood | null;
      feature: string;
      glue: string;
      waitMinutes: number;
      figures: Record<string, number>;
    }
  /** Faces and edges sanded with one grit after another; `take` off both faces together. */
  | {
      do: 'sand';
      parts: Thing[];
      area: SandedArea;
      tool: ToolId;
      grits: number[];
      from: number;
      take: number;
      to: number;
      /** Places that are sanded to their bottom, so deep. */
      pits?: number[];
    }
  /** The last grit once more, lightly. */
  | { do: 'resand'; parts: Thing[]; area: SandedArea; grit: number }
  | { do: 'wet'; parts: Thing[]; minutes: number }
  | { do: 'coat'; parts: Thing[]; finish: FinishKind; coats: number; minutes: number; grams: number; ignites: boolean }
  /** What is bolted, or tied, through bores that are there. */
  | { do: 'fit'; parts: Thing[]; feature: string; what: 'handle' | 'loop'; count: number; bore: number }
  | { do: 'feet'; parts: Thing[]; cuts: Cut[]; count: number; screw: number; depth: number };

/** One width off a part: `skip` of waste before it, its kerf in it. `at` is where it begins across the piece. */
export interface Rip {
  part: Thing;
  at: number;
  width: number;
  skip: number;
  strips: number[];
}

export interface ClampUse {
  kind: string;
  count: number;
}

export type WorkKind = 'corners' | 'edge' | 'groove' | 'finger' | 'hole' | 'handle' | 'footBores' | 'mark';

export type InstructionOf<K extends Instruction['do']> = Extract<Instruction, { do: K }>;

/** The instructions of one kind among others. */
export function ofKind<K extends Instruction['do']>(instructions: readonly Instruction[], kind: K): InstructionOf<K>[] {
  return instructions.filter((i): i is InstructionOf<K> => i.do === kind);
}

/** Every figure that instructions hold, however deep: what sentences may say. Where on the board wood goes is drawn, not said. */
export function figuresIn(value: unknown): number[] {
  if (typeof value === 'number') return [value];
  if (Array.isArray(value)) return value.flatMap(figuresIn);
  if (value !== null && typeof value === 'object')
    return Object.entries(value).flatMap(([key, inner]) => (key === 'cuts' && isDrawn(inner) ? [] : figuresIn(inner)));
  return [];
}

const isDrawn = (cuts: unknown): boolean =>
  Array.isArray(cuts) && cuts.every((c) => typeof c === 'object' && c !== null && 'outlines' in c);

export const stockThing = (piece: { id: string; mark: string; count: number }, unit: number): Thing => ({
  id: `${piece.id}#${unit}`,
  label: piece.count > 1 ? `${piece.mark} no. ${unit + 1}` : piece.mark,
});
export const blankThing = (piece: { id: string; mark: string; count: number }, unit: number, number: number): Thing => {
  const stock = stockThing(piece, unit);
  return { id: `${stock.id}.${number}`, label: `${stock.label}.${number}` };
};
/** A strip of one panel or board, or a spare of it. @param many panels alike, or boards @param what which they are, and how many are numbered before them */
export const stripThing = (
  demand: { strip: number; copy: number; spare: number },
  many: number,
  { of, before }: { of: 'panel' | 'board'; before: number } = { of: 'panel', before: 0 },
): Thing => ({
  id: `strip ${demand.strip}/${demand.copy}${demand.spare > 0 ? `/spare ${demand.spare}` : ''}`,
  label: `${demand.strip}${many > 1 ? ` of ${of} ${before + demand.copy}` : ''}${demand.spare > 0 ? ` (spare${demand.spare > 1 ? ` ${demand.spare}` : ''})` : ''}`,
});
export const groupThing = ({ id, name }: { id: string; name: string }, copy: number): Thing => ({
  id: `${id}/${copy}`,
  label: name,
});
export const panelThing = (copy: number): Thing => ({ id: `panel ${copy}`, label: `panel ${copy}` });
/** A slice, by the row that it will be. @param rows of one board @param boards of the batch */
export const rowThing = (number: number, rows: number, boards: number): Thing => ({
  id: `row ${number}`,
  label: boards > 1 ? `${((number - 1) % rows) + 1} of board ${Math.floor((number - 1) / rows) + 1}` : String(number),
});
/** A part of a panel that was sawn through, from the left. */
export const partThing = (number: number, copy: number, panels: number): Thing => ({
  id: `part ${number}/${copy}`,
  label: panels > 1 ? `part ${number} of panel ${copy}` : `part ${number}`,
});
/** The rows of a board glued together. */
export const blockThing = (copy: number, blocks: number): Thing => ({
  id: `block ${copy}`,
  label: blocks > 1 ? `block ${copy}` : 'the block',
});
/** What a frame goes round, cut to size, and the same with its frame on. */
export const fieldThing = (number: number, boards: number): Thing => ({
  id: `field ${number}`,
  label: boards > 1 ? `field ${number}` : 'the field',
});
export const framedThing = (number: number, boards: number): Thing => ({
  id: `framed ${number}`,
  label: boards > 1 ? `framed board ${number}` : 'the framed board',
});
/** What a back is glued under, cut to size, and the same with its back on. */
export const topThing = (number: number, boards: number): Thing => ({
  id: `top ${number}`,
  label: boards > 1 ? `top ${number}` : 'the top',
});
export const backedThing = (number: number, boards: number): Thing => ({
  id: `backed ${number}`,
  label: boards > 1 ? `backed board ${number}` : 'the backed board',
});
export const boardThing = (number: number): Thing => ({ id: `board ${number}`, label: `board ${number}` });
