import { createContext, use } from 'react';
import type { GluePlan } from '#core/gluing/glueUps.ts';
import type { Plan } from '#core/plan/plan.ts';

/** What is glued, in words: strips to a panel, rows to a block, parts with strips between them, or a frame round a board. */
export interface GluedWords {
  one: 'strip' | 'row' | 'piece' | 'bit';
  many: 'Strips' | 'Rows' | 'Pieces' | 'Bits';
  whole: 'panel' | 'block' | 'framed board' | 'backed board' | 'stack';
}

export const OF_STRIPS: GluedWords = { one: 'strip', many: 'Strips', whole: 'panel' };
export const OF_BITS: GluedWords = { one: 'bit', many: 'Bits', whole: 'stack' };
export const OF_ROWS: GluedWords = { one: 'row', many: 'Rows', whole: 'block' };
export const OF_PARTS: GluedWords = { one: 'piece', many: 'Pieces', whole: 'block' };
export const OF_FRAME: GluedWords = { one: 'piece', many: 'Pieces', whole: 'framed board' };
export const OF_BACK: GluedWords = { one: 'piece', many: 'Pieces', whole: 'backed board' };
/** What is looked at: its words, and which of the glue plans of a board it is. */
export interface GluedStage extends GluedWords {
  gluing(plan: Plan): GluePlan;
}

export const OF_PANEL: GluedStage = { ...OF_STRIPS, gluing: ({ again, gluing }) => again?.panelGluing ?? gluing };
export const GluedStageContext = createContext<GluedStage>(OF_PANEL);
export const useGluedStage = (): GluedStage => use(GluedStageContext);
