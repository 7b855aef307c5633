import type { Shop } from '../shop/shop.ts';
import { TOOL_NAMES, type ToolId } from '../shop/tools.ts';
import { length, say, type Phrase } from '../units/phrase.ts';
import { stripList } from './numberList.ts';

/** With what strips that stand over the others are made level. */
export const flushTool = ({ handTools }: Pick<Shop, 'handTools'>): ToolId =>
  handTools.planes ? 'handPlanes' : handTools.beltSander ? 'beltSander' : 'sandingBlock';

/** That strips stand over the rest, and how they are made level. @param before what is done to the whole after it */
export const proudLine = (strips: number[], by: number, tool: ToolId, before = true): Phrase =>
  say`${stripList(strips)} ${strips.length === 1 ? 'stands' : 'stand'} ${length(by)} proud: take ${strips.length === 1 ? 'it' : 'them'} down flush with the rest${before ? ' first' : ''}, ${TOOL_NAMES[tool].toLowerCase()}`;
