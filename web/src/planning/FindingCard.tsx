import { Button, TextInput } from '@mantine/core';
import { memo, useState } from 'react';
import { acceptanceOf, stripIds } from '#core/checks/checkPlan.ts';
import type { Finding } from '#core/checks/finding.ts';
import { useSettledBoard } from '../data/openBoard.tsx';
import { Say } from '../quantities/Length.tsx';
import classes from './FindingCard.module.css';

const WORDS = { stop: 'Stop', caution: 'Caution', note: 'Note' } as const;

interface FindingCardProps {
  finding: Finding;
  /** Picks up the first strip concerned, where there is a drawing to do it on. */
  onSelect?(index: number): void;
}

/** A finding (made anew with each plan, but drawn anew only when it says something else): what is wrong with its figures; opened, why it matters and the ways out. */
const FindingCard = memo(
  function FindingCard({ finding, onSelect }: FindingCardProps) {
    // A list of findings can be long, and most are never opened: their reasons are made when they are.
    const [opened, setOpened] = useState(false);
    return (
      <details
        className={classes.card}
        data-severity={finding.severity}
        data-accepted={finding.accepted !== undefined || undefined}
        onToggle={(event) => {
          setOpened(event.currentTarget.open);
          if (event.currentTarget.open && finding.strips[0] !== undefined) onSelect?.(finding.strips[0] - 1);
        }}
      >
        <summary>
          <b>{finding.accepted === undefined ? WORDS[finding.severity] : 'Gone on with'}</b>{' '}
          <Say phrase={finding.what} />
        </summary>
        {opened && (
          <>
            <p>
              <Say phrase={finding.why} />
            </p>
            {finding.source && <p className={classes.source}>{finding.source}</p>}
            <ul>
              {finding.waysOut.map((way, i) => (
                <li key={i}>
                  <Say phrase={way} />
                </li>
              ))}
            </ul>
            {finding.severity === 'stop' && <AcceptStop finding={finding} />}
          </>
        )}
      </details>
    );
  },
  (before, after) =>
    before.onSelect === after.onSelect && JSON.stringify(before.finding) === JSON.stringify(after.finding),
);

/** Cards of a list, each keeping its place in the page while others come and go. */
export function FindingCards({
  findings,
  onSelect,
}: {
  findings: readonly Finding[];
  onSelect?: FindingCardProps['onSelect'];
}) {
  const seen = new Map<string, number>();
  return findings.map((finding) => {
    const name = `${finding.rule} ${finding.at ?? ''}`;
    const nth = seen.get(name) ?? 0;
    seen.set(name, nth + 1);
    return <FindingCard key={`${name} ${nth}`} finding={finding} {...(onSelect && { onSelect })} />;
  });
}

/** Going on with a stop, knowing it: only with a note, which stays on the board's record. */
function AcceptStop({ finding }: { finding: Finding }) {
  const { rule, accepted } = finding;
  const { session } = useSettledBoard();
  const [note, setNote] = useState('');
  // This stop alone: the same rule may stand on another strip.
  const set = (next: string | null) =>
    session.edit((b) => {
      const known = acceptanceOf(finding, b);
      return {
        ...b,
        accepted: [
          ...b.accepted.filter((a) => a !== known),
          ...(next === null ? [] : [{ rule, strips: stripIds(finding, b), part: finding.part ?? '', note: next }]),
        ],
      };
    });
  if (accepted !== undefined) {
    return (
      <p className={classes.accept}>
        “{accepted}”{' '}
        <Button size="compact-sm" variant="default" onClick={() => set(null)}>
          Mind it again
        </Button>
      </p>
    );
  }
  return (
    <form
      className={classes.accept}
      onSubmit={(event) => {
        event.preventDefault();
        if (note.trim() !== '') set(note.trim().slice(0, 300));
      }}
    >
      <TextInput
        size="xs"
        label="Go on all the same, because"
        value={note}
        maxLength={300}
        onChange={(e) => setNote(e.currentTarget.value)}
      />
      <Button size="compact-sm" variant="default" type="submit" disabled={note.trim() === ''}>
        Go on
      </Button>
    </form>
  );
}
