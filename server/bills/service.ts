import { and, eq, notInArray } from 'drizzle-orm';
import { check } from '@ledgerline/core/checks';
import type { TaxRule } from '@ledgerline/core/tax';
import type { Bill, BillLine, Exception, SaveBill } from '@ledgerline/contract';
import { refusedBy, type Executor } from '../db/client.ts';
import { bill, billEvent, billLine, document, ledgerAccount, taxCode } from '../db/schema/index.ts';
import type { Caller } from '../http/define.ts';
import { notFound, Refusal } from '../http/problems.ts';
import { today, type Services } from '../services.ts';
import { billField } from './intake.ts';
import { arrivalOf, entryOf, eventsOf, findBill, linesOf, rateOn, twinOf } from './store.ts';

type BillRecord = typeof bill.$inferSelect;
const editable = ['read', 'returned'];

export async function taxRulesOf(
  db: Executor,
  companyId: string,
): Promise<Map<string, TaxRule & { accountId: string; outputAccountId: string | null }>> {
  const rows = await db.select().from(taxCode).where(eq(taxCode.companyId, companyId));
  return new Map(rows.map((r) => [r.id, r]));
}

const asLine = (row: typeof billLine.$inferSelect): BillLine => {
  const { companyId: _c, billId: _b, position: _p, kind, ...rest } = row;
  return { ...rest, kind: kind as BillLine['kind'] };
};

/** What stands between this bill and being sent on. */
async function exceptionsOf(db: Executor, caller: Caller, record: BillRecord, lines: BillLine[], day: string): Promise<Exception[]> {
  const accounts = await db
    .select({ id: ledgerAccount.id })
    .from(ledgerAccount)
    .where(and(eq(ledgerAccount.companyId, record.companyId), eq(ledgerAccount.kind, 'expense')));
  const base = caller.company.baseCurrency;
  const found = check(
    { ...record, kind: record.kind as Bill['kind'], lines },
    {
      baseCurrency: base,
      taxRules: await taxRulesOf(db, record.companyId),
      needsCostCentre: new Set(accounts.map((a) => a.id)),
      duplicate: await twinOf(db, record),
      hasRate: (await rateOn(db, record.companyId, record.currency, base, record.issueDate ?? day)) !== null,
    },
  );
  found.unshift(...(await dataExceptions(db, record)));
  return record.note && record.stage === 'read'
    ? [{ code: 'company-differs', path: 'supplierId', sentence: record.note, blocking: false }, ...found]
    : found;
}

/** What an e-invoice's data breaks or says differently from its page. A difference holds the bill back until somebody has chosen. */
async function dataExceptions(db: Executor, record: BillRecord): Promise<Exception[]> {
  if (!record.documentId) return [];
  const [row] = await db.select({ findings: document.findings }).from(document).where(eq(document.id, record.documentId));
  if (!row?.findings) return [];
  const differ = row.findings.differences.map((d): Exception | null => {
    const path = billField(d.field);
    if (!record.unsure.includes(path)) return null;
    const choices =
      path === 'supplierId'
        ? record.supplierId
          ? [{ label: 'Checked', value: record.supplierId }]
          : []
        : [
            { label: `Data: ${d.data}`, value: d.data },
            { label: `Page: ${d.page}`, value: d.page },
          ];
    return { code: `differs-${d.field}`, path, sentence: d.sentence, blocking: true, choices };
  });
  const broken = row.findings.broken.map((b): Exception => ({
    code: b.rule,
    path: billField(headerOf[b.paths[0] ?? ''] ?? b.paths[0] ?? 'lines'),
    sentence: `The e-invoice breaks rule ${b.rule}: ${b.sentence}`,
    blocking: false,
  }));
  return [...differ.filter((d): d is Exception => d !== null), ...broken];
}

const headerOf: Record<string, string> = {
  'supplier.name': 'supplierName',
  'supplier.taxId': 'supplierTaxId',
  'supplier.iban': 'supplierIban',
  'buyer.name': 'supplierName',
  charges: 'lines',
  kind: 'lines',
};

export async function getBill(db: Executor, caller: Caller, id: string, day: string): Promise<Bill> {
  const record = await findBill(db, caller.company.id, id);
  if (!record) throw notFound('This bill');
  const lines = (await linesOf(db, id)).map(asLine);
  return {
    id,
    companyId: record.companyId,
    documentId: record.documentId,
    stage: record.stage,
    kind: record.kind as Bill['kind'],
    supplierId: record.supplierId,
    supplierName: record.supplierName,
    supplierReason: record.supplierReason,
    invoiceNumber: record.invoiceNumber,
    issueDate: record.issueDate,
    dueDate: record.dueDate,
    terms: record.terms,
    currency: record.currency,
    purchaseOrder: record.purchaseOrder,
    net: record.net,
    tax: record.tax,
    gross: record.gross,
    pricesIncludeTax: record.pricesIncludeTax,
    marks: record.marks,
    unsure: record.unsure,
    note: record.note,
    rowVersion: record.rowVersion,
    createdAt: record.createdAt.toISOString(),
    sentBy: record.sentBy,
    approvedBy: record.approvedBy,
    lines,
    exceptions: editable.includes(record.stage) ? await exceptionsOf(db, caller, record, lines, day) : [],
    events: await eventsOf(db, id),
    arrival: await arrivalOf(db, record.documentId),
    entry: await entryOf(db, id),
  };
}

/** Takes the bill for a change: refused when somebody else changed it since, or when its stage does not allow it. */
async function take(tx: Executor, caller: Caller, id: string, rowVersion: number, stages: string[], cannot: string): Promise<BillRecord> {
  const record = await findBill(tx, caller.company.id, id, true);
  if (!record) throw notFound('This bill');
  if (!stages.includes(record.stage)) throw new Refusal(409, cannot);
  if (record.rowVersion !== rowVersion)
    throw new Refusal(409, 'Somebody else changed this bill meanwhile. Load it again to see what is new.');
  return record;
}

async function friendly<T>(work: () => Promise<T>): Promise<T> {
  try {
    return await work();
  } catch (error) {
    const constraint = refusedBy(error);
    if (constraint === 'bill_number_once') throw new Refusal(409, 'This invoice number from this supplier is already on another bill.');
    if (constraint === 'bill_not_own_approval') throw new Refusal(403, 'You sent this bill on yourself. Somebody else has to approve it.');
    if (constraint?.startsWith('bill_line_') || constraint === 'bill_supplier_of_company')
      throw new Refusal(422, 'A supplier, account, cost centre or tax code does not belong to this company. Choose it again.');
    throw error;
  }
}

/** Saves what the desk changed, all or nothing; lines that are not named any more go. */
export async function saveBill(services: Services, caller: Caller, id: string, asked: SaveBill): Promise<Bill> {
  return friendly(() =>
    services.database.db.transaction(async (tx) => {
      const record = await take(tx, caller, id, asked.rowVersion, editable, 'This bill has been sent on and cannot be changed here.');
      await tx
        .update(bill)
        .set({ ...asked.header, rowVersion: record.rowVersion + 1 })
        .where(eq(bill.id, id));
      if (asked.lines) {
        const kept = asked.lines.map((l) => l.id);
        if (new Set(kept).size < kept.length) throw new Refusal(400, 'Two rows have the same id.');
        await tx.delete(billLine).where(and(eq(billLine.billId, id), kept.length ? notInArray(billLine.id, kept) : undefined));
        const there = new Set((await linesOf(tx, id)).map((l) => l.id));
        for (const [position, line] of asked.lines.entries()) {
          const { id: lineId, ...values } = line;
          if (there.has(lineId))
            await tx
              .update(billLine)
              .set({ ...values, position })
              .where(and(eq(billLine.id, lineId), eq(billLine.billId, id)));
          else await tx.insert(billLine).values({ ...line, companyId: caller.company.id, billId: id, position });
        }
      }
      return getBill(tx, caller, id, today(services));
    }),
  );
}

interface Move {
  from: string[];
  to: string;
  what: string;
  cannot: string;
  note?: string;
  set?: (record: BillRecord, now: Date) => Partial<BillRecord>;
}

async function move(
  services: Services,
  caller: Caller,
  id: string,
  rowVersion: number,
  m: Move,
  before?: (tx: Executor, record: BillRecord) => Promise<void>,
): Promise<Bill> {
  return friendly(() =>
    services.database.db.transaction(async (tx) => {
      const record = await take(tx, caller, id, rowVersion, m.from, m.cannot);
      await before?.(tx, record);
      const now = services.now();
      await tx
        .update(bill)
        .set({ stage: m.to, rowVersion: record.rowVersion + 1, note: m.note ?? null, ...m.set?.(record, now) })
        .where(eq(bill.id, id));
      await tx
        .insert(billEvent)
        .values({ companyId: record.companyId, billId: id, what: m.what, personId: caller.me.id, note: m.note ?? null, at: now });
      return getBill(tx, caller, id, today(services));
    }),
  );
}

/** The clerk is done: the bill goes to an approver. Refused while anything blocking is open; the sentence says what. */
export function sendOn(services: Services, caller: Caller, id: string, rowVersion: number): Promise<Bill> {
  return move(
    services,
    caller,
    id,
    rowVersion,
    {
      from: editable,
      to: 'coded',
      what: 'coded',
      cannot: 'This bill has been sent on already.',
      set: (_, now) => ({ sentBy: caller.me.id, sentAt: now, approvedBy: null, approvedAt: null, unsure: [] }),
    },
    async (tx, record) => {
      const exceptions = await exceptionsOf(tx, caller, record, (await linesOf(tx, id)).map(asLine), today(services));
      const blocking = exceptions.filter((e) => e.blocking);
      if (blocking.length)
        throw new Refusal(
          422,
          blocking[0]!.sentence,
          blocking.map(({ path, sentence }) => ({ path, sentence })),
        );
    },
  );
}

export function approve(services: Services, caller: Caller, id: string, rowVersion: number): Promise<Bill> {
  return move(
    services,
    caller,
    id,
    rowVersion,
    {
      from: ['coded'],
      to: 'approved',
      what: 'approved',
      cannot: 'This bill is not waiting for approval any more.',
      set: (_, now) => ({ approvedBy: caller.me.id, approvedAt: now }),
    },
    async (_, record) => {
      if (record.sentBy === caller.me.id) throw new Refusal(403, 'You sent this bill on yourself. Somebody else has to approve it.');
    },
  );
}

export const returnBill = (services: Services, caller: Caller, id: string, rowVersion: number, note: string): Promise<Bill> =>
  move(services, caller, id, rowVersion, {
    from: ['coded'],
    to: 'returned',
    what: 'returned',
    note,
    cannot: 'This bill is not waiting for approval any more.',
    set: () => ({ sentBy: null, sentAt: null }),
  });

/** The clerk takes back what no approver has decided yet. */
export const takeBack = (services: Services, caller: Caller, id: string, rowVersion: number): Promise<Bill> =>
  move(
    services,
    caller,
    id,
    rowVersion,
    {
      from: ['coded'],
      to: 'read',
      what: 'taken back',
      cannot: 'This bill has been decided already.',
      set: () => ({ sentBy: null, sentAt: null }),
    },
    async (_, record) => {
      if (record.sentBy !== caller.me.id) throw new Refusal(403, 'Only the person who sent this bill on can take it back.');
    },
  );

export const setAside = (services: Services, caller: Caller, id: string, rowVersion: number, note: string): Promise<Bill> =>
  move(services, caller, id, rowVersion, {
    from: editable,
    to: 'set-aside',
    what: 'set aside',
    note,
    cannot: 'Only a bill under review can be set aside.',
  });

export const discard = (services: Services, caller: Caller, id: string, rowVersion: number, note: string): Promise<Bill> =>
  move(services, caller, id, rowVersion, {
    from: [...editable, 'set-aside'],
    to: 'discarded',
    what: 'discarded',
    note,
    cannot: 'Only a bill that has not been sent on can be discarded.',
  });

export const restore = (services: Services, caller: Caller, id: string, rowVersion: number): Promise<Bill> =>
  move(services, caller, id, rowVersion, {
    from: ['set-aside', 'discarded'],
    to: 'read',
    what: 'taken up again',
    cannot: 'This bill is under review already.',
  });
