import { existsSync } from 'node:fs';
import { join } from 'node:path';
import compression from 'compression';
import express, { type Express } from 'express';
import type { Knex } from 'knex';
import { openApiDocument } from './openapi.ts';
import { answerProblem, notFound } from './problem.ts';
import { boardRoutes } from './routes/boards.ts';
import { glueRunRoutes } from './routes/glueRuns.ts';
import { healthRoutes } from './routes/health.ts';
import { rackRoutes } from './routes/rack.ts';
import { sawRoutes } from './routes/saw.ts';
import { shopRoutes } from './routes/shop.ts';

/** The cut plan's solver is WebAssembly; nothing else may make code. */
const POLICY = "default-src 'self'; script-src 'self' 'wasm-unsafe-eval'; worker-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data: blob:; object-src 'none'; base-uri 'none'; frame-ancestors 'none'";

/**
 * The whole server: the API under /api and, when built, the interface. It keeps no state of its own, so several can run on one database.
 * @param webFolder the built interface; null serves the API alone
 */
export function createApp(db: Knex, webFolder: string | null): Express {
  const app = express();
  app.disable('x-powered-by');
  app.use((_request, response, next) => {
    response.set({ 'Content-Security-Policy': POLICY, 'X-Content-Type-Options': 'nosniff', 'Referrer-Policy': 'same-origin' });
    next();
  });
  app.use(compression());
  app.use('/api', express.json({ limit: '10mb', strict: false }));
  const openApi = openApiDocument();
  app.get('/api/openapi.json', (_request, response) => {
    response.json(openApi);
  });
  app.use('/api', (_request, response, next) => {
    response.set('Cache-Control', 'no-store');
    next();
  }, healthRoutes(db), rackRoutes(db), shopRoutes(db), sawRoutes(db), glueRunRoutes(db), boardRoutes(db));
  app.use('/api', () => {
    throw notFound('This address');
  });
  if (webFolder !== null && existsSync(webFolder)) {
    app.use('/assets', express.static(join(webFolder, 'assets'), { immutable: true, maxAge: '1y', fallthrough: false }));
    app.use(express.static(webFolder, { index: false }));
    app.use((_request, response) => {
      response.set('Cache-Control', 'no-cache').sendFile(join(webFolder, 'index.html'));
    });
  }
  app.use(answerProblem);
  return app;
}
