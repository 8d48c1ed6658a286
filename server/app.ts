import { readFile } from 'node:fs/promises';
import { extname, join, normalize } from 'node:path';
import { Hono, type Context } from 'hono';
import { accountRoutes } from './accounts/routes.ts';
import { importRoutes } from './imports/routes.ts';
import { documentRoutes } from './arrivals/document-routes.ts';
import { arrivalRoutes } from './arrivals/routes.ts';
import { authRoutes } from './auth/routes.ts';
import { billRoutes } from './bills/routes.ts';
import { chargeRoutes } from './charges/routes.ts';
import { checkRoutes } from './checks/routes.ts';
import { codingRoutes } from './coding/routes.ts';
import { companyRoutes } from './companies/routes.ts';
import { dimensionRoutes } from './dimensions/routes.ts';
import { eventRoutes } from './events/routes.ts';
import { makeHealth } from './http/health.ts';
import { Api } from './http/define.ts';
import { openApi } from './http/openapi.ts';
import { away } from './db/faults.ts';
import { doorkeeper } from './http/door.ts';
import { problem, Refusal } from './http/problems.ts';
import { logError } from './log.ts';
import { budgetRoutes } from './budgets/routes.ts';
import { itemRoutes } from './items/routes.ts';
import { ledgerRoutes } from './ledger/routes.ts';
import { liveRoutes } from './live/routes.ts';
import { noteRoutes } from './notes/routes.ts';
import { repeatRoutes } from './repeats/routes.ts';
import { viewRoutes } from './views/routes.ts';
import { matchingRoutes } from './matching/routes.ts';
import { receiptRoutes } from './receipts/routes.ts';
import { orderRoutes } from './orders/routes.ts';
import { peopleRoutes } from './people/routes.ts';
import { readingRoutes } from './reading/routes.ts';
import type { Services } from './services.ts';
import { supplierRoutes } from './suppliers/routes.ts';
import { setupRoutes } from './setup/routes.ts';
import { termsRoutes } from './terms/routes.ts';
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
/** The API with all its routes, as one value that a test calls without a port. `strict` checks what comes out. */
export function makeApi(services: Services, strict = false): Api {
  const api = new Api(services, strict);
  api.app.use('*', doorkeeper(services.door));
  for (const add of [
    authRoutes,
    todayRoutes,
    arrivalRoutes,
    documentRoutes,
    billRoutes,
    noteRoutes,
    repeatRoutes,
    viewRoutes,
    ledgerRoutes,
    setupRoutes,
    itemRoutes,
    termsRoutes,
    orderRoutes,
    receiptRoutes,
    matchingRoutes,
    chargeRoutes,
    budgetRoutes,
    supplierRoutes,
    accountRoutes,
    dimensionRoutes,
    codingRoutes,
    importRoutes,
    peopleRoutes,
    companyRoutes,
    checkRoutes,
    eventRoutes,
    readingRoutes,
    liveRoutes,
  ])
    add(api);
  api.raw({ method: 'get', path: '/openapi.json', access: 'public', summary: 'This description' }, async () => openApi(api.routes));
  api.app.onError(failed);
  api.app.notFound((c) => problem(c, new Refusal(404, 'This is not here.')));
  return api;
}

/** The one handler for what is left: refusals in their words, anything else as an id under which the log has it. */
function failed(error: Error, c: Context): Response {
  if (error instanceof Refusal) return problem(c, error);
  const known = away(error);
  if (known) return problem(c, known);
  const id = logError(`${c.req.method} ${c.req.routePath}`, error);
  const title = `Something went wrong here. Nothing was changed; please try again. If it happens again, tell whoever runs Ledgerline: ${id}.`;
  return c.json({ type: 'about:blank', title, status: 500 }, 500, { 'content-type': 'application/problem+json' });
}

/** API and web application together. `webFolder` holds the built files. */
export function makeApp(services: Services, webFolder: string): Hono {
  const app = new Hono();
  app.onError(failed);
  app.route('/', makeHealth(services));
  app.route('/', makeApi(services).app);
  app.get('/api/*', (c) => problem(c, new Refusal(404, 'This is not here.')));
  app.get('*', async (c) => {
    const path = pathOf(c.req.url);
    if (path === null) return c.text('This is not here.', 404);
    const file = path.includes('..') || !extname(path) ? 'index.html' : path;
    try {
      const bytes = await readFile(join(webFolder, file));
      return new Response(new Uint8Array(bytes), {
        headers: {
          'content-type': types[extname(file)] ?? 'application/octet-stream',
          'cache-control': file.startsWith('/assets/') ? 'public, max-age=31536000, immutable' : 'no-cache',
        },
      });
    } catch {
      return c.text('This is not here.', 404);
    }
  });
  return app;
}

/** A request's path as a file's; null where it is none (broken escapes, a zero byte). */
function pathOf(url: string): string | null {
  try {
    const path = decodeURIComponent(new URL(url).pathname);
    return path.includes('\0') ? null : normalize(path);
  } catch {
    return null;
  }
}
