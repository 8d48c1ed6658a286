import { Hono, type Context } from 'hono';
import type { Static, TObject, TSchema } from '@sinclair/typebox';
import { closed, Effect, Nothing, type Me, type Permission } from '@ledgerline/contract';
import { sessionOf } from '../auth/sessions.ts';
import { noteRefusal } from '../auth/refused.ts';
import type { Caller, Command, Params } from '../commands/command.ts';
import { mayAtAll } from '../commands/may.ts';
import { keepable } from '../db/text.ts';
import type { Services } from '../services.ts';
import { asked, bodyLimits, jsonOf } from './body.ts';
import { Refusal } from './problems.ts';
import { fits, valid } from './validate.ts';

export type Access = 'public' | 'signed-in' | Permission;
type Method = 'get' | 'post' | 'put' | 'patch' | 'delete';
/** A route as the API description and the tests of all routes see it. */
export interface Route {
  method: Method;
  path: string;
  access: Access;
  summary: string;
  body?: TObject;
  query?: TObject;
  /** What comes out; absent for files and streams. */
  answer?: TSchema;
}
type CallerOf<A extends Access> = A extends 'public' ? null : A extends 'signed-in' ? { me: Me; sessionId: string } : Caller;
interface Request<A extends Access, B, Q> {
  c: Context;
  services: Services;
  caller: CallerOf<A>;
  params: Params;
  body: B;
  query: Q;
}

/**
 * Routes with their access, in the order they were defined: what the tests of all routes and the API description read. `query` asks,
 * `command` changes something, `open` is for what stands outside a company (sessions, set-up), `raw` for files in and out.
 */
export class Api {
  readonly app = new Hono();
  readonly routes: Route[] = [];
  /** `strict` has every answer checked against its schema: for tests. */
  constructor(
    readonly services: Services,
    readonly strict = false,
  ) {}

  query<A extends Access, T extends TSchema, Q extends TObject = TObject>(
    route: { path: string; access: A; summary: string; query?: Q; answer: T },
    handler: (request: Request<A, undefined, Static<Q>>) => Promise<Static<T>>,
  ): void {
    const { path, access, summary, query, answer } = route;
    this.#add({ method: 'get', path, access, summary, answer, ...(query ? { query } : {}) }, handler as Handler);
  }

  /**
   * The path of a use case. Its body, permission and subject are the command's own. `tried`: what it would do to bills in hand can be
   * asked for first, under the same path.
   */
  command<B extends TObject, S, A, T extends TSchema>(
    { tried, ...route }: { method: Exclude<Method, 'get'>; path: string; summary: string; answer: T; tried?: true },
    use: Command<B, S, A & Static<T>>,
  ): void {
    if (tried)
      this.#add(
        {
          method: 'post',
          path: `${route.path}/effect`,
          summary: `What this would do to bills in hand, before it is kept: ${route.summary[0]!.toLowerCase()}${route.summary.slice(1)}`,
          access: use.may,
          body: use.body,
          answer: Effect,
        },
        async ({ c, services, caller, params }) => use.effect(services, caller as Caller, params, await jsonOf(c, use.body)),
      );
    this.#add({ ...route, access: use.may, body: use.body }, async ({ c, services, caller, params }) =>
      use.perform(services, caller as Caller, params, await jsonOf(c, use.body)),
    );
  }

  open<A extends 'public' | 'signed-in', B extends TObject, T extends TSchema>(
    route: { method: Exclude<Method, 'get'>; path: string; access: A; summary: string; body: B; answer: T },
    handler: (request: Request<A, Static<B>, undefined>) => Promise<Static<T>>,
  ): void {
    const body = closed(route.body);
    const limit = route.access === 'public' ? bodyLimits.stranger : bodyLimits.json;
    this.#add({ ...route, body }, async (request) => handler({ ...request, body: await asked(request.c, body, limit) } as never));
  }

  raw<A extends Access, Q extends TObject = TObject>(
    route: { method: Method; path: string; access: A; summary: string; body?: TObject; query?: Q; answer?: TSchema },
    handler: (request: Request<A, undefined, Static<Q>>) => Promise<unknown>,
  ): void {
    this.#add(route, handler as Handler);
  }

  #add(route: Route, handler: Handler): void {
    const known = { ...route, ...(route.query ? { query: closed(route.query) } : {}) };
    this.routes.push(known);
    const full = route.access === 'public' || route.access === 'signed-in' ? `/api${route.path}` : `/api/companies/:companyId${route.path}`;
    this.app[route.method](full, async (c) => {
      const caller = await this.#admit(c, route);
      const params = c.req.param() as Params;
      for (const [name, value] of Object.entries(params))
        if (!keepable(value) || (/Id$|^id$/.test(name) && !isId(value))) throw new Refusal(404, 'This is not here.');
      const query = route.access === 'public' ? undefined : valid(known.query ?? nothing, c.req.query(), true);
      const answer = await this.#noting(caller, route, () =>
        handler({ c, services: this.services, caller, params, body: undefined, query }),
      );
      if (answer instanceof Response) return answer;
      const said = answer ?? {};
      if (this.strict && route.answer) fits(route.answer, JSON.parse(JSON.stringify(said)), `${route.method} ${route.path}`);
      return c.json(said);
    });
  }

  async #admit(c: Context, route: Route): Promise<Caller | { me: Me; sessionId: string } | null> {
    const { access } = route;
    if (access === 'public') return null;
    const session = await sessionOf(this.services, c);
    if (!session) throw new Refusal(401, 'Please sign in.');
    const { me, id: sessionId } = session;
    if (access === 'signed-in') return { me, sessionId };
    const company = me.companies.find((one) => one.id === c.req.param('companyId'));
    if (!company) throw new Refusal(404, 'This company is not here, or you are not a member of it.');
    const caller = { me, company, source: 'web' };
    await this.#noting(caller, route, async () => mayAtAll(caller, access));
    return caller;
  }

  /** What somebody was not allowed to do stands in the event log. */
  async #noting<T>(caller: unknown, route: Route, work: () => Promise<T>): Promise<T> {
    try {
      return await work();
    } catch (error) {
      if (error instanceof Refusal && error.status === 403 && caller && typeof caller === 'object' && 'company' in caller)
        await noteRefusal(this.services, caller as Caller, `${route.method.toUpperCase()} ${route.path}`);
      throw error;
    }
  }
}
type Handler = (asked: {
  c: Context;
  services: Services;
  caller: unknown;
  params: Params;
  body: undefined;
  query: unknown;
}) => Promise<unknown>;

const nothing = closed(Nothing);
const isId = (text: string): boolean => /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/i.test(text);
