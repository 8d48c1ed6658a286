import { and, asc, desc, eq, sql } from 'drizzle-orm';
import { NewSupplier, SuppliersQuery, type SupplierAccount, type SupplierList } from '@ledgerline/contract';
import { isIban, squash } from '@ledgerline/core/reading';
import { parseTerms } from '@ledgerline/core/terms';
import { bill, costCentre, journalEntry, ledgerAccount, openItem, supplier, taxCode } from '../db/schema/index.ts';
import type { Api } from '../http/define.ts';
import { notFound, Refusal } from '../http/problems.ts';

type OpenSum = { currency: string; amount: string };

export function supplierRoutes(api: Api): void {
  api.define(
    {
      method: 'get',
      path: '/suppliers',
      access: 'suppliers:see',
      summary: 'The supplier master list with what is open',
      query: SuppliersQuery,
    },
    async ({ services, caller, query }): Promise<SupplierList> => {
      const words = `%${(query.q ?? '').replace(/[\\%_]/g, '\\$&')}%`;
      const rows = await services.database.db
        .select({
          id: supplier.id,
          code: supplier.code,
          name: supplier.name,
          currency: supplier.currency,
          terms: supplier.terms,
          taxId: supplier.taxId,
          bills: sql<number>`(select count(*)::int from bill b where b.supplier_id = ${supplier.id} and b.stage <> 'discarded')`,
          lastBill: sql<string | null>`(select max(b.issue_date)::text from bill b where b.supplier_id = ${supplier.id})`,
          open: sql<
            OpenSum[]
          >`coalesce((select json_agg(json_build_object('currency', o.currency, 'amount', o.amount::text)) from (select currency, sum(amount - settled) as amount from open_item where supplier_id = ${supplier.id} group by currency having sum(amount - settled) <> 0) o), '[]')`,
        })
        .from(supplier)
        .where(and(eq(supplier.companyId, caller.company.id), sql`(${supplier.name} ilike ${words} or ${supplier.code} ilike ${words})`))
        .orderBy(asc(supplier.name))
        .limit(500);
      return { suppliers: rows };
    },
  );
  api.define(
    { method: 'post', path: '/suppliers', access: 'suppliers:edit', summary: 'A new supplier', body: NewSupplier },
    async ({ services, caller, body }) => {
      const iban = body.iban ? squash(body.iban) : null;
      if (iban && !isIban(iban))
        throw new Refusal(422, 'This IBAN is not right: its check digits do not fit. Look at it again.', [
          { path: 'iban', sentence: 'The check digits do not fit.' },
        ]);
      if (body.terms && !parseTerms(body.terms))
        throw new Refusal(422, 'These terms are not understood. Write them as net 30, 30 eom or 2/10 n30.', [
          { path: 'terms', sentence: 'Write terms as net 30, 30 eom or 2/10 n30.' },
        ]);
      return services.database.db.transaction(async (tx) => {
        await tx.execute(sql`select pg_advisory_xact_lock(hashtextextended(${caller.company.id}, 3))`);
        const name = body.name.trim();
        const [twin] = await tx
          .select()
          .from(supplier)
          .where(and(eq(supplier.companyId, caller.company.id), sql`lower(${supplier.name}) = lower(${name})`));
        if (twin)
          throw new Refusal(409, `${name} is already among the suppliers.`, [{ path: 'name', sentence: 'Already among the suppliers.' }]);
        const [last] = await tx
          .select({ n: sql<number>`coalesce(max(substring(code from '^S(\\d+)$')::int), 1000)` })
          .from(supplier)
          .where(eq(supplier.companyId, caller.company.id));
        const [made] = await tx
          .insert(supplier)
          .values({
            ...body,
            name,
            iban,
            taxId: body.taxId ? squash(body.taxId) : null,
            email: body.email?.trim().toLowerCase() || null,
            companyId: caller.company.id,
            code: `S${(last?.n ?? 1000) + 1}`,
          })
          .returning();
        return { id: made!.id, code: made!.code, name: made!.name, currency: made!.currency, terms: made!.terms };
      });
    },
  );
  api.define(
    { method: 'get', path: '/suppliers/:id', access: 'suppliers:see', summary: 'A supplier and its account' },
    async ({ services, caller, params }): Promise<SupplierAccount> => {
      const { db } = services.database;
      const [row] = await db
        .select({
          s: supplier,
          account: sql<string | null>`${ledgerAccount.code} || ' ' || ${ledgerAccount.name}`,
          centre: sql<string | null>`${costCentre.code} || ' ' || ${costCentre.name}`,
          code: taxCode.code,
        })
        .from(supplier)
        .leftJoin(ledgerAccount, eq(ledgerAccount.id, supplier.accountId))
        .leftJoin(costCentre, eq(costCentre.id, supplier.costCentreId))
        .leftJoin(taxCode, eq(taxCode.id, supplier.taxCodeId))
        .where(and(eq(supplier.companyId, caller.company.id), eq(supplier.id, params['id']!)));
      if (!row) throw notFound('This supplier');
      const items = await db
        .select({
          billId: openItem.billId,
          kind: bill.kind,
          invoiceNumber: sql<string>`${bill.invoiceNumber}`,
          issueDate: bill.issueDate,
          dueDate: openItem.dueDate,
          currency: openItem.currency,
          amount: openItem.amount,
          open: sql<string>`(${openItem.amount} - ${openItem.settled})::text`,
          entry: sql<string>`${journalEntry.year} || '-' || lpad(${journalEntry.number}::text, 5, '0')`,
          entryId: openItem.entryId,
        })
        .from(openItem)
        .innerJoin(bill, eq(bill.id, openItem.billId))
        .innerJoin(journalEntry, eq(journalEntry.id, openItem.entryId))
        .where(eq(openItem.supplierId, row.s.id))
        .orderBy(desc(bill.issueDate))
        .limit(200);
      const open = await db
        .select({ currency: openItem.currency, amount: sql<string>`sum(${openItem.amount} - ${openItem.settled})::text` })
        .from(openItem)
        .where(eq(openItem.supplierId, row.s.id))
        .groupBy(openItem.currency);
      const { id, code, name, taxId, iban, email, phone, address, currency, terms } = row.s;
      return {
        id,
        code,
        name,
        taxId,
        iban,
        email,
        phone,
        address,
        currency,
        terms,
        usual: { account: row.account, costCentre: row.centre, taxCode: row.code },
        open,
        items,
      };
    },
  );
}
