import { TAKE_OVER } from './keptAnswers.ts';

type Listener = () => void;
const listeners = new Set<Listener>();
let newer: ServiceWorker | null = null;

/** Whether a newer Cadenza is here and waits to be taken. */
export const newerIsHere = (): boolean => newer !== null;
/** @returns ends it */
export function onNewer(listener: Listener): () => void {
  listeners.add(listener);
  return () => void listeners.delete(listener);
}

function waits(worker: ServiceWorker | null): void {
  newer = worker;
  for (const listener of listeners) listener();
}

/** Takes the newer Cadenza: the page is loaded anew with it, and with all that is not sent yet. */
export function takeNewer(): void {
  newer?.postMessage(TAKE_OVER);
}

/**
 * Keeps the application on this device, so that it opens without a server. Only where the browser lets pages do so: on this machine, or with TLS. A newer one that waits
 * when a page has just begun is taken at once; later the page asks.
 */
export async function keepApplication(): Promise<void> {
  if (!('serviceWorker' in navigator) || !window.isSecureContext) return;
  const { serviceWorker } = navigator;
  const updated = serviceWorker.controller !== null;
  serviceWorker.addEventListener('controllerchange', () => {
    // The first one comes without anything being another.
    if (updated) window.location.reload();
  });
  const registration = await serviceWorker.register('/sw.js');
  if (registration.waiting && updated) {
    registration.waiting.postMessage(TAKE_OVER);
    return;
  }
  registration.addEventListener('updatefound', () => {
    const worker = registration.installing;
    worker?.addEventListener('statechange', () => {
      if (worker.state === 'installed' && serviceWorker.controller !== null) waits(worker);
    });
  });
}
