import { useEffect, useRef } from 'react';
import { NavLink, useLocation } from 'react-router';
import { openStops } from '#core/checks/checkPlan.ts';
import { progressOf } from '#core/bench/progress.ts';
import type { Finding } from '#core/checks/finding.ts';
import type { Fact } from '#core/facts/fact.ts';
import { NEW_BOARD_NAME, type Board } from '#core/board/board.ts';
import type { StepStation } from '#core/steps/operation.ts';
import type { Plan } from '#core/plan/plan.ts';
import { useSettledBoard } from '../data/openBoard.tsx';
import classes from './StationRule.module.css';
import { stripsOf } from '#core/board/recipe.ts';

type StationState = 'untouched' | 'planned' | 'attention' | 'done';

interface Station {
  path: string;
  label: string;
  state: StationState;
  /** What the state means here, for screen readers and the tooltip. */
  says: string;
}

/** What a station's state means, where the usual word would say too much or too little. */
type Says = string | undefined;

const WORDS: Record<StationState, string> = {
  untouched: 'not begun',
  planned: 'planned',
  attention: 'needs attention',
  done: 'done',
};

function stationsOf(
  board: Board,
  findings: readonly Finding[],
  { cutting, outdated, ladders, operations }: Plan,
  facts: readonly Fact[],
): Station[] {
  const steps = operations.length;
  const done = progressOf(operations, facts).steps.filter((s) => s.state === 'done').length;
  const open = openStops(findings);
  const at = (station: StepStation) => open.some((f) => f.station === station);
  const layoutStops = open.filter((f) =>
    ['panel-width', 'width-not-in-rack', 'strip-wider-than-board'].includes(f.rule),
  ).length;
  const empty = stripsOf(board).length === 0;
  const cutStops = open.filter((f) => f.rule === 'stock-shortage').length;
  // Promised wood is not cut yet.
  const cut = cutting.blanks.length > 0 && cutting.blanks.every((b) => b.done) && cutting.shortages.length === 0;
  const states: [string, string, StationState, Says?][] = [
    ['brief', 'Brief', board.name === NEW_BOARD_NAME ? 'untouched' : 'planned'],
    ['layout', 'Layout', empty ? 'untouched' : layoutStops > 0 ? 'attention' : 'planned'],
    [
      'cuts',
      'Cuts',
      empty ? 'untouched' : cutStops > 0 || outdated ? 'attention' : cut ? 'done' : 'planned',
      !cut && !outdated && cutStops === 0 && cutting.method === 'kept' ? 'wood promised' : undefined,
    ],
    ['mill', 'Mill', empty ? 'untouched' : at('mill') || ladders.thickness.shortBy > 0 ? 'attention' : 'planned'],
    ['glue', 'Glue', empty ? 'untouched' : at('glue') ? 'attention' : 'planned'],
    ['trim', 'Trim', empty ? 'untouched' : at('trim') ? 'attention' : 'planned'],
    ['finish', 'Finish', empty ? 'untouched' : at('finish') ? 'attention' : 'planned'],
    ['sheet', 'Bench sheet', empty ? 'untouched' : open.length > 0 ? 'attention' : 'planned'],
    [
      'bench',
      'Bench',
      empty || done === 0 ? 'untouched' : done === steps ? 'done' : 'planned',
      done > 0 ? `${done} of ${steps} steps done` : undefined,
    ],
    [
      'money',
      'Money',
      board.price === null ? 'untouched' : 'planned',
      board.price === null ? 'no price yet' : undefined,
    ],
  ];
  return states.map(([path, label, state, says]) => ({ path, label, state, says: says ?? WORDS[state] }));
}

/** The stations of a board in working order, drawn as a graduated rule. None is locked. */
export function StationRule() {
  const { board, findings, id, plan, input } = useSettledBoard();
  const rule = useRef<HTMLElement>(null);
  const { pathname } = useLocation();
  // Where the rule is longer than the screen is wide, the chosen station is brought to its middle.
  useEffect(() => {
    const here = rule.current?.querySelector<HTMLElement>('[aria-current=page]');
    if (rule.current && here)
      rule.current.scrollLeft =
        here.offsetLeft - rule.current.offsetLeft - (rule.current.clientWidth - here.clientWidth) / 2;
  }, [pathname]);
  return (
    <nav ref={rule} className={classes.rule} aria-label="Stations of the board">
      {stationsOf(board, findings, plan, input.facts ?? []).map(({ path, label, state, says }) => (
        <NavLink
          key={path}
          to={`/boards/${id}/${path}`}
          className={classes.station}
          data-state={state}
          title={`${label}: ${says}`}
        >
          <StateMark state={state} />
          <span>{label}</span>
          <span className={classes.says}>{says}</span>
        </NavLink>
      ))}
    </nav>
  );
}

/** State by shape first, colour second: an open ring, a filled dot, a flag. */
function StateMark({ state }: { state: StationState }) {
  return (
    <svg width="12" height="12" viewBox="0 0 12 12" aria-hidden="true">
      {state === 'untouched' && <circle cx="6" cy="6" r="4" fill="none" stroke="currentColor" strokeWidth="1.5" />}
      {state === 'planned' && <circle cx="6" cy="6" r="4.5" fill="var(--blue)" />}
      {state === 'done' && <path d="M1.5 6.5 5 10l5.5-8" fill="none" stroke="var(--blue)" strokeWidth="2.4" />}
      {state === 'attention' && (
        <path d="M2.5 11V1h8L8 4l2.5 3h-6.5" fill="var(--red)" stroke="var(--red)" strokeWidth="1.4" />
      )}
    </svg>
  );
}
