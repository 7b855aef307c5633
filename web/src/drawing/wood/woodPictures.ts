import type { PaintAnswer, PaintRequest } from './woodWorker.ts';

/** Pictures nobody shows any more are kept up to this many, for when they come back. */
const MOST_IDLE = 300;

interface Picture {
  url: string | null;
  /** The file, for drawings that are exported. */
  blob: Blob | null;
  users: number;
}

/**
 * Pictures of wood, painted in a worker and shared by everything that shows the same cut of the same piece at the same scale. Those no longer shown are
 * kept for a while, oldest given up first.
 */
class WoodPictures {
  private readonly pictures = new Map<string, Picture>();
  private readonly listeners = new Map<string, Set<() => void>>();
  private worker: Worker | undefined;
  private waiting = 0;
  private readonly settled = new Set<() => void>();

  url(key: string): string | null {
    return this.pictures.get(key)?.url ?? null;
  }

  blob(key: string): Blob | null {
    return this.pictures.get(key)?.blob ?? null;
  }

  /** Asks for a picture and is told when it is there. @returns lets go of it */
  use(request: PaintRequest, told: () => void): () => void {
    const { key } = request;
    const picture = this.pictures.get(key) ?? this.paint(request);
    picture.users += 1;
    this.pictures.delete(key);
    this.pictures.set(key, picture);
    const listeners = this.listeners.get(key) ?? new Set();
    listeners.add(told);
    this.listeners.set(key, listeners);
    return () => {
      picture.users -= 1;
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
    const picture: Picture = { url: null, blob: null, users: 0 };
    this.worker ??= this.start();
    this.waiting += 1;
    this.worker.postMessage(request);
    return picture;
  }

  private start(): Worker {
    const worker = new Worker(new URL('./woodWorker.ts', import.meta.url), { type: 'module' });
    worker.onmessage = ({ data: { key, file } }: MessageEvent<PaintAnswer>) => {
      this.waiting -= 1;
      const picture = this.pictures.get(key);
      if (picture && picture.url === null) {
        picture.blob = new Blob([file], { type: 'image/bmp' });
        picture.url = URL.createObjectURL(picture.blob);
        for (const told of this.listeners.get(key) ?? []) told();
      }
      if (this.waiting === 0) {
        for (const done of this.settled) done();
        this.settled.clear();
      }
    };
    return worker;
  }

  private tidy(): void {
    let idle = 0;
    for (const picture of this.pictures.values()) if (picture.users === 0 && picture.url !== null) idle += 1;
    for (const [key, picture] of this.pictures) {
      if (idle <= MOST_IDLE) return;
      if (picture.users > 0 || picture.url === null) continue;
      URL.revokeObjectURL(picture.url);
      this.pictures.delete(key);
      idle -= 1;
    }
  }
}

export const woodPictures = new WoodPictures();
