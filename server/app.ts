import { readFile } from 'node:fs/promises';
import { extname, join, normalize } from 'node:path';
import { Hono } from 'hono';
import { accountRoutes } from './accounts/routes.ts';
import { documentRoutes } from './arrivals/document-routes.ts';
import { arrivalRoutes } from './arrivals/routes.ts';
import { authRoutes } from './auth/routes.ts';
import { billRoutes } from './bills/routes.ts';
import { checkRoutes } from './checks/routes.ts';
import { companyRoutes } from './companies/routes.ts';
import { eventRoutes } from './events/routes.ts';
import { Api } from './http/define.ts';
import { openApi } from './http/openapi.ts';
import { Refusal } from './http/problems.ts';
import { ledgerRoutes } from './ledger/routes.ts';
import { liveRoutes } from './live/routes.ts';
import { peopleRoutes } from './people/routes.ts';
import { readingRoutes } from './reading/routes.ts';
import type { Services } from './services.ts';
import { supplierRoutes } from './suppliers/routes.ts';
import { todayRoutes } from './today/routes.ts';

const types: Record<string, string> = {
  '.html': 'text/html; charset=utf-8',
  '.js': 'text/javascript',
  '.mjs': 'text/javascript',
  '.css': 'text/css',
  '.svg': 'image/svg+xml',
  '.woff2': 'font/woff2',
  '.woff': 'font/woff',
  '.png': 'image/png',
  '.wasm': 'application/wasm',
  '.bcmap': 'application/octet-stream',
  '.pfb': 'application/octet-stream',
  '.ttf': 'font/ttf',
};
const policy =
  "default-src 'self'; img-src 'self' blob: data:; style-src 'self' 'unsafe-inline'; font-src 'self' data: blob:; worker-src 'self' blob:; object-src 'none'; base-uri 'none'; frame-ancestors 'none'; form-action 'self'";

/** The API with all its routes, as one value that a test calls without a port. `strict` checks what comes out. */
export function makeApi(services: Services, strict = false): Api {
  const api = new Api(services, strict);
  for (const add of [
    authRoutes,
    todayRoutes,
    arrivalRoutes,
    documentRoutes,
    billRoutes,
    ledgerRoutes,
    supplierRoutes,
    accountRoutes,
    peopleRoutes,
    companyRoutes,
    checkRoutes,
    eventRoutes,
    readingRoutes,
    liveRoutes,
  ])
    add(api);
  api.raw({ method: 'get', path: '/openapi.json', access: 'public', summary: 'This description' }, async () => openApi(api.routes));
  api.app.onError((error, c) => {
    if (error instanceof Refusal) return c.json(error.toProblem(), error.status, { 'content-type': 'application/problem+json' });
    console.error(error);
    return c.json({ type: 'about:blank', title: 'Something went wrong here. Nothing was changed; please try again.', status: 500 }, 500, {
      'content-type': 'application/problem+json',
    });
  });
  return api;
}

/** API and web application together. `webFolder` holds the built files. */
export function makeApp(services: Services, webFolder: string): Hono {
  const app = new Hono();
  app.route('/', makeApi(services).app);
  app.get('/api/*', (c) => c.json({ type: 'about:blank', title: 'This is not here.', status: 404 }, 404));
  app.get('*', async (c) => {
    const path = normalize(decodeURIComponent(new URL(c.req.url).pathname));
    const file = path.includes('..') || !extname(path) ? 'index.html' : path;
    const headers = { 'content-security-policy': policy, 'x-content-type-options': 'nosniff', 'referrer-policy': 'same-origin' };
    try {
      const bytes = await readFile(join(webFolder, file));
      return new Response(new Uint8Array(bytes), {
        headers: {
          ...headers,
          'content-type': types[extname(file)] ?? 'application/octet-stream',
          'cache-control': file.startsWith('/assets/') ? 'public, max-age=31536000, immutable' : 'no-cache',
        },
      });
    } catch {
      return c.text('This is not here.', 404, headers);
    }
  });
  return app;
}
