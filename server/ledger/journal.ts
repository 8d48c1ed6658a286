import { and, eq, inArray } from 'drizzle-orm';
import { journalOf, type Journal } from '@ledgerline/core/posting';
import type { Company, JournalPreview } from '@ledgerline/contract';
import { taxRulesOf } from '../bills/checking.ts';
import { findBill, linesOf, rateOn } from '../bills/store.ts';
import type { Executor } from '../db/client.ts';
import { costCentre, ledgerAccount, supplier, taxCode } from '../db/schema/index.ts';
import { notFound, Refusal } from '../http/problems.ts';

export interface Prepared {
  bill: NonNullable<Awaited<ReturnType<typeof findBill>>>;
  journal: Journal;
  rate: string;
  supplierName: string;
}

/** The journal entry of a bill as it would be posted. Refused with a sentence when something is missing. */
export async function prepare(
  db: Executor,
  company: Pick<Company, 'id' | 'baseCurrency'>,
  billId: string,
  entryDate: string,
  lock = false,
): Promise<Prepared> {
  const bill = await findBill(db, company.id, billId, lock);
  if (!bill) throw notFound('This bill');
  const name = `${bill.invoiceNumber ?? 'The bill'}`;
  if (!bill.supplierId || !bill.gross || !bill.invoiceNumber) throw new Refusal(422, `${name}: supplier, number or total is missing.`);
  const [from] = await db.select().from(supplier).where(eq(supplier.id, bill.supplierId));
  const [payable] = await db
    .select()
    .from(ledgerAccount)
    .where(and(eq(ledgerAccount.companyId, company.id), eq(ledgerAccount.kind, 'payable')))
    .orderBy(ledgerAccount.code)
    .limit(1);
  if (!payable) throw new Refusal(422, 'The chart of accounts has no account for suppliers.');
  const rate = await rateOn(db, company.id, bill.currency, company.baseCurrency, bill.issueDate ?? entryDate);
  if (!rate) throw new Refusal(422, `${name}: there is no exchange rate from ${bill.currency} to ${company.baseCurrency}.`);
  const rules = await taxRulesOf(db, company.id);
  const lines = (await linesOf(db, billId)).map((line, i) => {
    const rule = line.taxCodeId ? rules.get(line.taxCodeId) : undefined;
    if (!line.accountId || !rule || line.amount === null) throw new Refusal(422, `${name}: row ${i + 1} is not coded.`);
    return {
      id: line.id,
      description: line.description,
      amount: line.amount,
      accountId: line.accountId,
      costCentreId: line.costCentreId,
      rule,
    };
  });
  try {
    const journal = journalOf({
      kind: bill.kind as 'invoice',
      currency: bill.currency,
      baseCurrency: company.baseCurrency,
      rate,
      tax: bill.tax,
      gross: bill.gross,
      pricesIncludeTax: bill.pricesIncludeTax,
      supplierId: bill.supplierId,
      supplierName: from!.name,
      invoiceNumber: bill.invoiceNumber,
      payableAccountId: payable.id,
      lines,
    });
    return { bill, journal, rate, supplierName: from!.name };
  } catch (error) {
    if (error instanceof RangeError) throw new Refusal(422, `${name} cannot be posted: ${error.message}.`);
    throw error;
  }
}

export async function previewOf(db: Executor, company: Company, billId: string, entryDate: string): Promise<JournalPreview> {
  const { bill, journal, rate } = await prepare(db, company, billId, entryDate);
  const accounts = new Map(
    (
      await db
        .select()
        .from(ledgerAccount)
        .where(
          inArray(
            ledgerAccount.id,
            journal.lines.map((l) => l.accountId),
          ),
        )
    ).map((a) => [a.id, a]),
  );
  const centres = new Map((await db.select().from(costCentre).where(eq(costCentre.companyId, company.id))).map((c) => [c.id, c.code]));
  const codes = new Map((await db.select().from(taxCode).where(eq(taxCode.companyId, company.id))).map((c) => [c.id, c.code]));
  return {
    entryDate,
    currency: bill.currency,
    baseCurrency: company.baseCurrency,
    rate,
    total: journal.total,
    lines: journal.lines.map((l) => ({
      account: accounts.get(l.accountId)!.code,
      accountName: accounts.get(l.accountId)!.name,
      costCentre: centres.get(l.costCentreId ?? '') ?? null,
      taxCode: codes.get(l.taxCodeId ?? '') ?? null,
      description: l.description,
      debit: l.debit,
      credit: l.credit,
      currencyAmount: l.currencyAmount,
    })),
  };
}
