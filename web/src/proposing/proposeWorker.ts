import { propose, type ProposeInput, type Proposed } from '#core/propose/propose.ts';
import { shuffle, type ShuffledOrder } from '#core/propose/shuffle.ts';
import type { Species } from '#core/wood/species.ts';
import type { Strip } from '#core/board/recipe.ts';

/** What a page asks of the worker. To stop it, the page ends the worker: what was told last is kept. */
export type ProposeRequest =
  | { kind: 'propose'; input: ProposeInput; seed: number; seconds: number }
  | { kind: 'shuffle'; strips: readonly Strip[]; species: readonly Species[]; seed: number; seconds: number };

export type ProposeAnswer =
  | { kind: 'propose'; proposed: Proposed; done: boolean }
  | { kind: 'shuffle'; orders: ShuffledOrder[]; done: boolean };

/** The least time between two messages: a page need not redraw more often. */
const TELL_EVERY_SECONDS = 0.15;

self.addEventListener('message', ({ data }: MessageEvent<ProposeRequest>) => {
  const now = () => performance.now() / 1000;
  let told = -Infinity;
  const due = () => {
    if (now() - told < TELL_EVERY_SECONDS) return false;
    told = now();
    return true;
  };
  const tell = (answer: ProposeAnswer) => self.postMessage(answer);
  if (data.kind === 'propose') {
    const proposed = propose(data.input, {
      seed: data.seed,
      seconds: data.seconds,
      now,
      onProgress: (proposals) => due() && tell({ kind: 'propose', proposed: { ok: true, proposals }, done: false }),
    });
    tell({ kind: 'propose', proposed, done: true });
  } else {
    const orders = shuffle(data.strips, data.species, {
      seed: data.seed,
      seconds: data.seconds,
      now,
      onProgress: (better) => due() && tell({ kind: 'shuffle', orders: better, done: false }),
    });
    tell({ kind: 'shuffle', orders, done: true });
  }
});
