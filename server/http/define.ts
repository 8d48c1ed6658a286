import { Hono, type Context } from 'hono';
import type { Static, TSchema } from '@sinclair/typebox';
import { may, type Company, type Me, type Permission } from '@ledgerline/contract';
import type { Services } from '../services.ts';
import { personOf } from '../auth/service.ts';
import { Refusal } from './problems.ts';
import { valid } from './validate.ts';

/** Who asks, and in which company. */
export interface Caller {
  me: Me;
  company: Company;
}
export type Access = 'public' | 'signed-in' | Permission;
export interface Route {
  method: 'get' | 'post' | 'put' | 'patch' | 'delete';
  path: string;
  access: Access;
  summary: string;
  body?: TSchema;
  query?: TSchema;
}

type Handler<R extends Route> = (input: {
  c: Context;
  services: Services;
  caller: R['access'] extends 'public' ? null : R['access'] extends 'signed-in' ? { me: Me } : Caller;
  params: Record<string, string>;
  body: R['body'] extends TSchema ? Static<R['body']> : undefined;
  query: R['query'] extends TSchema ? Static<R['query']> : Record<string, never>;
}) => Promise<unknown>;

/** Routes with their access, in the order they were defined: what the test of permissions and the API description read. */
export class Api {
  readonly app = new Hono();
  readonly routes: Route[] = [];
  constructor(readonly services: Services) {}

  /** Adds a route. One that names a permission lives below a company, and only members of that company with a fitting role get in. */
  define<const R extends Route>(route: R, handler: Handler<R>): void {
    this.routes.push(route);
    const full = route.access === 'public' || route.access === 'signed-in' ? `/api${route.path}` : `/api/companies/:companyId${route.path}`;
    this.app[route.method](full, async (c) => {
      if (route.method !== 'get') sameSite(c);
      const caller = await this.#admit(c, route.access);
      const params = c.req.param() as Record<string, string>;
      for (const [name, value] of Object.entries(params))
        if (/Id$|^id$/.test(name) && !/^[0-9a-f-]{36}$/i.test(value)) throw new Refusal(404, 'This is not here.');
      const body = route.body
        ? valid(
            route.body,
            await c.req.json().catch(() => {
              throw new Refusal(400, 'The request was not understood.');
            }),
          )
        : undefined;
      const query = route.query ? valid(route.query, c.req.query(), true) : {};
      const answer = await handler({ c, services: this.services, caller, params, body, query } as unknown as Parameters<Handler<R>>[0]);
      return answer instanceof Response ? answer : c.json(answer ?? { ok: true });
    });
  }

  async #admit(c: Context, access: Access): Promise<unknown> {
    if (access === 'public') return null;
    const me = await personOf(this.services, c);
    if (!me) throw new Refusal(401, 'Please sign in.');
    if (access === 'signed-in') return { me };
    const company = me.companies.find((one) => one.id === c.req.param('companyId'));
    if (!company) throw new Refusal(404, 'This company is not here, or you are not a member of it.');
    if (!may(company.roles, access)) throw new Refusal(403, `Your role in ${company.name} does not allow this.`);
    return { me, company };
  }
}

/** Requests that change something must come from our own pages. */
function sameSite(c: Context): void {
  const site = c.req.header('sec-fetch-site');
  const origin = c.req.header('origin');
  if (site && site !== 'same-origin' && site !== 'none') throw new Refusal(403, 'This request came from another site.');
  if (origin && new URL(origin).host !== c.req.header('host')) throw new Refusal(403, 'This request came from another site.');
}
