import { certain } from '#core/lists/there.ts';
import './theme/mantineStyles.ts';
import '@mantine/notifications/styles.css';
import './theme/tokens.css';
import { MantineProvider } from '@mantine/core';
import { QueryClientProvider } from '@tanstack/react-query';
import { lazy, Suspense } from 'react';
import { createRoot } from 'react-dom/client';
import { createBrowserRouter, RouterProvider } from 'react-router';
import { FACT_KEY } from './data/factKey.ts';
import { PICTURES_WAIT_KEY } from './data/pictureKey.ts';
import { DRAFT, draftsFrom } from './offline/drafts.ts';
import { keepApplication } from './offline/application.ts';
import { queryClient } from './data/queryClient.ts';
import { BoardsPlace } from './places/boards/BoardsPlace.tsx';
import { StartPlace } from './places/today/StartPlace.tsx';
import { DisplayProvider } from './quantities/display.tsx';
import { NothingHere, PageBroke, Shell } from './shell/Shell.tsx';
import { ShortcutProvider } from './shortcuts/Shortcuts.tsx';
import { theme } from './theme/theme.ts';
import { config } from 'zod';

// The page forbids code made from text; without this Zod would try it first.
config({ jitless: true });

const router = createBrowserRouter([
  {
    Component: Shell,
    ErrorBoundary: PageBroke,
    HydrateFallback: () => null,
    children: [
      { index: true, Component: StartPlace },
      { path: 'boards', Component: BoardsPlace },
      { path: 'today', lazy: async () => ({ Component: (await import('./places/today/TodayPlace.tsx')).TodayPlace }) },
      {
        path: 'calendar',
        lazy: async () => ({ Component: (await import('./places/calendar/CalendarPlace.tsx')).CalendarPlace }),
      },
      { path: 'rack', lazy: async () => ({ Component: (await import('./places/rack/RackPlace.tsx')).RackPlace }) },
      { path: 'rack/pile', lazy: async () => ({ Component: (await import('./places/pile/PilePlace.tsx')).PilePlace }) },
      {
        path: 'rack/labels',
        lazy: async () => ({ Component: (await import('./places/labels/LabelsPlace.tsx')).LabelsPlace }),
      },
      {
        path: 'rack/salvage',
        lazy: async () => ({ Component: (await import('./places/salvage/SalvagePlace.tsx')).SalvagePlace }),
      },
      {
        path: 'rack/:id',
        lazy: async () => ({ Component: (await import('./places/piece/PiecePlace.tsx')).PiecePlace }),
      },
      {
        path: 'propose',
        lazy: async () => ({ Component: (await import('./places/propose/ProposePlace.tsx')).ProposePlace }),
      },
      {
        path: 'instruments',
        lazy: async () => ({
          Component: (await import('./places/instruments/InstrumentsPlace.tsx')).InstrumentsPlace,
        }),
      },
      {
        path: 'money/:part?',
        lazy: async () => ({ Component: (await import('./places/money/MoneyPlace.tsx')).MoneyPlace }),
      },
      { path: 'log', lazy: async () => ({ Component: (await import('./places/log/LogPlace.tsx')).LogPlace }) },
      {
        path: 'log/lessons',
        lazy: async () => ({ Component: (await import('./places/log/LessonsPlace.tsx')).LessonsPlace }),
      },
      {
        path: 'log/compare',
        lazy: async () => ({ Component: (await import('./places/log/LogComparePlace.tsx')).LogComparePlace }),
      },
      {
        path: 'log/:id',
        lazy: async () => ({ Component: (await import('./places/log/LogEntryPlace.tsx')).LogEntryPlace }),
      },
      {
        path: 'species',
        lazy: async () => ({ Component: (await import('./places/species/SpeciesPlace.tsx')).SpeciesPlace }),
      },
      {
        path: 'devices',
        lazy: async () => ({ Component: (await import('./places/devices/DevicesPlace.tsx')).DevicesPlace }),
      },
      {
        path: 'setup',
        lazy: async () => ({ Component: (await import('./places/setup/SetupPlace.tsx')).SetupPlace }),
      },
      {
        path: 'shop/:room?',
        lazy: async () => ({ Component: (await import('./places/shop/ShopPlace.tsx')).ShopPlace }),
      },
      {
        path: 'boards/:id',
        lazy: async () => ({ Component: (await import('./shell/BoardFrame.tsx')).BoardFrame }),
        children: [
          {
            path: 'brief',
            lazy: async () => ({ Component: (await import('./places/brief/BriefPlace.tsx')).BriefPlace }),
          },
          {
            path: 'layout',
            lazy: async () => ({ Component: (await import('./places/layout/LayoutPlace.tsx')).LayoutPlace }),
          },
          { path: 'cuts', lazy: async () => ({ Component: (await import('./places/cuts/CutsPlace.tsx')).CutsPlace }) },
          { path: 'mill', lazy: async () => ({ Component: (await import('./places/mill/MillPlace.tsx')).MillPlace }) },
          { path: 'glue', lazy: async () => ({ Component: (await import('./places/glue/GluePlace.tsx')).GluePlace }) },
          { path: 'trim', lazy: async () => ({ Component: (await import('./places/trim/TrimPlace.tsx')).TrimPlace }) },
          {
            path: 'finish',
            lazy: async () => ({ Component: (await import('./places/finish/FinishPlace.tsx')).FinishPlace }),
          },
          {
            path: 'care',
            lazy: async () => ({ Component: (await import('./places/care/CarePlace.tsx')).CarePlace }),
          },
          {
            path: 'bench',
            lazy: async () => ({ Component: (await import('./places/bench/BenchPlace.tsx')).BenchPlace }),
          },
          {
            path: 'money',
            lazy: async () => ({ Component: (await import('./places/money/BoardMoneyPlace.tsx')).BoardMoneyPlace }),
          },
          {
            path: 'paper/:kind',
            lazy: async () => ({ Component: (await import('./places/money/PaperPlace.tsx')).PaperPlace }),
          },
          {
            path: 'sheet',
            lazy: async () => ({ Component: (await import('./places/sheet/SheetPlace.tsx')).SheetPlace }),
          },
        ],
      },
      { path: '*', Component: NothingHere },
    ],
  },
]);

/** What is told in passing is told a moment later: what draws it comes after the page. */
const Notifications = lazy(async () => ({ default: (await import('@mantine/notifications')).Notifications }));

/** The page waits this long for its letters; then it is shown with what there is. */
const MOST_FONT_WAIT_MS = 600;

/** Letters that come late would push everything about. */
async function fontsLoaded(): Promise<void> {
  const fonts = Promise.all(['400', '600', '700'].map((weight) => document.fonts.load(`${weight} 16px "Fira Sans"`)));
  await Promise.race([fonts, new Promise((resolve) => setTimeout(resolve, MOST_FONT_WAIT_MS))]);
}

/** What boards and the bench noted and the server has not got yet goes out from whichever page comes first. */
function sendWaitingFacts(): void {
  try {
    if (Object.keys(localStorage).some((key) => key.startsWith(FACT_KEY))) void import('./data/facts.ts');
    if (draftsFrom(DRAFT).length > 0) {
      const open = /^\/boards\/([\w-]+)\//.exec(window.location.pathname)?.[1] ?? null;
      void import('./data/leftBoards.ts').then((left) => left.sendLeftBoards(open));
    }
    if (localStorage.getItem(PICTURES_WAIT_KEY)) void import('./data/pictures.ts').then((p) => p.sendPictures());
  } catch {
    // A storage that is forbidden holds nothing.
  }
}

sendWaitingFacts();
if (import.meta.env.PROD) void keepApplication().catch(() => {});
await fontsLoaded().catch(() => {});
createRoot(certain(document.getElementById('root'))).render(
  <MantineProvider theme={theme} defaultColorScheme="auto">
    <Suspense>
      <Notifications position="bottom-left" />
    </Suspense>
    <QueryClientProvider client={queryClient}>
      <DisplayProvider>
        <ShortcutProvider>
          <RouterProvider router={router} />
        </ShortcutProvider>
      </DisplayProvider>
    </QueryClientProvider>
  </MantineProvider>,
);
