import { nanoid } from 'nanoid';
import { BOARD_FILE_VERSION } from '#core/format/version.ts';

/** This tab, over reloads. */
const OWN = 'cadenza-page';
/** Drafts of all tabs of this device: `cadenza.kept/<tab>/<draft>`. */
const KEPT = 'cadenza.kept/';
const LOCK = 'cadenza-page-';
/** A draft stands behind the version of its documents; those of the first Cadenza that kept any stand alone. */
const FORM = /^(\d+) /;
const FIRST_FORM = 16;
/** Names of drafts begin so: a board's id, `shop`, or `piece.` and its id comes after it. */
export const DRAFT = 'cadenza.draft.';

const formOf = (kept: string): number => Number(FORM.exec(kept)?.[1] ?? FIRST_FORM);
const textOf = (kept: string): string => kept.replace(FORM, '');

let own: string | null = null;

function ownTab(): string {
  if (own !== null) return own;
  const fresh = nanoid(10);
  try {
    own = sessionStorage.getItem(OWN) ?? fresh;
    sessionStorage.setItem(OWN, own);
  } catch {
    own = fresh;
  }
  return own;
}

/** Keeps what is not sent yet: for this tab over a reload, and for the next page when the tab is closed. A storage that is full or forbidden costs only the spare copy. */
export function keepDraft(key: string, text: string): void {
  try {
    const kept = `${BOARD_FILE_VERSION} ${text}`;
    sessionStorage.setItem(key, kept);
    localStorage.setItem(`${KEPT}${ownTab()}/${key}`, kept);
  } catch {
    // The sending itself goes on.
  }
}

export function dropDraft(key: string): void {
  try {
    sessionStorage.removeItem(key);
    localStorage.removeItem(`${KEPT}${ownTab()}/${key}`);
  } catch {
    // A storage that is forbidden holds nothing.
  }
}

/** @returns null where nothing is kept, or it cannot be read */
export function readKeptDraft(key: string): unknown {
  try {
    return JSON.parse(textOf(sessionStorage.getItem(key) ?? 'null'));
  } catch {
    return null;
  }
}

/** Names of what this tab holds unsent that begin so. */
export function draftsFrom(prefix: string): string[] {
  try {
    return Object.keys(sessionStorage).filter((key) => key.startsWith(prefix));
  } catch {
    return [];
  }
}

/** How many drafts any page of this device holds. */
export function keptDrafts(): number {
  try {
    return Object.keys(localStorage).filter((key) => key.startsWith(KEPT)).length;
  } catch {
    return 0;
  }
}

/**
 * Takes over what closed tabs left unsent. Of two that left something of one record, one is taken now and the other by a later page, so that each is stored or asked about. Where
 * nobody can say which tabs are open, nothing is taken.
 */
export async function adoptDrafts(): Promise<void> {
  if (!('locks' in navigator)) return;
  await claim();
  const { held = [] } = await navigator.locks.query();
  const open = new Set(held.map(({ name }) => name));
  for (const key of Object.keys(localStorage)) {
    const [, tab, draft] = /^cadenza\.kept\/([^/]+)\/(.+)$/.exec(key) ?? [];
    if (tab === undefined || draft === undefined || tab === ownTab() || open.has(`${LOCK}${tab}`)) continue;
    if (sessionStorage.getItem(draft) !== null) continue;
    const text = localStorage.getItem(key);
    if (text === null) continue;
    sessionStorage.setItem(draft, text);
    localStorage.setItem(`${KEPT}${ownTab()}/${draft}`, text);
    localStorage.removeItem(key);
  }
}

/** Brings what an earlier Cadenza left unsent into the form of this one, before anybody reads it. */
export async function bringUpDrafts(): Promise<void> {
  for (const key of draftsFrom(DRAFT)) {
    const form = formOf(sessionStorage.getItem(key) ?? '');
    const draft = readKeptDraft(key);
    if (form >= BOARD_FILE_VERSION || typeof draft !== 'object' || draft === null) continue;
    const { broughtUp } = await import('./bringUp.ts');
    keepDraft(key, JSON.stringify(broughtUp(key.slice(DRAFT.length), form, draft as Record<string, unknown>)));
  }
}

/** Says that this tab is open, for as long as it is. One that was copied with all it holds becomes another. */
async function claim(): Promise<void> {
  const hold = (name: string) =>
    new Promise<boolean>((resolve) => {
      void navigator.locks.request(name, { ifAvailable: true }, (lock) => {
        resolve(lock !== null);
        return lock === null ? undefined : new Promise<never>(() => {});
      });
    });
  if (await hold(`${LOCK}${ownTab()}`)) return;
  own = nanoid(10);
  sessionStorage.setItem(OWN, own);
  await hold(`${LOCK}${own}`);
}
