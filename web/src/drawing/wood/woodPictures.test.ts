import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import type { PaintAnswer, PainterRequest, PaintRequest } from './woodWorker.ts';

/** A painter that paints when it is told to. */
class Painter {
  static all: Painter[] = [];
  readonly asked: PaintRequest[][] = [];
  readonly forgotten: string[] = [];
  onmessage: ((event: { data: PaintAnswer[] }) => void) | null = null;

  constructor() {
    Painter.all.push(this);
  }

  postMessage(request: PainterRequest): void {
    if ('forget' in request) this.forgotten.push(request.forget);
    else this.asked.push(request);
  }

  /** Answers the oldest request that is open. */
  paint(): void {
    const requests = this.asked.shift()!;
    this.onmessage!({
      data: requests.map(({ key, sketch }) => ({
        key,
        url: sketch ? `sketch of ${key}` : `picture of ${key}`,
        blob: sketch ? null : new Blob([key]),
      })),
    });
  }
}

let frames: (() => void)[] = [];
/** Runs what waits for the next frame. */
const frame = () => {
  const due = frames;
  frames = [];
  for (const run of due) run();
};
const handedOut = () => Promise.resolve();

let woodPictures: typeof import('./woodPictures.ts').woodPictures;
beforeEach(async () => {
  Painter.all = [];
  frames = [];
  vi.stubGlobal('Worker', Painter);
  vi.stubGlobal('requestAnimationFrame', (run: () => void) => frames.push(run));
  vi.resetModules();
  ({ woodPictures } = await import('./woodPictures.ts'));
});
afterEach(() => {
  vi.unstubAllGlobals();
});

const request = (key: string, first = false, [length, width] = [100, 10]): PaintRequest => ({
  key,
  log: {} as PaintRequest['log'],
  cut: { size: [length, width] } as unknown as PaintRequest['cut'],
  scale: 1,
  oiled: false,
  first,
});
const keysOf = (requests: readonly PaintRequest[]) => requests.map((r) => `${r.key}${r.sketch ? ' (sketch)' : ''}`);

it('sketches of what is looked at go out first, all in one message, and are shown the moment they are there', async () => {
  const told = vi.fn();
  woodPictures.use(request('shelf'), () => {});
  woodPictures.use(request('a', true), told);
  woodPictures.use(request('b', true), told);
  await handedOut();
  const [painter] = Painter.all;
  expect(keysOf(painter!.asked[0]!)).toEqual(['a (sketch)', 'b (sketch)']);
  expect(painter!.asked).toHaveLength(1);
  painter!.paint();
  // No frame has to pass.
  expect(told).toHaveBeenCalledTimes(2);
  expect([woodPictures.url('a'), woodPictures.url('b'), woodPictures.url('shelf')]).toEqual([
    'sketch of a',
    'sketch of b',
    null,
  ]);
});

it('then the real pictures, those looked at before the others and the large before the small, told once a frame', async () => {
  const told = vi.fn();
  woodPictures.use(request('shelf', false, [500, 50]), told);
  woodPictures.use(request('small', true, [100, 5]), told);
  woodPictures.use(request('large', true, [100, 40]), told);
  await handedOut();
  Painter.all[0]!.paint();
  told.mockClear();
  // The first answer brings a second painter.
  expect(Painter.all).toHaveLength(2);
  const open = Painter.all.flatMap((p) => p.asked.flatMap(keysOf));
  expect(open.sort()).toEqual(['large', 'small']);
  for (const painter of Painter.all) painter.paint();
  expect(told).not.toHaveBeenCalled();
  frame();
  expect(told).toHaveBeenCalledTimes(2);
  expect(woodPictures.url('large')).toBe('picture of large');
  expect(Painter.all.flatMap((p) => p.asked.flatMap(keysOf))).toEqual(['shelf']);
});

it('a sketch that comes after the picture is of no use', async () => {
  woodPictures.use(request('a', true), () => {});
  await handedOut();
  const [painter] = Painter.all;
  painter!.onmessage!({ data: [{ key: 'a', url: 'picture of a', blob: new Blob(['a']) }] });
  painter!.onmessage!({ data: [{ key: 'a', url: 'late sketch', blob: null }] });
  expect(woodPictures.url('a')).toBe('picture of a');
});

it('the same cut at the same scale is painted once, however many show it', async () => {
  const told = [vi.fn(), vi.fn(), vi.fn()];
  for (const one of told) woodPictures.use(request('a'), one);
  await handedOut();
  expect(Painter.all.flatMap((p) => p.asked.flatMap(keysOf))).toEqual(['a']);
  Painter.all[0]!.paint();
  frame();
  for (const one of told) expect(one).toHaveBeenCalledTimes(1);
});

it('what nobody waits for any more is not painted, and everything then counts as painted', async () => {
  const busy = woodPictures.use(request('busy'), () => {});
  await handedOut();
  const letGo = woodPictures.use(request('gone'), () => {});
  woodPictures.use(request('kept'), () => {});
  letGo();
  const done = vi.fn();
  void woodPictures.allPainted().then(done);
  Painter.all[0]!.paint();
  const open = Painter.all.flatMap((p) => p.asked.flatMap(keysOf));
  expect(open).toEqual(['kept']);
  for (const painter of Painter.all) if (painter.asked.length > 0) painter.paint();
  await new Promise((resolve) => setTimeout(resolve, 0));
  expect(done).toHaveBeenCalledTimes(1);
  busy();
});

it('pictures nobody shows are kept for a while; then the oldest are given up, and their addresses with them', async () => {
  const letGo: (() => void)[] = [];
  for (let i = 0; i < 310; i += 1) letGo.push(woodPictures.use(request(`w${i}`), () => {}));
  await handedOut();
  for (let open = true; open;) {
    open = false;
    for (const painter of Painter.all)
      while (painter.asked.length > 0) {
        painter.paint();
        open = true;
      }
    await handedOut();
  }
  frame();
  for (const release of letGo) release();
  const forgotten = Painter.all.flatMap((p) => p.forgotten);
  expect(forgotten).toHaveLength(10);
  expect(forgotten).toContain('picture of w0');
  expect(woodPictures.url('w0')).toBeNull();
  expect(woodPictures.url('w309')).toBe('picture of w309');
});

it('the file of a picture is there for drawings that go out, that of a sketch is not', async () => {
  woodPictures.use(request('a', true), () => {});
  await handedOut();
  Painter.all[0]!.paint();
  expect(woodPictures.blob('a')).toBeNull();
  for (const painter of Painter.all) if (painter.asked.length > 0) painter.paint();
  expect(await woodPictures.blob('a')!.text()).toBe('a');
});
