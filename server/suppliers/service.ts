import { and, eq, isNull, ne, sql } from 'drizzle-orm';
import { type Static } from '@sinclair/typebox';
import { ChangeSupplier, NewSupplier } from '@ledgerline/contract';
import { isIban, squash } from '@ledgerline/core/reading';
import { termsKnown } from '@ledgerline/core/terms';
import { codingOf, type Coding } from '@ledgerline/core/bills';
import { recheckBills } from '../bills/checking.ts';
import { command, type Caller, type Params } from '../commands/command.ts';
import type { Executor } from '../db/client.ts';
import { bankAccount, supplier } from '../db/schema/index.ts';
import { difference } from '../events/record.ts';
import { notFound, Refusal } from '../http/problems.ts';
import { notUnderstood } from '../terms/service.ts';
import { listedTerms } from '../terms/store.ts';
import { setContacts } from './contacts.ts';

export type SupplierRecord = typeof supplier.$inferSelect;

/** The IBAN without spaces; refused where its check digits don't fit (ISO 13616). */
export function ibanOf(typed: string): string {
  const iban = squash(typed);
  if (!isIban(iban))
    throw new Refusal(422, 'This IBAN is not right: its check digits do not fit. Look at it again.', [
      { path: 'iban', sentence: 'The check digits do not fit.' },
    ]);
  return iban;
}

async function termsFit(tx: Executor, companyId: string, terms: string | null): Promise<void> {
  if (terms && !termsKnown(terms, await listedTerms(tx, companyId))) throw notUnderstood();
}

/** Asks where another supplier has the same tax number or bank account; `evenSo` goes on. */
export async function asksIfShared(
  tx: Executor,
  companyId: string,
  own: { id: string | null; taxId?: string | null; iban?: string | null },
  evenSo: boolean,
): Promise<void> {
  if (evenSo) return;
  const another = own.id ? ne(supplier.id, own.id) : undefined;
  const find = async (fits: ReturnType<typeof sql>) =>
    (
      await tx
        .select({ name: supplier.name })
        .from(supplier)
        .where(and(eq(supplier.companyId, companyId), another, fits))
        .limit(1)
    )[0]?.name;
  const ask = (name: string, what: string, path: string) =>
    new Refusal(409, `${name} has the same ${what}. Is it the same supplier?`, [{ path, sentence: `${name} has the same.` }], 'asks');
  const byTax = own.taxId ? await find(sql`${supplier.taxId} = ${own.taxId}`) : undefined;
  if (byTax) throw ask(byTax, 'tax number', 'taxId');
  const byIban = own.iban
    ? await find(
        sql`exists (select 1 from bank_account a where a.supplier_id = ${supplier.id} and a.iban = ${own.iban} and a.retired_at is null)`,
      )
    : undefined;
  if (byIban) throw ask(byIban, 'bank account', 'iban');
}

async function nameIsFree(tx: Executor, companyId: string, name: string, id: string | null): Promise<void> {
  const [twin] = await tx
    .select({ id: supplier.id })
    .from(supplier)
    .where(and(eq(supplier.companyId, companyId), sql`lower(${supplier.name}) = lower(${name})`, id ? ne(supplier.id, id) : undefined));
  if (twin) throw new Refusal(409, `${name} is already among the suppliers.`, [{ path: 'name', sentence: 'Already among the suppliers.' }]);
}

/** What may be typed of a supplier, as columns, tidied. */
function columnsOf(input: Pick<Static<typeof NewSupplier>, 'name' | 'taxId' | 'email' | 'phone' | 'address' | 'currency' | 'terms'>) {
  const text = (value: string | null) => value?.trim() || null;
  return {
    name: input.name.trim(),
    taxId: input.taxId ? squash(input.taxId) || null : null,
    email: text(input.email)?.toLowerCase() ?? null,
    phone: text(input.phone),
    address: text(input.address),
    currency: input.currency,
    terms: text(input.terms),
  };
}

/** A new supplier, with its next code. A bank account given with it waits for a second person. */
export const newSupplier = command({ body: NewSupplier, may: 'suppliers:edit' }, async (tx, caller, input, hand) => {
  const companyId = caller.company.id,
    columns = columnsOf(input),
    iban = input.iban?.trim() ? ibanOf(input.iban) : null;
  await termsFit(tx, caller.company.id, columns.terms);
  await tx.execute(sql`select pg_advisory_xact_lock(hashtextextended(${companyId}, 3))`);
  await nameIsFree(tx, companyId, columns.name, null);
  await asksIfShared(tx, companyId, { id: null, taxId: columns.taxId, iban }, input.evenSo ?? false);
  const [last] = await tx
    .select({ n: sql<number>`coalesce(max(substring(code from '^S(\\d{1,9})$')::int), 1000)` })
    .from(supplier)
    .where(eq(supplier.companyId, companyId));
  const [made] = await tx
    .insert(supplier)
    .values({ ...columns, companyId, code: `S${(last?.n ?? 1000) + 1}` })
    .returning();
  const subject = { type: 'supplier', id: made!.id };
  hand.record({ subject, verb: 'made', after: { code: made!.code, ...columns } });
  if (iban) {
    await tx.insert(bankAccount).values({
      companyId,
      supplierId: made!.id,
      iban,
      note: 'Given with the new supplier',
      proposedBy: caller.me.id,
      proposedAt: hand.now,
    });
    hand.record({ subject, verb: 'bank account entered', after: { iban } });
  }
  return { id: made!.id, code: made!.code, name: made!.name, detail: made!.taxId, terms: made!.terms, currency: made!.currency };
});

/** Finds and locks a supplier of the caller's company. */
export async function supplierIn(tx: Executor, caller: Caller, params: Params): Promise<SupplierRecord> {
  const [row] = await tx
    .select()
    .from(supplier)
    .where(and(eq(supplier.companyId, caller.company.id), eq(supplier.id, params['id']!)))
    .for('update');
  if (!row) throw notFound('This supplier');
  return row;
}

/** Each once, without the empty ones. */
const once = (all: readonly string[]): string[] => [...new Set(all)].filter((one) => one !== '');

export const changeSupplier = command(
  { body: ChangeSupplier, may: 'suppliers:edit', subject: supplierIn },
  async (tx, caller, input, hand) => {
    const before = hand.subject;
    if (before.rowVersion !== input.rowVersion)
      throw new Refusal(409, 'Somebody else changed this supplier meanwhile. Load it again to see what is new.', [], 'changed');
    const columns = {
      ...columnsOf(input),
      ...codingOf({ ...before, ...(input.coding as Partial<Coding>) }),
      suggests: input.suggests ?? before.suggests,
      blocked: input.blocked === undefined ? before.blocked : (input.blocked?.trim() ?? null),
      otherTaxIds: once(input.otherTaxIds?.map(squash) ?? before.otherTaxIds),
      otherAddresses: once(input.otherAddresses?.map((a) => a.trim()) ?? before.otherAddresses),
      paymentsHeld: input.paymentsHeld === undefined ? before.paymentsHeld : (input.paymentsHeld?.trim() ?? null),
    };
    await termsFit(tx, caller.company.id, columns.terms);
    await nameIsFree(tx, caller.company.id, columns.name, before.id);
    if (columns.taxId !== before.taxId)
      await asksIfShared(tx, caller.company.id, { id: before.id, taxId: columns.taxId }, input.evenSo ?? false);
    const was = Object.fromEntries(Object.keys(columns).map((name) => [name, before[name as keyof SupplierRecord]]));
    const contacts = await setContacts(tx, before, input.contacts);
    const changed = difference({ ...was, contacts: contacts.was }, { ...columns, contacts: contacts.is });
    if (!changed) return { id: before.id };
    await tx.update(supplier).set(columns).where(eq(supplier.id, before.id));
    hand.record({ subject: { type: 'supplier', id: before.id }, verb: 'changed', ...changed });
    await recheckBills(tx, caller.company, { supplierId: before.id }, { personId: caller.me.id, now: hand.now });
    return { id: before.id };
  },
);

/** The accounts of a supplier that count or wait, for whoever needs them. */
export const liveAccounts = (tx: Executor, supplierId: string) =>
  tx
    .select()
    .from(bankAccount)
    .where(and(eq(bankAccount.supplierId, supplierId), isNull(bankAccount.retiredAt)));
