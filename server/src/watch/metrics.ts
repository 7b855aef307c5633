import type { RequestHandler } from 'express';
import { Counter, Gauge, Histogram, Registry } from 'prom-client';

/** Seconds between which answers are counted. */
const BUCKETS = [0.005, 0.01, 0.025, 0.05, 0.1, 0.25, 0.5, 1, 2.5, 10];

/** What is going on here just now. */
export interface Gauges {
  openPages(): number;
  connectionsInUse(): number;
}

/** Counts what a server did, in the text format of Prometheus. */
export class Metrics {
  private readonly registry = new Registry();
  private readonly answers: Counter<'operation' | 'status'>;
  private readonly seconds: Histogram<'operation'>;

  constructor({ openPages, connectionsInUse }: Gauges) {
    const registers = [this.registry];
    this.answers = new Counter({
      name: 'cadenza_answers_total',
      help: 'Requests that were answered',
      labelNames: ['operation', 'status'],
      registers,
    });
    this.seconds = new Histogram({
      name: 'cadenza_answer_seconds',
      help: 'How long answers took',
      labelNames: ['operation'],
      buckets: BUCKETS,
      registers,
    });
    new Gauge({
      name: 'cadenza_open_pages',
      help: 'Pages that are told what is stored',
      registers,
      collect() {
        this.set(openPages());
      },
    });
    new Gauge({
      name: 'cadenza_database_connections',
      help: 'Connections to the database in use',
      registers,
      collect() {
        this.set(connectionsInUse());
      },
    });
    new Gauge({
      name: 'cadenza_memory_bytes',
      help: 'Memory of the process',
      registers,
      collect() {
        this.set(process.memoryUsage().rss);
      },
    });
  }

  answered(operation: string, status: number, seconds: number): void {
    this.answers.inc({ operation, status: String(status) });
    this.seconds.observe({ operation }, seconds);
  }

  /** Answers with all of it. @param everybody also those who come from another machine; else only this one */
  page(everybody: boolean): RequestHandler {
    return async (request, response, next) => {
      const own = /^(::1|(::ffff:)?127(\.\d{1,3}){3})$/.test(request.socket.remoteAddress ?? '');
      const passedOn = ['forwarded', 'x-forwarded-for', 'via'].some((name) => name in request.headers);
      if (!everybody && (!own || passedOn)) {
        next();
        return;
      }
      response
        .set('Cache-Control', 'no-store')
        .type(this.registry.contentType)
        .send(await this.registry.metrics());
    };
  }
}
