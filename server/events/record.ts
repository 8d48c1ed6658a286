import { sql } from 'drizzle-orm';
import { v7 } from 'uuid';
import type { Db, Executor } from '../db/client.ts';
import { isCrossed } from '../db/faults.ts';
import { event } from '../db/schema/index.ts';

/** Who acts, and from where. Null person: Ledgerline itself. */
export interface Actor {
  personId: string | null;
  source: string;
}
export interface Act {
  companyId: string | null;
  subject: { type: string; id: string | null };
  verb: string;
  by: Actor;
  at: Date;
  note?: string | null;
  before?: Record<string, unknown> | null;
  after?: Record<string, unknown> | null;
}

const pending = new WeakMap<object, Act[]>();

/**
 * Runs one unit of work in one transaction. What it records is written when it ends: the chain of a company is locked for the moment
 * of the commit only, and always last, so that two units never wait for each other crosswise by it; where they do by something else,
 * the one that gave way is done again.
 */
export async function transaction<T>(db: Db, work: (tx: Executor) => Promise<T>): Promise<T> {
  for (let tried = 1; ; tried++) {
    try {
      return await once(db, work);
    } catch (error) {
      // Nothing of it was kept, so it may be done again from the start.
      if (tried === 3 || !isCrossed(error)) throw error;
    }
  }
}

function once<T>(db: Db, work: (tx: Executor) => Promise<T>): Promise<T> {
  return db.transaction(async (tx) => {
    const acts: Act[] = [];
    pending.set(tx, acts);
    const result = await work(tx);
    // One company after another, in a fixed order: the same reason.
    const inOrder = [...acts.entries()].sort(([i, a], [j, b]) => (a.companyId ?? '').localeCompare(b.companyId ?? '') || i - j);
    for (let i = 0; i < inOrder.length; i += atOnce)
      await append(
        tx,
        inOrder.slice(i, i + atOnce).map(([, act]) => act),
      );
    return result;
  });
}

const atOnce = 1000;

/** Writes acts in their order. They travel as one value: thousands may come with a file. */
async function append(tx: Executor, acts: readonly Act[]): Promise<void> {
  const rows = acts.map(({ companyId, subject, verb, by, at, note, before, after }) => ({
    id: v7(),
    company_id: companyId,
    subject_type: subject.type,
    subject_id: subject.id,
    verb,
    person_id: by.personId,
    source: by.source,
    note: note ?? null,
    before: before ?? null,
    after: after ?? null,
    at,
  }));
  await tx.execute(sql`insert into ${event} (id, company_id, subject_type, subject_id, verb, person_id, source, note, before, after, at)
    select * from jsonb_to_recordset(${JSON.stringify(rows)}::jsonb) as r(id uuid, company_id uuid, subject_type text, subject_id uuid, verb text,
      person_id uuid, source text, note text, before jsonb, after jsonb, at timestamptz)`);
}

/** Appends an act to the event log, in the unit of work that it is part of. */
export function record(tx: Executor, act: Act): void {
  const acts = pending.get(tx);
  if (!acts) throw new Error('An act can be recorded in a unit of work only; begin one with transaction()');
  acts.push(act);
}

/** What differs between two states of a thing, field by field; null where nothing does. */
export function difference(
  before: Record<string, unknown>,
  after: Record<string, unknown>,
): { before: Record<string, unknown>; after: Record<string, unknown> } | null {
  const changed = [...new Set([...Object.keys(before), ...Object.keys(after)])].filter(
    (name) => JSON.stringify(before[name] ?? null) !== JSON.stringify(after[name] ?? null),
  );
  if (changed.length === 0) return null;
  const of = (state: Record<string, unknown>) => Object.fromEntries(changed.map((name) => [name, state[name] ?? null]));
  return { before: of(before), after: of(after) };
}
