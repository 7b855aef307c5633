import { certain } from '#core/lists/there.ts';
import type { PaintAnswer, PainterRequest, PaintRequest } from './woodWorker.ts';

/** Pictures nobody shows any more are kept up to this many, for when they come back. */
const MOST_IDLE = 300;
const PAINTERS = 2;
/** A sketch is painted this much coarser: a sixteenth of the work. */
const SKETCH_SCALE = 0.25;

interface Picture {
  url: string | null;
  /** Gives its address up. */
  forget: () => void;
  /** The file, for drawings that are exported. */
  blob: Blob | null;
  /** How many show it; null until the first does. */
  users: number | null;
}

/**
 * Pictures of wood, painted in workers and shared by everything that shows the same cut of the same piece at the same scale. Those no longer shown are
 * kept for a while, oldest given up first.
 */
class WoodPictures {
  private readonly pictures = new Map<string, Picture>();
  private readonly listeners = new Map<string, Set<() => void>>();
  private readonly workers: Worker[] = [];
  /** Painters with nothing to do, and requests that wait for one: those looked at first, then those drawn large. */
  private readonly idle: Worker[] = [];
  private readonly queue: PaintRequest[] = [];
  private waiting = 0;
  /** A painter is at the sketches. */
  private sketching = false;
  private readonly ready = new Set<string>();
  private readonly settled = new Set<() => void>();

  /** Starts painters. One is ready when the first picture is asked for; a second would only slow the page down while it loads. */
  prepare(painters: number): void {
    while (this.workers.length < painters) {
      const worker = this.start();
      this.workers.push(worker);
      this.idle.push(worker);
    }
  }

  url(key: string): string | null {
    return this.pictures.get(key)?.url ?? null;
  }

  blob(key: string): Blob | null {
    return this.pictures.get(key)?.blob ?? null;
  }

  /** Begins a picture that will be shown in a moment: the painter need not wait until the page has been drawn without it. */
  ask(request: PaintRequest): void {
    if (!this.pictures.has(request.key)) this.pictures.set(request.key, this.paint(request));
  }

  /** Asks for a picture and is told when it is there. @returns lets go of it */
  use(request: PaintRequest, told: () => void): () => void {
    const { key } = request;
    const picture = this.pictures.get(key) ?? this.paint(request);
    picture.users = (picture.users ?? 0) + 1;
    this.pictures.delete(key);
    this.pictures.set(key, picture);
    const listeners = this.listeners.get(key) ?? new Set();
    listeners.add(told);
    this.listeners.set(key, listeners);
    return () => {
      picture.users = (picture.users ?? 1) - 1;
      listeners.delete(told);
      if (listeners.size === 0) this.listeners.delete(key);
      this.tidy();
    };
  }

  /** Resolves once everything that was asked for is painted. */
  allPainted(): Promise<void> {
    return this.waiting === 0 ? Promise.resolve() : new Promise((resolve) => this.settled.add(resolve));
  }

  private paint(request: PaintRequest): Picture {
    const picture: Picture = { url: null, forget: () => {}, blob: null, users: null };
    this.waiting += 1;
    this.queue.push(request);
    if (request.first) this.queue.push({ ...request, scale: request.scale * SKETCH_SCALE, sketch: true });
    // All that one render asks for is there before the first is given out.
    queueMicrotask(() => this.handOut());
    return picture;
  }

  private handOut(): void {
    if (this.idle.length === 0 || this.queue.length === 0) return;
    this.dropAbandoned();
    this.queue.sort(
      (a, b) =>
        Number(b.sketch ?? false) - Number(a.sketch ?? false) ||
        Number(b.first) - Number(a.first) ||
        areaOf(b) - areaOf(a),
    );
    while (this.idle.length > 0 && this.queue.length > 0) {
      // All sketches go to one painter in one message, and nothing else is begun before they are there: they are little work, and
      // another painter would only take the processor from them. The real pictures come one by one.
      if (this.sketching) return;
      const sketches = this.queue.findIndex((r) => r.sketch !== true);
      const share = sketches < 0 ? this.queue.length : sketches;
      this.sketching = share > 0;
      certain(this.idle.pop()).postMessage(this.queue.splice(0, Math.max(1, share)) satisfies PainterRequest);
    }
  }

  /** Nobody waits any more for what a window that is being resized asked for a moment ago. */
  private dropAbandoned(): void {
    const wanted = this.queue.filter(({ key }) => this.pictures.get(key)?.users !== 0);
    for (const request of this.queue) {
      if (request.sketch || wanted.includes(request)) continue;
      this.waiting -= 1;
      this.pictures.delete(request.key);
    }
    this.queue.splice(0, this.queue.length, ...wanted);
    this.tellSettled();
  }

  private tellSettled(): void {
    if (this.waiting > 0) return;
    for (const done of this.settled) done();
    this.settled.clear();
  }

  private start(): Worker {
    const worker = new Worker(new URL('./woodWorker.ts', import.meta.url), { type: 'module' });
    worker.onmessage = ({ data }: MessageEvent<PaintAnswer[]>) => {
      this.idle.push(worker);
      const sketches = data.some((a) => a.blob === null);
      if (sketches) this.sketching = false;
      this.prepare(PAINTERS);
      this.handOut();
      for (const answer of data)
        this.take(answer, () => worker.postMessage({ forget: answer.url } satisfies PainterRequest));
      // Sketches come all at once, and are waited for.
      if (sketches) this.tellAll();
    };
    return worker;
  }

  private take({ key, url, blob }: PaintAnswer, forget: () => void): void {
    if (blob) this.waiting -= 1;
    const picture = this.pictures.get(key);
    // A sketch that comes after the real picture is of no use.
    if (picture && (blob || !picture.blob)) {
      Object.assign(picture, { url, blob, forget: blob ? forget : () => {} });
      this.tell(key);
    } else if (blob) forget();
    this.tellSettled();
  }

  /** Tells of pictures together, once a frame: each would be drawn for itself otherwise. */
  private tell(key: string): void {
    if (this.ready.size === 0) {
      requestAnimationFrame(() => this.tellAll());
    }
    this.ready.add(key);
  }

  private tellAll(): void {
    const keys = [...this.ready];
    this.ready.clear();
    for (const one of keys) for (const told of this.listeners.get(one) ?? []) told();
  }

  private tidy(): void {
    let idle = 0;
    for (const picture of this.pictures.values()) if (!picture.users && picture.url !== null) idle += 1;
    for (const [key, picture] of this.pictures) {
      if (idle <= MOST_IDLE) return;
      if (picture.users || picture.url === null) continue;
      picture.forget();
      this.pictures.delete(key);
      idle -= 1;
    }
  }
}

function areaOf({ cut, scale }: PaintRequest): number {
  return cut.size[0] * cut.size[1] * scale * scale;
}

export const woodPictures = new WoodPictures();
if (typeof Worker !== 'undefined') woodPictures.prepare(1);
