import { Router, type Response } from 'express';
import type { Knex } from 'knex';
import { liveQuerySchema, type LiveChange, type Presence } from '#contract/live.ts';
import { askerOf, type Asker } from '../auth/gate.ts';
import { Problem, validated } from '../problem.ts';
import { changesAfter, isRemembered, newestChange } from '../stores/changeStore.ts';
import { knownDevices } from '../stores/deviceStore.ts';
import { come, leave, stay, whoIsHere } from '../stores/presenceStore.ts';
import { nameAsked, STREAM } from '../watch/requestLog.ts';
import type { ChangeFeed } from './changeFeed.ts';

/** More open pages than that on one server are a mistake, or worse. */
const MOST_STREAMS = 500;
const MOST_MISSED = 1000;
/** So often a stream says that it is alive, and pages that they are open, ms. */
const ALIVE_EVERY_MS = 10_000;
/** A browser comes back so soon after a stream has ended, ms. */
const COME_BACK_MS = 1000;

interface Stream {
  presence: Presence;
  response: Response;
  /** On which device it is open, and what that may. */
  asker: Asker;
  /** What is stored while its beginning is looked up; null once it is told as it comes. */
  early: LiveChange[] | null;
  /** What it was told when it came back, by number: the feed may be about to tell it too. */
  missed: ReadonlySet<number>;
}

/** Open pages and what they are told: `change` with what was stored, `here` with who is at which board, `anew` to a page that was away for too long. */
export class LiveRoutes {
  private readonly streams = new Set<Stream>();
  private readonly alive: ReturnType<typeof setInterval>;
  private following: Promise<() => void> | null = null;
  /** Boards to which somebody came, or that somebody left, and that was not told yet. */
  private moved = new Set<string | null>();
  private tellingWhoIsHere = false;
  readonly router: Router;

  constructor(
    private readonly db: Knex,
    private readonly feed: ChangeFeed,
  ) {
    this.alive = setInterval(() => void this.sayAlive(), ALIVE_EVERY_MS).unref();
    this.router = Router().get('/live', async (request, response) => {
      nameAsked(response, STREAM);
      const { tab, name, board = null, after } = validated(liveQuerySchema, request.query);
      if (this.streams.size >= MOST_STREAMS)
        throw new Problem(503, 'busy', `More than ${MOST_STREAMS} pages are open here. Close some; nothing is lost.`);
      const last = Number(request.headers['last-event-id'] ?? after);
      const asker = askerOf(response);
      // A device that is known is called as it is in the list of them.
      const presence = { tab, name: asker.device?.name ?? name, board };
      await this.open(
        { presence, response, asker, early: [], missed: new Set() },
        Number.isInteger(last) ? last : null,
      );
    });
  }

  /** Streams that are open. */
  get count(): number {
    return this.streams.size;
  }

  /** Ends every stream: the pages come back to whoever serves then. */
  stop(): void {
    clearInterval(this.alive);
    this.feed.stop();
    for (const { response } of this.streams) response.end();
  }

  private async open(stream: Stream, after: number | null): Promise<void> {
    const { response, presence } = stream;
    this.streams.add(stream);
    response.on('close', () => this.closed(stream));
    try {
      await (this.following ??= this.feed.subscribe((changes) => this.tellAll(changes)));
      const newest = await newestChange(this.db);
      // One that heard of more than there is was told by another past of this shop: a backup was restored.
      const known = after === null || after === newest || (after < newest && (await isRemembered(this.db, after)));
      const since = after !== null && known ? await changesAfter(this.db, after, MOST_MISSED + 1) : [];
      const missed = since.filter(isStored);
      await come(this.db, presence);
      if (response.destroyed) {
        // It went while it was being let in: nobody else says that it is gone.
        await leave(this.db, presence);
        return;
      }
      response.set({
        'Content-Type': 'text/event-stream; charset=utf-8',
        // Nobody between may keep it back or pack it.
        'Cache-Control': 'no-store, no-transform',
        'X-Accel-Buffering': 'no',
      });
      response.write(`retry: ${COME_BACK_MS}\n\n`);
      say(response, 'you', { may: stream.asker.may });
      const upTo = Math.min(this.feed.whole, Math.max(newest, since.at(-1)?.id ?? 0));
      if (!known || since.length > MOST_MISSED) say(response, 'anew', {}, upTo);
      else say(response, 'change', missed, upTo);
      const early = stream.early ?? [];
      stream.missed = new Set(since.map((c) => c.id));
      stream.early = null;
      this.tellStored(stream, early);
      this.tellWhoIsHere([presence.board]);
    } catch (error) {
      this.closed(stream);
      throw error;
    }
  }

  private closed(stream: Stream): void {
    if (!this.streams.delete(stream)) return;
    // A page that never came has nothing to leave.
    if (stream.early === null) void leave(this.db, stream.presence).catch(() => {});
    if (this.streams.size > 0) return;
    void this.following?.then((end) => end()).catch(() => {});
    this.following = null;
  }

  private tellAll(changes: readonly LiveChange[]): void {
    const stored = changes.filter(isStored);
    for (const stream of this.streams) {
      if (stream.early) stream.early.push(...stored);
      else this.tellStored(stream, stored);
    }
    if (changes.some((c) => c.topics.includes('devices'))) void this.tellDevices().catch(() => {});
    this.tellWhoIsHere(changes.flatMap((c) => (c.topics.includes('here') ? [c.board] : [])));
  }

  private tellStored({ response, missed }: Stream, stored: readonly LiveChange[]): void {
    const fresh = stored.filter((c) => !missed.has(c.id));
    if (fresh.length > 0) say(response, 'change', fresh, this.feed.whole);
  }

  /** Tells pages who is at their board. One answer after the other, each asked for when the one before was told: of two that overtake each other the older would stay. */
  private tellWhoIsHere(boards: readonly (string | null)[]): void {
    for (const board of boards) this.moved.add(board);
    if (this.moved.size === 0 || this.tellingWhoIsHere) return;
    void this.tellMoved().catch(() => {});
  }

  private async tellMoved(): Promise<void> {
    this.tellingWhoIsHere = true;
    try {
      while (this.moved.size > 0) {
        const moved = this.moved;
        this.moved = new Set();
        const here = await whoIsHere(this.db);
        for (const stream of this.streams)
          if (stream.early === null && (moved.has(null) || moved.has(stream.presence.board)))
            sayWhoIsHere(stream, here);
      }
    } finally {
      // At once, not when whoever waits for this hears of it: who moves in between would be told to nobody.
      this.tellingWhoIsHere = false;
    }
  }

  /** A device that was ended hears nothing more; another learns what it may now. */
  private async tellDevices(): Promise<void> {
    if ([...this.streams].every((s) => s.asker.device === null)) return;
    const known = new Map((await knownDevices(this.db)).map((d) => [d.id, d]));
    for (const { asker, response } of this.streams) {
      if (asker.device === null) continue;
      const now = known.get(asker.device.id);
      if (now) say(response, 'you', { may: now.may });
      else response.end();
    }
  }

  private async sayAlive(): Promise<void> {
    const open = [...this.streams].filter((s) => s.early === null);
    for (const { response } of open) say(response, 'alive', {});
    await stay(
      this.db,
      open.map((s) => s.presence.tab),
    ).catch(() => {});
  }
}

/** Who comes and goes is told in a way of its own. */
const isStored = (change: LiveChange): boolean => !change.topics.includes('here');

function sayWhoIsHere({ response, presence }: Stream, here: readonly Presence[]): void {
  if (presence.board !== null && !response.destroyed)
    say(
      response,
      'here',
      here.filter((p) => p.board === presence.board),
    );
}

function say(response: Response, event: string, data: unknown, id?: number): void {
  response.write(`event: ${event}\n${id === undefined ? '' : `id: ${id}\n`}data: ${JSON.stringify(data)}\n\n`);
}
