import { MantineProvider } from '@mantine/core';
import { QueryClientProvider } from '@tanstack/react-query';
import { fireEvent, render, screen } from '@testing-library/react';
import type { ReactElement } from 'react';
import { MemoryRouter } from 'react-router';
import { queryClient } from './data/queryClient.ts';
import { DisplayProvider } from './quantities/display.tsx';
import { ShortcutProvider } from './shortcuts/Shortcuts.tsx';

/** Shows something as the application would, to a reader of these units, and without its animations. @param path the page it stands on */
export function show(
  element: ReactElement,
  { system = 'metric', path = '/' }: { system?: 'metric' | 'inch'; path?: string } = {},
) {
  localStorage.setItem('cadenza.display', JSON.stringify({ system }));
  return render(
    <MantineProvider env="test" withGlobalClasses={false}>
      <QueryClientProvider client={queryClient}>
        <DisplayProvider>
          <ShortcutProvider>
            <MemoryRouter initialEntries={[path]}>{element}</MemoryRouter>
          </ShortcutProvider>
        </DisplayProvider>
      </QueryClientProvider>
    </MantineProvider>,
  );
}

/** Text with plain spaces, a line for one. */
export const plain = (text: string | null) => (text ?? '').replace(/[\u00a0\u202f]/g, ' ').replace(/\s+/g, ' ');

/** The field of this name. */
export const field = (name: string) => screen.getByLabelText<HTMLInputElement>(name, { selector: 'input, textarea' });

/** Types into a field in place of what stands there, and leaves it. */
export function type(name: string, text: string): void {
  fireEvent.change(field(name), { target: { value: text } });
  fireEvent.blur(field(name));
}

/** Presses a button of this name. */
export function press(name: string | RegExp): void {
  fireEvent.click(screen.getByRole('button', { name }));
}

/** What a field says is wrong with it; null where nothing is. */
export function said(name: string): string | null {
  const input = field(name);
  if (input.getAttribute('aria-invalid') !== 'true') return null;
  return (input.getAttribute('aria-describedby') ?? '')
    .split(' ')
    .filter((id) => id.endsWith('-error'))
    .map((id) => document.getElementById(id)?.textContent ?? '')
    .join('');
}
