import { hostname, networkInterfaces } from 'node:os';
import type { IncomingHttpHeaders } from 'node:http';
import { isIP } from 'node:net';
import type { Request, RequestHandler } from 'express';
import { Problem } from './problem.ts';

const LOOPBACK = ['localhost', '127.0.0.1', '[::1]'];
const EVERYWHERE = ['0.0.0.0', '::'];
const WRITES = new Set(['POST', 'PUT', 'PATCH', 'DELETE']);

/** Whether a server that listens there can only be reached from its own machine. */
export function isLoopback(host: string): boolean {
  return host === 'localhost' || host === '::1' || /^127(\.\d{1,3}){3}$/.test(host);
}

/**
 * Names under which a server may be asked.
 * @param host where it listens
 * @param more further names, with commas between them: what a proxy or a name server calls it
 */
export function allowedHosts(host: string, more = ''): Set<string> {
  const own = EVERYWHERE.includes(host)
    ? [
        hostname(),
        `${hostname()}.local`,
        ...Object.values(networkInterfaces()).flatMap((list) => list?.map((i) => i.address) ?? []),
      ]
    : [host];
  return new Set(
    [...LOOPBACK, ...own, ...more.split(',')]
      .map((name) => name.trim().toLowerCase())
      .filter((name) => name !== '')
      .map((name) => (name.includes(':') && !name.startsWith('[') ? `[${name}]` : name)),
  );
}

/** Names and addresses by which other machines find a server, its own names first. @param names what a proxy or a name server calls it */
export function addressesOf(host: string, names: readonly string[]): string[] {
  const own = EVERYWHERE.includes(host)
    ? Object.values(networkInterfaces()).flatMap((list) =>
        (list ?? []).flatMap((i) => (i.internal || i.family !== 'IPv4' ? [] : [i.address])),
      )
    : isLoopback(host)
      ? []
      : [host];
  return [...names.filter((n) => n !== '' && !isLoopback(n)), ...own].map((name) =>
    name.includes(':') && !name.startsWith('[') ? `[${name}]` : name,
  );
}

/** The name in a `Host` header or an origin, without its port. */
function nameIn(authority: string): string {
  return authority.toLowerCase().replace(/:\d*$/, '').replace(/\.$/, '');
}

/**
 * Lets in only what was meant for this server: a page of another site that a name leads here (rebinding), or a form or script of another site that
 * writes, is refused with what would let it in.
 */
export function onlyOurs(hosts: ReadonlySet<string>): RequestHandler {
  return (request, _response, next) => {
    const host = request.headers.host ?? '';
    if (!hosts.has(nameIn(host))) {
      throw new Problem(
        421,
        'foreign-host',
        `Cadenza is not known as "${host.slice(0, 100)}" here. If that is its name, start it with CADENZA_HOSTS=${nameIn(host).slice(0, 100)}.`,
      );
    }
    if (WRITES.has(request.method)) refuseOtherSites(request.headers, host, hosts);
    next();
  };
}

/** Refuses what a page of another site asks, also where it only reads: for what holds a connection open, or tells of the server itself. */
export function onlyOwnSite(hosts: ReadonlySet<string>): RequestHandler {
  return ({ headers }, _response, next) => {
    refuseOtherSites(headers, headers.host ?? '', hosts);
    next();
  };
}

/** No address is longer in words. */
const LONGEST_ADDRESS = 45;

/** From where somebody asks, as an address: what a proxy passes on and is none stands for the proxy itself. */
export function addressOf({ ip, socket }: Pick<Request, 'ip' | 'socket'>): string {
  const told = (ip ?? '').split('%')[0] ?? '';
  const address = isIP(told) === 0 ? (socket.remoteAddress ?? '') : told;
  return address.slice(0, LONGEST_ADDRESS);
}

type SiteHeaders = Pick<IncomingHttpHeaders, 'origin' | 'sec-fetch-site'>;

function refuseOtherSites(
  { origin, 'sec-fetch-site': site }: SiteHeaders,
  host: string,
  hosts: ReadonlySet<string>,
): void {
  const sameSite = site === undefined || site === 'same-origin' || site === 'none';
  if (sameSite && (origin === undefined || isOwn(origin, host, hosts))) return;
  const from = origin === undefined || origin === 'null' ? 'another site' : `"${origin.slice(0, 100)}"`;
  throw new Problem(
    403,
    'other-site',
    `A page of ${from} may not change anything here. Open Cadenza at its own address; if a proxy calls it otherwise, name that in CADENZA_HOSTS.`,
  );
}

/** The address that was asked, or a name of this server that a proxy in front of it goes by. Another program on this machine is neither. */
function isOwn(origin: string, host: string, hosts: ReadonlySet<string>): boolean {
  const from = originHost(origin);
  return (
    from !== null && (from === host.toLowerCase() || (!LOOPBACK.includes(nameIn(from)) && hosts.has(nameIn(from))))
  );
}

function originHost(origin: string): string | null {
  try {
    return new URL(origin).host;
  } catch {
    return null;
  }
}
