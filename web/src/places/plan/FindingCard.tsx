import { memo } from 'react';
import type { Finding } from '#core/checks/finding.ts';
import { Say } from '../../quantities/Length.tsx';
import classes from './FindingCard.module.css';

const WORDS = { stop: 'Stop', caution: 'Caution', note: 'Note' } as const;

interface FindingCardProps {
  finding: Finding;
  /** Picks up the first strip concerned, where there is a drawing to do it on. */
  onSelect?(index: number): void;
}

/** A finding (made anew with each plan, but drawn anew only when it says something else): what is wrong with its figures; opened, why it matters and the ways out. */
export const FindingCard = memo(function FindingCard({ finding, onSelect }: FindingCardProps) {
  return (
    <details className={classes.card} data-severity={finding.severity}
      onToggle={(event) => event.currentTarget.open && finding.strips[0] !== undefined && onSelect?.(finding.strips[0] - 1)}>
      <summary><b>{WORDS[finding.severity]}</b> <Say phrase={finding.what} /></summary>
      <p><Say phrase={finding.why} /></p>
      {finding.source && <p className={classes.source}>{finding.source}</p>}
      <ul>{finding.waysOut.map((way, i) => <li key={i}><Say phrase={way} /></li>)}</ul>
    </details>
  );
}, (before, after) => before.onSelect === after.onSelect && JSON.stringify(before.finding) === JSON.stringify(after.finding));
