import { adoptDrafts, bringUpDrafts } from './offline/drafts.ts';

// What closed tabs left unsent is taken over before anything asks for it.
await adoptDrafts().catch(() => {});
await bringUpDrafts().catch(() => {});
await import('./main.tsx');
