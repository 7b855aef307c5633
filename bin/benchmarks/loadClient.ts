import { Agent, request, type IncomingHttpHeaders, type OutgoingHttpHeaders } from 'node:http';

/** How a server answered many clients at once. */
export interface Load {
  perSecond: number;
  /** The time that 99 of 100 answers stay under, ms. */
  p99: number;
  /** Answers that were no success. */
  refused: number;
}

export interface Asked {
  method: string;
  path: string;
  body?: string;
  headers?: OutgoingHttpHeaders;
}

/** Sends one request and reads its answer to the end. */
export function ask(
  base: string,
  agent: Agent,
  { method, path, body, headers = {} }: Asked,
): Promise<{ status: number; headers: IncomingHttpHeaders; text: string }> {
  return new Promise((resolve, reject) => {
    const sent = request(
      new URL(path, base),
      {
        method,
        agent,
        headers: {
          ...(body === undefined
            ? {}
            : { 'Content-Type': 'application/json', 'Content-Length': Buffer.byteLength(body) }),
          ...headers,
        },
      },
      (answer) => {
        const parts: Buffer[] = [];
        answer.on('data', (part: Buffer) => parts.push(part));
        answer.on('end', () =>
          resolve({
            status: answer.statusCode ?? 0,
            headers: answer.headers,
            text: Buffer.concat(parts).toString('utf8'),
          }),
        );
        answer.on('error', reject);
      },
    );
    sent.on('error', reject);
    sent.end(body);
  });
}

/**
 * Lets clients ask one after the other, each on a connection of its own, for a while or until there is nothing more to ask.
 * @param next what a client asks next, from its number and what it was answered last; null ends it
 */
export async function load(
  base: string,
  clients: number,
  seconds: number,
  next: (client: number, last: { status: number; text: string } | null) => Asked | null,
): Promise<Load> {
  const agent = new Agent({ keepAlive: true, maxSockets: clients });
  const times: number[] = [];
  let refused = 0;
  const start = performance.now();
  const until = start + seconds * 1000;
  await Promise.all(
    Array.from({ length: clients }, async (_, client) => {
      let last: { status: number; text: string } | null = null;
      while (performance.now() < until) {
        const asked = next(client, last);
        if (asked === null) return;
        const began = performance.now();
        last = await ask(base, agent, asked);
        times.push(performance.now() - began);
        if (last.status >= 400) refused += 1;
      }
    }),
  );
  const spent = (performance.now() - start) / 1000;
  agent.destroy();
  times.sort((a, b) => a - b);
  return { perSecond: times.length / spent, p99: times[Math.floor(times.length * 0.99)] ?? Number.NaN, refused };
}
