import { adoptDrafts } from './offline/drafts.ts';

// What closed tabs left unsent is taken over before anything asks for it.
await adoptDrafts().catch(() => {});
await import('./main.tsx');
