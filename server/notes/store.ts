import { and, asc, desc, eq, inArray, isNull, sql } from 'drizzle-orm';
import type { BillNote, MentionRow } from '@ledgerline/contract';
import type { Executor } from '../db/client.ts';
import { col } from '../db/column.ts';
import { bill, billMention, billNote, person, supplier } from '../db/schema/index.ts';

/** The notes of a bill, the first written first. */
export async function notesOf(db: Executor, billId: string): Promise<BillNote[]> {
  const rows = await db
    .select({ id: billNote.id, text: billNote.text, at: billNote.at, person: person.name })
    .from(billNote)
    .innerJoin(person, eq(person.id, billNote.personId))
    .where(eq(billNote.billId, billId))
    .orderBy(asc(billNote.at), asc(billNote.id));
  if (rows.length === 0) return [];
  const named = await db
    .select({ noteId: billMention.noteId, id: person.id, name: person.name })
    .from(billMention)
    .innerJoin(person, eq(person.id, billMention.personId))
    .where(
      inArray(
        billMention.noteId,
        rows.map((r) => r.id),
      ),
    )
    .orderBy(person.name);
  return rows.map((r) => ({
    ...r,
    at: r.at.toISOString(),
    mentions: named.filter((n) => n.noteId === r.id).map(({ id, name }) => ({ id, name })),
  }));
}

/** Notes that name a person in a company and that they have not seen, the newest first; twenty at most. */
export async function unseenBy(db: Executor, companyId: string, personId: string): Promise<MentionRow[]> {
  const rows = await db
    .select({
      noteId: billNote.id,
      billId: bill.id,
      supplier: sql<string | null>`coalesce(${col(supplier.name)}, ${col(bill.supplierName)})`,
      invoiceNumber: bill.invoiceNumber,
      person: person.name,
      text: billNote.text,
      at: billNote.at,
    })
    .from(billMention)
    .innerJoin(billNote, eq(billNote.id, billMention.noteId))
    .innerJoin(bill, eq(bill.id, billNote.billId))
    .innerJoin(person, eq(person.id, billNote.personId))
    .leftJoin(supplier, eq(supplier.id, bill.supplierId))
    .where(and(eq(billMention.personId, personId), isNull(billMention.seenAt), eq(billNote.companyId, companyId)))
    .orderBy(desc(billNote.at))
    .limit(20);
  return rows.map((r) => ({ ...r, at: r.at.toISOString() }));
}
