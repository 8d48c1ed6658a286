import { and, eq, inArray } from 'drizzle-orm';
import type { Coding, Operation, WorkingBill } from '@ledgerline/core/bills';
import { dec, formatAmount } from '@ledgerline/core/money';
import { inRanges, parseRanges, type Range } from '@ledgerline/core/ranges';
import type { PersonRange } from '@ledgerline/contract';
import { rateOn, type BillRecord } from '../bills/store.ts';
import type { Caller } from '../commands/command.ts';
import type { Executor } from '../db/client.ts';
import { costCentre, ledgerAccount, personRange } from '../db/schema/index.ts';
import { Refusal } from '../http/problems.ts';

/** What a person codes and approves in a company; null is everything. */
export interface OwnRange {
  accounts: Range[] | null;
  costCentres: Range[] | null;
  most: string | null;
}
const ranged = { accountId: 'accounts', costCentreId: 'costCentres' } as const;
type Ranged = keyof typeof ranged;
const fields = Object.keys(ranged) as Ranged[];
const tableOf = { accountId: ledgerAccount, costCentreId: costCentre };
const calledOf = { accountId: 'account', costCentreId: 'cost centre' };

/** Ranges that can be read; refused by field where they cannot. */
export function rangesFit(range: PersonRange): void {
  for (const field of ['accounts', 'costCentres'] as const) {
    const read = range[field] === null ? null : parseRanges(range[field]);
    if (read && 'trouble' in read) throw new Refusal(422, read.trouble, [{ path: `range.${field}`, sentence: read.trouble }]);
  }
}

const parsed = (text: string | null): Range[] | null => {
  const read = text === null ? null : parseRanges(text);
  // What nobody can read any more allows nothing.
  return read && ('ranges' in read ? read.ranges : []);
};

/** What of the company's lists a person codes and approves, and up to which amount; null where they have no limits. */
export async function rangeOf(db: Executor, companyId: string, personId: string): Promise<OwnRange | null> {
  const [row] = await db
    .select()
    .from(personRange)
    .where(and(eq(personRange.companyId, companyId), eq(personRange.personId, personId)));
  return row ? { accounts: parsed(row.accounts), costCentres: parsed(row.costCentres), most: row.most } : null;
}

async function codesOf(db: Executor, companyId: string, field: Ranged, ids: readonly string[]): Promise<Map<string, string>> {
  const table = tableOf[field];
  const rows =
    ids.length === 0
      ? []
      : await db
          .select({ id: table.id, code: table.code })
          .from(table)
          .where(and(eq(table.companyId, companyId), inArray(table.id, [...ids])));
  return new Map(rows.map((r) => [r.id, r.code]));
}

/** The first code among these that is not the person's; null where all are. */
async function outside(
  db: Executor,
  companyId: string,
  range: OwnRange,
  codings: readonly Partial<Coding>[],
): Promise<[Ranged, string] | null> {
  for (const field of fields) {
    const own = range[ranged[field]];
    if (own === null) continue;
    const ids = [...new Set(codings.flatMap((c) => c[field] ?? []))];
    for (const code of (await codesOf(db, companyId, field, ids)).values()) if (!inRanges(own, code)) return [field, code];
  }
  return null;
}

/** Refuses codings by a person whose accounts or cost centres these are not. */
export async function mayCode(tx: Executor, caller: Caller, codings: readonly Partial<Coding>[]): Promise<void> {
  const range = await rangeOf(tx, caller.company.id, caller.me.id);
  const no = range && (await outside(tx, caller.company.id, range, codings));
  if (no)
    throw new Refusal(403, `${no[1]} is not among the ${calledOf[no[0]]}s that you code. Leave it to somebody else, or choose another.`);
}

/** What of operations codes lines anew. */
export function codedBy(operations: readonly Operation[], before: WorkingBill): Partial<Coding>[] {
  const was = new Map(before.lines.map((l) => [l.id, l]));
  return operations.flatMap((op): Partial<Coding>[] => {
    // What stands there already is put back by undo, not coded.
    if (op.do === 'set-cell' && op.value !== null && was.get(op.line)?.[op.field] !== op.value) return [{ [op.field]: op.value }];
    if ((op.do === 'add-line' || op.do === 'set-kind') && op.cells) return [op.cells];
    return [];
  });
}

/** Refuses the approval of a bill whose amount or coding is beyond what the person approves. */
export async function mayApprove(
  tx: Executor,
  { me, company }: Caller,
  bill: BillRecord,
  lines: readonly Partial<Coding>[],
  today: string,
): Promise<void> {
  const range = await rangeOf(tx, company.id, me.id);
  if (!range) return;
  const no = await outside(tx, company.id, range, lines);
  if (no) throw new Refusal(403, `It has rows on ${calledOf[no[0]]} ${no[1]}, which is not yours to approve. Somebody else has to.`);
  if (range.most === null) return;
  const rate = await rateOn(tx, company.id, bill.currency, company.baseCurrency, bill.issueDate ?? today);
  const inBase = dec(bill.gross ?? '0')
    .abs()
    .times(rate ?? 1);
  const said = (amount: string) => `${formatAmount(amount, company.baseCurrency)} ${company.baseCurrency}`;
  if (inBase.gt(range.most))
    throw new Refusal(403, `It comes to ${said(inBase.toFixed(2))}; you approve up to ${said(range.most)}. Somebody else has to.`);
}

/** Sets what a person codes and approves; null in all is no row. Part of the caller's transaction. */
export async function setRange(tx: Executor, companyId: string, personId: string, range: PersonRange): Promise<void> {
  rangesFit(range);
  const own = and(eq(personRange.companyId, companyId), eq(personRange.personId, personId));
  await tx.delete(personRange).where(own);
  const { accounts, costCentres, most } = range;
  if (accounts !== null || costCentres !== null || most !== null)
    await tx.insert(personRange).values({ companyId, personId, accounts, costCentres, most });
}
/** As people wrote it. */
export async function rangeSaid(db: Executor, companyId: string, personId: string): Promise<PersonRange> {
  const [row] = await db
    .select()
    .from(personRange)
    .where(and(eq(personRange.companyId, companyId), eq(personRange.personId, personId)));
  return { accounts: row?.accounts ?? null, costCentres: row?.costCentres ?? null, most: row?.most ?? null };
}
/** Ranges of everybody in a company, by person. */
export const rangesIn = async (db: Executor, companyId: string): Promise<Map<string, PersonRange>> =>
  new Map(
    (await db.select().from(personRange).where(eq(personRange.companyId, companyId))).map(({ personId, accounts, costCentres, most }) => [
      personId,
      { accounts, costCentres, most },
    ]),
  );
export const everything: PersonRange = { accounts: null, costCentres: null, most: null };
