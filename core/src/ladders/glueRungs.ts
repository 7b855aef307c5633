import { say } from '../units/phrase.ts';
import { NO_RUNGS, type Rungs } from './ladder.ts';

/** What gluing side by side takes: strips slide along each other, and nothing else. */
export const glueRungs: Rungs = {
  thickness: () => NO_RUNGS,
  width: () => NO_RUNGS,
  length: ({ shop: { habits } }) => ({
    specs: [
      {
        id: 'creep',
        label: say`Strips creep in the clamps`,
        taken: habits.creep,
        habit: 'creep',
        why: say`Wet glue lets strips slide; only where all of them lie is there board.`,
      },
    ],
  }),
};
