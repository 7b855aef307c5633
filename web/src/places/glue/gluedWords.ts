import { createContext, use } from 'react';

/** What is glued, in words: strips to a panel, rows to a block, parts with strips between them, or a frame round a board. */
export interface GluedWords {
  one: 'strip' | 'row' | 'piece';
  many: 'Strips' | 'Rows' | 'Pieces';
  whole: 'panel' | 'block' | 'framed board' | 'backed board';
}

export const OF_STRIPS: GluedWords = { one: 'strip', many: 'Strips', whole: 'panel' };
export const OF_ROWS: GluedWords = { one: 'row', many: 'Rows', whole: 'block' };
export const OF_PARTS: GluedWords = { one: 'piece', many: 'Pieces', whole: 'block' };
export const OF_FRAME: GluedWords = { one: 'piece', many: 'Pieces', whole: 'framed board' };
export const OF_BACK: GluedWords = { one: 'piece', many: 'Pieces', whole: 'backed board' };
export const GluedWordsContext = createContext<GluedWords>(OF_STRIPS);
export const useGluedWords = (): GluedWords => use(GluedWordsContext);
