import { screen } from '@testing-library/react';
import type { ComponentType } from 'react';
import { vi } from 'vitest';
import type { PlanInput } from '#core/saw/planInput.ts';
import { OpenBoardProvider } from './data/openBoard.tsx';
import { ServerForTests } from './serverForTests.ts';
import { plain, show } from './shownForTests.tsx';

/** Opens a board at a place of it, as its page would. What is painted or searched for beside the page plays no part. */
export async function openBoardAt(Place: ComponentType, input: PlanInput, system: 'metric' | 'inch' = 'metric') {
  const server = new ServerForTests(input);
  vi.stubGlobal(
    'Worker',
    class {
      postMessage() {}
      terminate() {}
    },
  );
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
