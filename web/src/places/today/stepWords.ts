import type { WorkTask } from '#core/schedule/work.ts';

/** Which panel of several, which coat of several. */
export function partWords({ copy, copies, part, parts }: Pick<WorkTask, 'copy' | 'copies' | 'part' | 'parts'>): string {
  return `${copies > 1 ? `, panel ${copy} of ${copies}` : ''}${parts > 1 ? `, part ${part} of ${parts}` : ''}`;
}

/** The bench of a board at one of its steps. */
export function benchPath({ board, step }: Pick<WorkTask, 'board' | 'step'>): string {
  return `/boards/${board}/bench?step=${encodeURIComponent(step)}`;
}
