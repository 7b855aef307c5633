import { existsSync } from 'node:fs';
import { join } from 'node:path';
import compression from 'compression';
import express, { Router, type Express, type RequestHandler } from 'express';
import helmet from 'helmet';
import type { Knex } from 'knex';
import type { Logger } from 'pino';
import { apiRoutes } from './apiRoutes.ts';
import { allowedHosts, onlyOurs, onlyOwnSite } from './guard.ts';
import { healthRoutes } from './health.ts';
import { confirmRoutes } from './auth/confirmRoutes.ts';
import { Guesses } from './auth/guesses.ts';
import { gate } from './auth/gate.ts';
import { deviceLimit, strangerLimit } from './auth/limits.ts';
import { signInRoutes } from './auth/signInRoutes.ts';
import type { Keeper } from './backup/keeper.ts';
import { backupRoutes } from './backup/backupRoutes.ts';
import type { LiveRoutes } from './live/liveRoutes.ts';
import type { WorkerPool } from './workers/workerPool.ts';
import type { Around } from './operation.ts';
import { makeLog, requestLog } from './watch/requestLog.ts';
import { Metrics } from './watch/metrics.ts';
import { openApiDocument } from './openapi.ts';
import { PlannedWork } from './planning/plannedWork.ts';
import { ShopPlanner } from './planning/planShop.ts';
import { answerProblem, notFound } from './problem.ts';

export interface AppOptions {
  /** The built interface; null serves the API alone. */
  webFolder?: string | null;
  /** Names under which the server may be asked; those of this machine when not given. */
  hosts?: ReadonlySet<string>;
  /** Threads for what may take long; null does everything in this one. */
  workers?: WorkerPool | null;
  /** What is to be done in the shop; null plans it in this thread. */
  work?: PlannedWork | null;
  /** Why the database cannot be reached just now, as far as anybody knows. */
  trouble?: () => string | null;
  /** Open pages that are told what is stored; null tells none. */
  live?: LiveRoutes | null;
  /** What looks after the database; null offers no backups. */
  keeper?: Keeper | null;
  /** How it stands in its network: where others can reach it, only known devices are let in. */
  around?: Around;
  /** Proxies that may say for whom they ask, as addresses or nets. */
  proxies?: readonly string[];
  /** It has a certificate of its own. */
  tls?: boolean;
  /** Where answers are written down; null for nowhere. */
  log?: Logger | null;
  /** Its figures are told to other machines too. */
  metricsForAll?: boolean;
  /** Requests of one device, and refusals of one address, in ten seconds, before it has to wait; as many as nobody comes to when not given. */
  limits?: { requests?: number; refusals?: number };
  /** Whether it is ending: it does what is under way, and is not ready for more. */
  ending?: () => boolean;
}

const WORTH_PACKING_BYTES = 20_000;
const ALONE: Around = { asked: false, addresses: [] };

/** The cut plan's solver is WebAssembly; nothing else may make code. Style attributes come from the drawing and component libraries. */
const headers = (tls: boolean) =>
  helmet({
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        defaultSrc: ["'self'"],
        scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
        workerSrc: ["'self'"],
        styleSrc: ["'self'", "'unsafe-inline'"],
        imgSrc: ["'self'", 'data:', 'blob:'],
        objectSrc: ["'none'"],
        baseUri: ["'none'"],
        formAction: ["'self'"],
        frameAncestors: ["'none'"],
      },
    },
    referrerPolicy: { policy: 'same-origin' },
    xFrameOptions: { action: 'deny' },
    // Only a server with a certificate of its own may promise to be reached by TLS alone.
    strictTransportSecurity: tls && { maxAge: 15_552_000, includeSubDomains: false },
  });

/** Of all that a page could ask of a device, the bench keeps its screen on, and what is shown may be copied and seen large. */
const PERMISSIONS = [
  ...[
    ...['accelerometer', 'bluetooth', 'camera', 'display-capture', 'geolocation', 'gyroscope', 'hid', 'magnetometer'],
    ...['microphone', 'midi', 'payment', 'publickey-credentials-get', 'serial', 'usb', 'xr-spatial-tracking'],
  ].map((name) => `${name}=()`),
  ...['screen-wake-lock', 'clipboard-write', 'fullscreen'].map((name) => `${name}=(self)`),
].join(', ');

const permissions: RequestHandler = (_request, response, next) => {
  response.set('Permissions-Policy', PERMISSIONS);
  next();
};

function plannedHere(db: Knex): PlannedWork {
  const planner = new ShopPlanner(db);
  return new PlannedWork(db, (now, stopped) => planner.bringUpToDate(now, () => stopped.value));
}

/**
 * The whole server: the API under /api and, when built, the interface. It keeps no state of its own, so several can run on one database.
 */
export function createApp(
  db: Knex,
  {
    webFolder = null,
    hosts = allowedHosts('127.0.0.1'),
    workers = null,
    work = null,
    trouble = () => null,
    live = null,
    keeper = null,
    around = ALONE,
    proxies = [],
    tls = false,
    log = null,
    metricsForAll = false,
    ending = () => false,
    limits = {},
  }: AppOptions = {},
): Express {
  const app = express();
  app.disable('x-powered-by');
  app.set('trust proxy', [...proxies]);
  const metrics = new Metrics({
    openPages: () => live?.count ?? 0,
    connectionsInUse: () => (db.client as { pool?: { numUsed(): number } }).pool?.numUsed() ?? 0,
  });
  app.use(requestLog(log ?? makeLog('silent'), metrics), headers(tls), permissions, onlyOurs(hosts));
  // This machine's own watchman is not asked who he is.
  app.get('/metrics', onlyOwnSite(hosts), metrics.page(false));
  const guesses = new Guesses(db);
  if (around.asked)
    app.use(
      strangerLimit(limits.refusals),
      signInRoutes(db, guesses),
      gate(db),
      deviceLimit(limits.requests),
      confirmRoutes(db, guesses),
    );

  if (metricsForAll) app.get('/metrics', onlyOwnSite(hosts), metrics.page(true));
  // To pack a little takes longer than to send it; lists are packed once for all who ask (apiRoutes).
  app.use(compression({ threshold: WORTH_PACKING_BYTES }));
  app.get('/api/openapi.json', (_request, response) => {
    response.json(openApiDocument());
  });
  app.use(
    '/api',
    (_request, response, next) => {
      response.set('Cache-Control', 'no-store');
      next();
    },
    healthRoutes(db, trouble, ending),
    ...(live ? [Router().use('/live', onlyOwnSite(hosts)), live.router] : []),
    ...(keeper ? [backupRoutes(db, keeper)] : []),
    apiRoutes(db, workers, around, work ?? plannedHere(db)),
  );
  app.use('/api', () => {
    throw notFound('This address');
  });
  if (webFolder !== null && existsSync(webFolder)) {
    app.use(
      '/assets',
      express.static(join(webFolder, 'assets'), { immutable: true, maxAge: '1y', fallthrough: false }),
    );
    app.use(express.static(webFolder, { index: false }));
    app.use((request, response) => {
      const early = askedEarly(request.path);
      if (early.length > 0)
        response.set('Link', early.map((path) => `</api${path}>; rel=preload; as=fetch; crossorigin`).join(', '));
      response.set('Cache-Control', 'no-cache').sendFile(join(webFolder, 'index.html'));
    });
  }
  app.use(answerProblem(trouble, log));
  return app;
}

/** What a page of a board asks for as soon as it runs: the browser fetches it while it still reads the code. */
function askedEarly(path: string): string[] {
  const [, id] = /^\/boards\/([A-Za-z0-9_-]{1,40})\/[a-z]+$/.exec(path) ?? [];
  return id === undefined
    ? []
    : [`/boards/${id}`, `/boards/${id}/facts`, '/rack', '/shop', '/species', `/saw?boards=${id}`];
}
