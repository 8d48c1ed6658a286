import { asc, eq } from 'drizzle-orm';
import type { Contact } from '@ledgerline/contract';
import type { Executor } from '../db/client.ts';
import { supplierContact } from '../db/schema/index.ts';

/** Whom one reaches at a supplier, in their order. */
export const contactsOf = async (db: Executor, supplierId: string): Promise<Contact[]> =>
  db
    .select({
      name: supplierContact.name,
      about: supplierContact.about,
      email: supplierContact.email,
      phone: supplierContact.phone,
    })
    .from(supplierContact)
    .where(eq(supplierContact.supplierId, supplierId))
    .orderBy(asc(supplierContact.position));

const said = (contacts: readonly Contact[]): string | null =>
  contacts.map((c) => [c.name, c.about, c.email, c.phone].filter(Boolean).join(' · ')).join('; ') || null;

/** Sets whom one reaches at a supplier, in place of those before; gives both as the event log keeps them. Part of the caller's transaction. */
export async function setContacts(
  tx: Executor,
  { id, companyId }: { id: string; companyId: string },
  contacts: readonly Contact[] | undefined,
): Promise<{ was: string | null; is: string | null }> {
  const was = said(await contactsOf(tx, id));
  if (contacts === undefined) return { was, is: was };
  const text = (value: string | null) => value?.trim() || null;
  const rows = contacts.map(({ name, about, email, phone }) => ({
    name: name.trim(),
    about: text(about),
    email: text(email)?.toLowerCase() ?? null,
    phone: text(phone),
  }));
  await tx.delete(supplierContact).where(eq(supplierContact.supplierId, id));
  if (rows.length > 0)
    await tx.insert(supplierContact).values(rows.map((row, position) => ({ ...row, companyId, supplierId: id, position })));
  return { was, is: said(rows) };
}
