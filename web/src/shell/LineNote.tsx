import type { LineState } from '../data/editLine.ts';

/** Says in words how it stands with what was changed on a page. */
export function LineNote({ state, className }: { state: LineState; className?: string | undefined }) {
  return (
    <span role="status" className={className} data-kind={state.kind}>
      {words(state)}
    </span>
  );
}

function words(state: LineState): string {
  switch (state.kind) {
    case 'quiet':
      return '';
    case 'saving':
      return 'Saving …';
    case 'saved':
      return 'Saved.';
    case 'offline':
      return `Not saved yet: ${state.message} Your changes are kept here and sent as soon as it answers.`;
    case 'refused':
      return `Not saved: ${state.message}`;
  }
}
