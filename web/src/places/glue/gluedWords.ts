import { createContext, use } from 'react';

/** What is glued, in words: strips to a panel, or rows to a block. */
export interface GluedWords {
  one: 'strip' | 'row';
  many: 'Strips' | 'Rows';
  whole: 'panel' | 'block';
}

export const OF_STRIPS: GluedWords = { one: 'strip', many: 'Strips', whole: 'panel' };
export const OF_ROWS: GluedWords = { one: 'row', many: 'Rows', whole: 'block' };
export const GluedWordsContext = createContext<GluedWords>(OF_STRIPS);
export const useGluedWords = (): GluedWords => use(GluedWordsContext);
