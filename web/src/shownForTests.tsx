import { MantineProvider } from '@mantine/core';
import { QueryClientProvider } from '@tanstack/react-query';
import { fireEvent, render, screen, waitFor } from '@testing-library/react';
import type { ReactElement } from 'react';
import { MemoryRouter } from 'react-router';
import { expect } from 'vitest';
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

/** The tabs are these, without their figures, once what was changed is planned. */
export const tabsAre = (names: readonly string[]) =>
  waitFor(() =>
    expect(screen.queryAllByRole('tab').map((t) => plain(t.textContent).replace(/\d.*$/, ''))).toEqual(names),
  );

/** The field of this name: found by its only label, as most are, without asking every element how it is labelled. */
export function field(name: string): HTMLInputElement {
  const labels = [...document.querySelectorAll('label')].filter((l) => l.htmlFor !== '' && l.textContent === name);
  const labelled = labels.length === 1 && labels[0] ? document.getElementById(labels[0].htmlFor) : null;
  return labelled?.matches('input, textarea')
    ? (labelled as HTMLInputElement)
    : screen.getByLabelText<HTMLInputElement>(name, { selector: 'input, textarea' });
}

/** Types into a field in place of what stands there, and leaves it. */
export function type(name: string, text: string): void {
  fireEvent.change(field(name), { target: { value: text } });
  fireEvent.blur(field(name));
}

/** Presses a button of this name: found by its words alone where only one has them, without asking every element what it is. */
export function press(name: string | RegExp): void {
  const worded = [...document.querySelectorAll('button')].filter((b) => b.textContent.trim() === name);
  const [only] = worded.length === 1 ? worded : [];
  const plainly = only && ['role', 'aria-label', 'aria-labelledby'].every((a) => !only.hasAttribute(a));
  fireEvent.click(plainly && !only.closest('[aria-hidden="true"]') ? only : screen.getByRole('button', { name }));
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
