import { expect } from 'vitest';
import type { LiveChange, Presence } from '#contract/live.ts';

export interface Said {
  event: string;
  id: number | null;
  data: unknown;
}

/** An open page: what it was told, and waiting for something of it. */
export class Page {
  readonly said: Said[] = [];
  /** When the stream has ended, by whoever's will. */
  over: Promise<void> = Promise.resolve();
  private readonly end = new AbortController();
  private woken: () => void = () => {};

  static async at(at: { base: string }, query: string, headers: Record<string, string> = {}): Promise<Page> {
    const page = new Page();
    const response = await fetch(`${at.base}/live?${query}`, { signal: page.end.signal, headers });
    expect([response.status, response.headers.get('content-type')]).toEqual([200, 'text/event-stream; charset=utf-8']);
    page.over = page.read(response).catch(() => {});
    return page;
  }

  private async read(response: Response): Promise<void> {
    let text = '';
    const decoder = new TextDecoder();
    for await (const part of response.body!) {
      text += decoder.decode(part, { stream: true });
      const blocks = text.split('\n\n');
      text = blocks.pop() ?? '';
      for (const block of blocks) {
        const of = (name: string) => new RegExp(`^${name}: (.*)$`, 'm').exec(block)?.[1];
        const event = of('event');
        if (event !== undefined)
          this.said.push({
            event,
            id: of('id') === undefined ? null : Number(of('id')),
            data: JSON.parse(of('data')!),
          });
      }
      this.woken();
    }
  }

  async until(right: (said: Said[]) => boolean): Promise<void> {
    while (!right(this.said)) await new Promise<void>((resolve) => (this.woken = resolve));
  }

  get changes(): LiveChange[] {
    return this.said.flatMap((s) => (s.event === 'change' ? (s.data as LiveChange[]) : []));
  }

  get here(): string[] {
    const last = this.said.findLast((s) => s.event === 'here');
    return ((last?.data ?? []) as Presence[]).map((p) => p.name);
  }

  close(): void {
    this.end.abort();
  }
}
