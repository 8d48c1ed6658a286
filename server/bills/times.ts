import { and, eq, isNotNull, ne, sql } from 'drizzle-orm';
import { isGoods } from '@ledgerline/core/bills';
import { chargedTwice, spanIn, type Facts } from '@ledgerline/core/checks';
import { monthOf, yearOf } from '@ledgerline/core/dates';
import { fitsTurn } from '@ledgerline/core/repeats';
import { overBudget } from '../budgets/over.ts';
import type { Executor } from '../db/client.ts';
import { bill, period, repeat } from '../db/schema/index.ts';
import type { BillRecord, linesOf } from './store.ts';

type LineRecord = Awaited<ReturnType<typeof linesOf>>[number];
/** So many lines of a supplier's bills are looked through for days that were charged before, the latest first. */
const looked = 1000;
/** Bills that have their number or their page by so many days around a turn are held against it. */
const around = 10;

async function closedMonth(db: Executor, record: BillRecord): Promise<string | null> {
  if (!record.issueDate) return null;
  const [row] = await db
    .select({ open: period.open })
    .from(period)
    .where(
      and(eq(period.companyId, record.companyId), eq(period.year, yearOf(record.issueDate)), eq(period.month, monthOf(record.issueDate))),
    );
  return row && !row.open ? record.issueDate.slice(0, 7) : null;
}

/** Rows that charge days that another bill of the supplier charged for the same. */
async function chargedBefore(db: Executor, record: BillRecord, lines: readonly LineRecord[]): Promise<Facts['chargedTwice']> {
  const rows = lines.filter((l) => isGoods(l.kind) && l.amount !== null && spanIn(l.description) !== null);
  if (!record.supplierId || record.kind !== 'invoice' || rows.length === 0) return [];
  const { rows: earlier } = await db.execute<{ id: string; number: string | null; description: string }>(sql`
    select b.id, b.invoice_number as number, l.description from bill b join bill_line l on l.bill_id = b.id
    where b.company_id = ${record.companyId} and b.supplier_id = ${record.supplierId} and b.kind = 'invoice' and b.id <> ${record.id}
      and b.stage not in ('discarded', 'reversed') and l.kind in ('line', 'stock', 'asset') and l.amount > 0 and l.description ~ '[0-9]{2}'
      and (b.stage in ('coded', 'approved', 'posted', 'paid') or (b.created_at, b.id) < (${record.createdAt.toISOString()}::timestamptz, ${record.id}::uuid))
      and b.created_at > ${record.createdAt.toISOString()}::timestamptz - interval '400 days'
    order by b.created_at desc, b.id, l.position limit ${looked}`);
  return chargedTwice(rows, earlier).map(({ row, own, of, other }) => ({
    row: row.id,
    ...own,
    other: { id: of.id, number: of.number ?? 'A bill without a number', ...other },
  }));
}

/** A bill of a repeat of the supplier that has come already, and that this bill is like. */
async function turnTaken(db: Executor, record: BillRecord): Promise<Facts['turnTaken']> {
  if (!record.supplierId || record.repeatId || record.kind !== 'invoice' || !record.issueDate) return null;
  const taken = await db
    .select({ id: bill.id, number: bill.invoiceNumber, turn: bill.turn, gross: bill.gross, of: repeat })
    .from(bill)
    .innerJoin(repeat, eq(repeat.id, bill.repeatId))
    .where(
      and(
        eq(bill.companyId, record.companyId),
        eq(bill.supplierId, record.supplierId),
        isNotNull(bill.documentId),
        ne(bill.stage, 'discarded'),
        sql`abs(${bill.turn} - ${record.issueDate}::date) <= greatest(${repeat.documentWithin}, ${around})`,
      ),
    )
    .orderBy(bill.turn);
  const found = taken.find(({ turn, gross, of }) =>
    fitsTurn({ day: turn!, within: Math.max(of.documentWithin ?? 0, around), fixed: of.fixed, gross }, record),
  );
  return found ? { name: found.of.name, day: found.turn!, id: found.id, number: found.number } : null;
}

/** What the checks have to know of times: closed months, days charged before, bills that come again, budgets of the year. */
export async function timeFacts(
  db: Executor,
  own: { id: string; baseCurrency: string },
  record: BillRecord,
  lines: readonly LineRecord[],
  today: string,
): Promise<Pick<Facts, 'closedMonth' | 'chargedTwice' | 'turnTaken' | 'overBudget'>> {
  return {
    closedMonth: await closedMonth(db, record),
    chargedTwice: await chargedBefore(db, record, lines),
    turnTaken: await turnTaken(db, record),
    overBudget: record.kind === 'invoice' ? await overBudget(db, own, record, yearOf(record.issueDate ?? today)) : [],
  };
}
