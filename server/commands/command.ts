import type { Static, TObject } from '@sinclair/typebox';
import { closed, type Company, type Effect, type Me, type Permission } from '@ledgerline/contract';
import { snapshot, type Executor } from '../db/client.ts';
import { record, transaction, type Act, type Actor } from '../events/record.ts';
import { valid } from '../http/validate.ts';
import type { Services } from '../services.ts';
import { effectOn } from './effect.ts';
import { mayAtAll } from './may.ts';
import { inWords } from './refused.ts';

/** Who asks, in which company, and from where. */
export interface Caller {
  me: Me;
  company: Company;
  source: string;
}
/** Who asks, and in which company, where that is all there is to know. */
export interface Asker {
  company: { id: string };
  me: { id: string };
}
export const actorOf = (caller: Caller): Actor => ({ personId: caller.me.id, source: caller.source });

/** What a use case gets beside the caller and what is asked: the subject in hand and the clock. */
export interface Hand<S> {
  subject: S;
  now: Date;
  services: Services;
  /** Appends an act of the caller to the event log. */
  record(act: Pick<Act, 'subject' | 'verb' | 'note' | 'before' | 'after'>): void;
}
export type Params = Record<string, string>;

/** One use case that changes something: what it takes, who may, what it is about. */
export interface Command<B extends TObject = TObject, S = unknown, A = unknown> {
  body: B;
  may: Permission;
  perform(services: Services, caller: Caller, params: Params, body: unknown): Promise<A>;
  /** What it would do to bills in hand: done and taken back. */
  effect(services: Services, caller: Caller, params: Params, body: unknown): Promise<Effect>;
  /** For use cases within another's transaction. */
  readonly subject?: S;
}

interface Spec<B extends TObject, S> {
  /** What is asked; closed at every depth, nothing more is taken. */
  body: B;
  may: Permission;
  /** Finds and locks what it is about, in the caller's company; throws where it is not there or not as expected. */
  subject?: (tx: Executor, caller: Caller, params: Params, input: Static<B>) => Promise<S>;
}

/**
 * The one way to write: closed body, role, subject in hand, work and events in one transaction. Columns are mapped by name in `work`;
 * nothing of the body is spread into a row. `show` makes the answer of what is kept, once it is.
 */
export function command<B extends TObject, S, R, A = R>(
  spec: Spec<B, S>,
  work: (tx: Executor, caller: Caller, input: Static<B>, hand: Hand<S>) => Promise<R>,
  show?: (db: Executor, caller: Caller, done: R, now: Date) => Promise<A>,
): Command<B, S, A> {
  const body = closed(spec.body);
  /** The work in a unit of its own, once role and body are looked at. */
  const unitOf = (services: Services, caller: Caller, params: Params, asked: unknown) => {
    mayAtAll(caller, spec.may);
    const input = valid(body, asked);
    return async (tx: Executor): Promise<R> => {
      const now = services.now();
      const subject = (await spec.subject?.(tx, caller, params, input)) as S;
      return work(tx, caller, input, {
        subject,
        now,
        services,
        record: (act) => record(tx, { ...act, companyId: caller.company.id, by: actorOf(caller), at: now }),
      });
    };
  };
  return {
    body,
    may: spec.may,
    async effect(services, caller, params, asked) {
      const unit = unitOf(services, caller, params, asked);
      return inWords(() => effectOn(services.database.db, caller.company.id, unit));
    },
    async perform(services, caller, params, asked) {
      const unit = unitOf(services, caller, params, asked);
      const done = await inWords(() => transaction(services.database.db, unit));
      return show ? snapshot(services.database.db, (db) => show(db, caller, done, services.now())) : (done as unknown as A);
    },
  };
}
