import { getConnInfo } from '@hono/node-server/conninfo';
import type { Context, MiddlewareHandler } from 'hono';
import { Refusal, problem } from './problems.ts';

/** How Ledgerline is reached: under which names, under TLS or not, and through how many proxies of one's own. */
export interface Door {
  hosts: ReadonlySet<string>;
  secure: boolean;
  proxies: number;
}

/**
 * Loopback, and the public address where there is one. `publicUrl` names host and scheme as people see them; behind it stands a proxy,
 * whose word on the caller's address is taken.
 */
export function doorOf(publicUrl?: string, hosts: string[] = []): Door {
  const url = publicUrl ? new URL(publicUrl) : null;
  return {
    hosts: new Set(['localhost', '127.0.0.1', '[::1]', ...(url ? [url.hostname] : []), ...hosts.map((h) => h.toLowerCase())]),
    secure: url?.protocol === 'https:',
    proxies: url ? 1 : 0,
  };
}

/** Where a request comes from: the connection, or what the nearest proxy of one's own says. */
export function addressOf(c: Context, door: Door): string {
  if (door.proxies > 0) {
    const said = (c.req.header('x-forwarded-for') ?? '').split(',').map((s) => s.trim());
    const at = said.at(-door.proxies);
    if (at) return at.slice(0, 60);
  }
  try {
    return getConnInfo(c).remote.address ?? 'unknown';
  } catch {
    // Asked without a connection, by a test.
    return 'unknown';
  }
}

const hostname = (host: string): string => host.toLowerCase().replace(/:\d+$/, '');
const policy =
  "default-src 'self'; img-src 'self' blob: data:; style-src 'self' 'unsafe-inline'; font-src 'self' data: blob:; worker-src 'self' blob:; object-src 'none'; base-uri 'none'; frame-ancestors 'none'; form-action 'self'";

/**
 * Before everything: only the names that are ours are answered to (another site's name that leads here would share our pages with it),
 * what changes something comes from our own pages, and every answer has the headers that keep it where it belongs.
 */
export const doorkeeper =
  (door: Door): MiddlewareHandler =>
  async (c, next) => {
    const host = c.req.header('host') ?? new URL(c.req.url).host;
    if (!door.hosts.has(hostname(host)) && !c.req.path.startsWith('/health/'))
      return problem(c, new Refusal(421, 'Ledgerline is not known under this name. Open it under its own address.'));
    if (!['GET', 'HEAD', 'OPTIONS'].includes(c.req.method) && foreign(c, host))
      return problem(c, new Refusal(403, 'This request came from another site.'));
    await next();
    const { headers } = c.res;
    const set = (name: string, value: string) => {
      if (!headers.has(name)) headers.set(name, value);
    };
    set('x-content-type-options', 'nosniff');
    set('referrer-policy', 'same-origin');
    set('content-security-policy', policy);
    set('cross-origin-opener-policy', 'same-origin');
    if (door.secure) set('strict-transport-security', 'max-age=31536000');
    if (c.req.path.startsWith('/api/') || c.req.path === '/api') set('cache-control', 'no-store');
  };

/** Whether a request was made by another site's page (Fetch metadata; RFC 6454 for the origin). */
function foreign(c: Context, host: string): boolean {
  const site = c.req.header('sec-fetch-site');
  if (site && site !== 'same-origin' && site !== 'none') return true;
  const origin = c.req.header('origin');
  return origin !== undefined && (!URL.canParse(origin) || new URL(origin).host !== host.toLowerCase());
}
