import type { Context } from 'hono';
import type { Problem } from '@ledgerline/contract';

/** A refusal with a sentence for the person in front of the screen; becomes RFC 9457 problem JSON. */
export class Refusal extends Error {
  constructor(
    readonly status: 400 | 401 | 403 | 404 | 408 | 409 | 413 | 415 | 421 | 422 | 429 | 503 | 507,
    title: string,
    readonly errors: { path: string; sentence: string }[] = [],
    /** What kind of refusal it is, for programs: nobody tests the sentence. */
    readonly kind?: 'changed' | 'misfit' | 'asks' | 'code',
  ) {
    super(title);
  }
  toProblem(): Problem {
    return {
      type: 'about:blank',
      title: this.message,
      status: this.status,
      ...(this.errors.length ? { errors: this.errors } : {}),
      ...(this.kind ? { kind: this.kind } : {}),
    };
  }
}

export const problem = (c: Context, refusal: Refusal): Response =>
  c.json(refusal.toProblem(), refusal.status, { 'content-type': 'application/problem+json' });

export const notFound = (what: string) => new Refusal(404, `${what} is not here. It may belong to another company.`);
