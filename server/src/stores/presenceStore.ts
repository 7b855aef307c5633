import type { Knex } from 'knex';
import type { Presence } from '#contract/live.ts';
import { noteChange } from './changeStore.ts';

interface PresenceRow extends Presence {
  seen_at: Date;
}

/** A page whose server says nothing of it for so long is gone, ms. */
export const GONE_AFTER_MS = 30_000;

/** A page is open at a board, or at none. */
export async function come(db: Knex, presence: Presence): Promise<void> {
  const before = await db<PresenceRow>('presences').where({ tab: presence.tab }).first();
  await db<PresenceRow>('presences')
    .insert({ ...presence, seen_at: new Date() })
    .onConflict('tab')
    .merge();
  await noteChange(db, ['here'], presence.board, null);
  // It went from one board to another: those who stay are told too.
  if (before && before.board !== presence.board) await noteChange(db, ['here'], before.board, null);
}

/** Pages are still open. Those that nobody speaks for any more are gone: their server was killed. */
export async function stay(db: Knex, tabs: readonly string[]): Promise<void> {
  if (tabs.length > 0) await db<PresenceRow>('presences').whereIn('tab', tabs).update({ seen_at: new Date() });
  const gone = await db<PresenceRow>('presences')
    .where('seen_at', '<', new Date(Date.now() - GONE_AFTER_MS))
    .delete();
  if (gone > 0) await noteChange(db, ['here'], null, null);
}

/** A page was closed, or went to another board before this was said. */
export async function leave(db: Knex, { tab, board }: Presence): Promise<void> {
  if ((await db<PresenceRow>('presences').where({ tab, board }).delete()) > 0)
    await noteChange(db, ['here'], board, null);
}

/** All pages that are open at some board. */
export async function whoIsHere(db: Knex): Promise<Presence[]> {
  return db<PresenceRow>('presences')
    .whereNotNull('board')
    .where('seen_at', '>=', new Date(Date.now() - GONE_AFTER_MS))
    .orderBy('tab')
    .select('tab', 'name', 'board');
}
