import type { ShopWork } from '#contract/schedule.ts';

/** That what is shown may not be all, or not the newest, while the server still works it out. */
export function StillWorking({ work: { upToDate, unknown } }: { work: Pick<ShopWork, 'upToDate' | 'unknown'> }) {
  if (upToDate) return null;
  return (
    <small role="status">
      {unknown > 0
        ? `Still working out ${unknown === 1 ? 'one board' : `${unknown} boards`} …`
        : 'Something changed: working it out …'}{' '}
    </small>
  );
}
