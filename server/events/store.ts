import { and, desc, eq, isNull, sql } from 'drizzle-orm';
import type { EventRow } from '@ledgerline/contract';
import type { Executor } from '../db/client.ts';
import { event, person } from '../db/schema/index.ts';

const shown = (value: unknown): string | null =>
  value === null || value === undefined ? null : typeof value === 'string' ? value : JSON.stringify(value);

/** Acts of a company, or (null) of the organisation as a whole, newest first, at most `limit`; of one subject, or before one of the chain's numbers. */
export async function listEvents(
  db: Executor,
  companyId: string | null,
  of: { subject?: string | undefined; id?: string | undefined; before?: number | undefined; limit: number },
): Promise<EventRow[]> {
  const rows = await db
    .select({ event, person: person.name })
    .from(event)
    .leftJoin(person, eq(person.id, event.personId))
    .where(
      and(
        companyId ? eq(event.companyId, companyId) : isNull(event.companyId),
        of.subject ? eq(event.subjectType, of.subject) : undefined,
        of.id ? eq(event.subjectId, of.id) : undefined,
        of.before ? sql`${event.seq} < ${of.before}` : undefined,
      ),
    )
    .orderBy(desc(event.seq))
    .limit(of.limit);
  return rows.map(({ event: e, person: name }) => ({
    id: e.id,
    seq: e.seq,
    subject: e.subjectType,
    subjectId: e.subjectId,
    verb: e.verb,
    person: name,
    source: e.source,
    note: e.note,
    at: e.at.toISOString(),
    changes: [...new Set([...Object.keys(e.before ?? {}), ...Object.keys(e.after ?? {})])].map((field) => ({
      field,
      before: shown(e.before?.[field]),
      after: shown(e.after?.[field]),
    })),
  }));
}

/** Everything that happened to one thing, oldest first. */
export const historyOf = async (db: Executor, companyId: string, subject: string, id: string): Promise<EventRow[]> =>
  (await listEvents(db, companyId, { subject, id, limit: 5000 })).reverse();

/** The first number at which a company's chain is broken; null while it is whole. */
export async function chainBreak(db: Executor, companyId: string | null): Promise<number | null> {
  const { rows } = await db.execute<{ at: string | null }>(sql`select event_chain_break(${companyId}::uuid) as at`);
  return rows[0]?.at ? Number(rows[0].at) : null;
}
