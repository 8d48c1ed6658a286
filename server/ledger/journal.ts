import { and, eq, inArray } from 'drizzle-orm';
import { stopsCoding } from '@ledgerline/core/checks';
import { dec, sum } from '@ledgerline/core/money';
import { bearerOf, journalOf, type Journal } from '@ledgerline/core/posting';
import type { Company, JournalPreview } from '@ledgerline/contract';
import { taxRulesOf } from '../bills/checking.ts';
import { asLine } from '../bills/show.ts';
import { rateOn, type BillRecord } from '../bills/store.ts';
import { chargesOf, partsOf, partsStopped, type Charges } from '../charges/shared.ts';
import type { Executor } from '../db/client.ts';
import { bill, billLine, costCentre, ledgerAccount, supplier, taxCode } from '../db/schema/index.ts';
import { keptAccount } from '../coding/usual.ts';
import { codingGround } from '../dimensions/facts.ts';
import { dimensionsSaid, namesOn } from '../dimensions/store.ts';
import { notFound, Refusal } from '../http/problems.ts';

export interface Prepared {
  bill: BillRecord;
  journal: Journal;
  rate: string;
  supplierName: string;
}

/** What the entries of several bills are made from, fetched once for all of them. */
interface Ground {
  suppliers: Map<string, string>;
  payableId: string;
  roundingId: string | null;
  rules: Awaited<ReturnType<typeof taxRulesOf>>;
  /** By currency and day. */
  rates: Map<string, string | null>;
  lines: Map<string, (typeof billLine.$inferSelect)[]>;
  charges: Charges;
  coding: Awaited<ReturnType<typeof codingGround>>;
}
const rateKey = (bill: BillRecord, entryDate: string): string => `${bill.currency} ${bill.issueDate ?? entryDate}`;

async function groundOf(
  db: Executor,
  company: Pick<Company, 'id' | 'baseCurrency'>,
  bills: BillRecord[],
  entryDate: string,
): Promise<Ground> {
  const [payable] = await db
    .select({ id: ledgerAccount.id })
    .from(ledgerAccount)
    .where(and(eq(ledgerAccount.companyId, company.id), eq(ledgerAccount.kind, 'payable')))
    .orderBy(ledgerAccount.code)
    .limit(1);
  if (!payable) throw new Refusal(422, 'The chart of accounts has no account for suppliers.');
  const supplierIds = [...new Set(bills.flatMap((b) => b.supplierId ?? []))];
  const known = await db.select({ id: supplier.id, name: supplier.name }).from(supplier).where(inArray(supplier.id, supplierIds));
  const rates: Ground['rates'] = new Map();
  for (const one of bills) {
    const key = rateKey(one, entryDate);
    if (!rates.has(key)) rates.set(key, await rateOn(db, company.id, one.currency, company.baseCurrency, one.issueDate ?? entryDate));
  }
  const lines: Ground['lines'] = new Map(bills.map((b) => [b.id, []]));
  const all = await db
    .select()
    .from(billLine)
    .where(
      inArray(
        billLine.billId,
        bills.map((b) => b.id),
      ),
    )
    .orderBy(billLine.position);
  for (const line of all) lines.get(line.billId)!.push(line);
  const charges = await chargesOf(
    db,
    bills.map((b) => b.id),
  );
  return {
    suppliers: new Map(known.map((s) => [s.id, s.name])),
    payableId: payable.id,
    roundingId: (await keptAccount(db, company.id, 'rounding'))?.id ?? null,
    rules: await taxRulesOf(db, company.id),
    rates,
    lines,
    charges,
    coding: await codingGround(
      db,
      company.id,
      all.flatMap((l) => partsOf(l, charges)),
    ),
  };
}

/** Bills of a company by their ids, in the order of these; locked in one order, so that two who post at once wait for each other. */
async function billsIn(db: Executor, companyId: string, ids: string[], lock: boolean): Promise<BillRecord[]> {
  const query = db
    .select()
    .from(bill)
    .where(and(eq(bill.companyId, companyId), inArray(bill.id, ids)))
    .orderBy(bill.id);
  const found = new Map((lock ? await query.for('update') : await query).map((b) => [b.id, b]));
  return ids.map((id) => {
    const one = found.get(id);
    if (!one) throw notFound('This bill');
    return one;
  });
}

/** The journal entries of bills as they would be posted, in the order asked for. Refused with a sentence when something is missing. */
export async function prepare(
  db: Executor,
  company: Pick<Company, 'id' | 'baseCurrency'>,
  billIds: string[],
  entryDate: string,
  lock = false,
): Promise<Prepared[]> {
  const bills = await billsIn(db, company.id, billIds, lock);
  const ground = await groundOf(db, company, bills, entryDate);
  return bills.map((one) => journalFor(one, ground, company.baseCurrency, entryDate));
}

function journalFor(one: BillRecord, ground: Ground, baseCurrency: string, entryDate: string): Prepared {
  const name = `${one.invoiceNumber ?? 'The bill'}`;
  if (!one.supplierId || !one.gross || !one.invoiceNumber) throw new Refusal(422, `${name}: supplier, number or total is missing.`);
  const rate = ground.rates.get(rateKey(one, entryDate));
  if (!rate) throw new Refusal(422, `${name}: there is no exchange rate from ${one.currency} to ${baseCurrency}.`);
  const rules = ground.rules(one.issueDate ?? entryDate);
  const rows = ground.lines.get(one.id)!,
    parts = rows.map((line) => partsOf(line, ground.charges));
  const lines = parts.flatMap((of, i) => {
    const { amount: whole } = rows[i]!;
    // The checks hold a bill back that is not shared to the cent; this is the last look.
    if (of.length > 1 && !sum(of.map((p) => dec(p.amount!))).eq(whole!))
      throw new Refusal(422, `${name}: what row ${i + 1} is shared into is not its amount.`);
    return of.flatMap((line) => {
      if (line.kind === 'text') return [];
      const rule = line.taxCodeId ? rules.get(line.taxCodeId) : undefined;
      if (!line.accountId || !rule || line.amount === null) throw new Refusal(422, `${name}: row ${i + 1} is not coded.`);
      const { id, description, amount, accountId } = line;
      return [{ id, description, amount, accountId, bearer: bearerOf(line), rule }];
    });
  });
  // The lists may have changed since the bill was sent on.
  const coding = ground.coding(one.issueDate ?? entryDate);
  const [other] = rows.flatMap((line, i) =>
    partsStopped(line, ground.charges, coding).map(({ goods, stops: why }) => `Row ${i + 1}, for ${goods}, ${why}`),
  );
  const stops = stopsCoding(parts.map((of) => asLine(of[0]!)), coding) ?? other; // prettier-ignore
  if (stops) throw new Refusal(422, `${name} cannot be posted as it is coded: ${stops}`);
  const supplierName = ground.suppliers.get(one.supplierId)!;
  try {
    const journal = journalOf({
      kind: one.kind as 'invoice',
      currency: one.currency,
      baseCurrency,
      rate,
      tax: one.tax,
      gross: one.gross,
      pricesIncludeTax: one.pricesIncludeTax,
      supplierId: one.supplierId,
      supplierName,
      invoiceNumber: one.invoiceNumber,
      payableAccountId: ground.payableId,
      roundingAccountId: ground.roundingId,
      lines,
    });
    return { bill: one, journal, rate, supplierName };
  } catch (error) {
    if (error instanceof RangeError) throw new Refusal(422, `${name} cannot be posted: ${error.message}.`);
    throw error;
  }
}

export async function previewOf(db: Executor, company: Company, billId: string, entryDate: string): Promise<JournalPreview> {
  const [prepared] = await prepare(db, company, [billId], entryDate);
  const { bill: one, journal, rate } = prepared!;
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
  const [named, values] = await namesOn(
    db,
    company.id,
    journal.lines.flatMap((l) => l.bearer ?? []),
  );
  return {
    entryDate,
    currency: one.currency,
    baseCurrency: company.baseCurrency,
    rate,
    total: journal.total,
    lines: journal.lines.map((l) => ({
      account: accounts.get(l.accountId)!.code,
      accountName: accounts.get(l.accountId)!.name,
      costCentre: centres.get(l.bearer?.costCentreId ?? '') ?? null,
      dimensions: l.bearer ? dimensionsSaid(l.bearer, named, values) : [],
      taxCode: codes.get(l.taxCodeId ?? '') ?? null,
      description: l.description,
      debit: l.debit,
      credit: l.credit,
      currencyAmount: l.currencyAmount,
    })),
  };
}
