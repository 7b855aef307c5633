import { randomFrom } from '#core/propose/random.ts';

/**
 * Numbers for drawing: the same text gives the same wood in every place and zoom.
 * @returns a function that gives the next number in 0..1
 */
export function seeded(text: string): () => number {
  let seed = 2166136261;
  for (let i = 0; i < text.length; i += 1) seed = Math.imul(seed ^ text.charCodeAt(i), 16777619);
  return randomFrom(seed).next;
}
