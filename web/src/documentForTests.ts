import { notifications } from '@mantine/notifications';
import { cleanup, configure } from '@testing-library/react';
import { afterEach, vi } from 'vitest';
import { letGoOfFacts } from './data/facts.ts';
import { queryClient } from './data/queryClient.ts';

// What the page asks of a browser and a document without a screen does not have.
window.matchMedia = (query: string) =>
  ({ matches: false, media: query, addEventListener() {}, removeEventListener() {} }) as unknown as MediaQueryList;
/** Everything is as large as the drawing of a desk: 1200 by 700 pixels. */
const DRAWN = { x: 0, y: 0, top: 0, left: 0, width: 1200, height: 700, right: 1200, bottom: 700 };
window.ResizeObserver = class {
  constructor(private readonly told: ResizeObserverCallback) {}
  observe(target: Element) {
    this.told([{ target, contentRect: DRAWN } as unknown as ResizeObserverEntry], this);
  }
  unobserve() {}
  disconnect() {}
};
for (const [side, size] of [
  ['clientWidth', DRAWN.width],
  ['clientHeight', DRAWN.height],
] as const)
  Object.defineProperty(Element.prototype, side, { configurable: true, get: () => size });
/** Elements that hold the pointer, as a browser knows them. */
const capturing = new WeakSet<Element>();
Element.prototype.setPointerCapture = function (this: Element) {
  capturing.add(this);
};
Element.prototype.hasPointerCapture = function (this: Element) {
  return capturing.has(this);
};
Element.prototype.releasePointerCapture = function (this: Element) {
  capturing.delete(this);
};
Element.prototype.scrollIntoView = () => {};
Object.defineProperty(document, 'fonts', {
  configurable: true,
  value: { addEventListener() {}, removeEventListener() {}, load: () => Promise.resolve([]), ready: Promise.resolve() },
});

/** What React, the browser's stand-in or a library complains of while a test runs fails that test. */
const complaints: string[] = [];
for (const way of ['error', 'warn'] as const)
  vi.spyOn(console, way).mockImplementation((...said: unknown[]) => void complaints.push(said.map(String).join(' ')));

afterEach(() => {
  const said = complaints.splice(0);
  if (said.length > 0) throw new Error(`This test made the page complain: ${said[0]}`);
});

afterEach(() => {
  cleanup();
  // What one test was told in passing would keep the next from being told anything: five stand at once.
  notifications.cleanQueue();
  notifications.clean();
  letGoOfFacts();
  queryClient.clear();
  localStorage.clear();
  sessionStorage.clear();
  vi.unstubAllGlobals();
});

// The whole document in every failure would hide what failed. How long a slow machine takes decides nothing here either.
configure({
  asyncUtilTimeout: 60_000,
  getElementError: (message) => new Error(message?.split('\n\n')[0] ?? 'not found'),
});
