import { screen } from '@testing-library/react';
import type { ComponentType } from 'react';
import { Route, Routes } from 'react-router';
import { vi } from 'vitest';
import type { PlanInput } from '#core/saw/planInput.ts';
import { OpenBoardProvider } from './data/openBoard.tsx';
import { ServerForTests } from './serverForTests.ts';
import { plain, show } from './shownForTests.tsx';

/** What is painted or searched for beside the page plays no part. */
const withoutWorkers = () =>
  vi.stubGlobal(
    'Worker',
    class {
      addEventListener() {}
      postMessage() {}
      terminate() {}
    },
  );

/** Opens a page of the shop, whose first board and rack are those of a plan. @param path where its routes match, as they do in the application */
export async function openShopAt(
  Place: ComponentType,
  input: PlanInput,
  {
    path = '/',
    pattern = '*',
    prepare = () => {},
  }: { path?: string; pattern?: string; prepare?: (server: ServerForTests) => void } = {},
) {
  const server = new ServerForTests(input);
  prepare(server);
  withoutWorkers();
  const shown = show(
    <main>
      <Routes>
        <Route path={pattern} element={<Place />} />
      </Routes>
    </main>,
    { path },
  );
  const main = await screen.findByRole('main');
  return { ...shown, server, text: () => plain(main.textContent) };
}

/** Opens a board at a place of it, as its page would. */
export async function openBoardAt(Place: ComponentType, input: PlanInput, system: 'metric' | 'inch' = 'metric') {
  const server = new ServerForTests(input);
  withoutWorkers();
  const shown = show(
    <OpenBoardProvider id="b1" loading={<p>Loading</p>} failed={(message) => <p>Failed: {message}</p>}>
      <main>
        <Place />
      </main>
    </OpenBoardProvider>,
    { system, path: '/boards/b1/layout' },
  );
  const main = await screen.findByRole('main');
  return { ...shown, server, text: () => plain(main.textContent) };
}
