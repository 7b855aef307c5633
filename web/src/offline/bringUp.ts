import { VERSION_STEPS } from '#core/format/upgrades.ts';
import { isRecord, type Change, type Json } from '#core/format/upgrades/step.ts';

/** Records beside boards that leave drafts, by their names. */
const SHOP = 'shop';
const PIECE = /^piece\./;

/** A kind of record from a version up to the newest. */
const upFrom =
  (form: number, kind: 'board' | 'shop' | 'piece'): Change =>
  (json) =>
    VERSION_STEPS.filter((step) => step.version > form).reduce((record, step) => step[kind]?.(record) ?? record, json);

/** What an earlier Cadenza left unsent, as this one would have left it. @param name of its record: a board's id, `shop`, or `piece.` and its id @param form the version of documents then */
export function broughtUp(name: string, form: number, draft: Json): Json {
  if (name !== SHOP && !PIECE.test(name)) {
    const change = upFrom(form, 'board');
    const steps = Array.isArray(draft.steps) ? (draft.steps as Json[]) : [];
    return {
      ...draft,
      steps: steps.map((step) => (isRecord(step.board) ? { ...step, board: change(step.board) } : step)),
    };
  }
  const change = upFrom(form, name === SHOP ? 'shop' : 'piece');
  const up = (value: unknown) => (isRecord(value) ? change(value) : value);
  return {
    ...draft,
    mine: up(draft.mine),
    ...(isRecord(draft.base) ? { base: { ...draft.base, value: up(draft.base.value) } } : {}),
  };
}
