import { and, eq } from 'drizzle-orm';
import {
  codingFields,
  codingOf,
  type Coding,
  type CodingField,
  type StoredMark,
  type WorkingBill,
  type WorkingLine,
} from '@ledgerline/core/bills';
import {
  Memory,
  suggest,
  sure,
  withDefault,
  withFollowing,
  withItems,
  withOrdered,
  withRules,
  type LineToCode,
  type Suggestions,
} from '@ledgerline/core/coding';
import { dec } from '@ledgerline/core/money';
import { rateOnDay } from '@ledgerline/core/tax';
import { openIn } from '../accounts/open.ts';
import type { Executor } from '../db/client.ts';
import { company, supplier, taxCode } from '../db/schema/index.ts';
import { goingOn } from '../dimensions/going.ts';
import { dimensionsOf } from '../dimensions/store.ts';
import { codedItems } from '../items/coding.ts';
import { orderedRows } from '../orders/coding.ts';
import { openOf, rulesFor } from './rules.ts';
import { companyUsual } from './usual.ts';
import { postedLines } from './posted-lines.ts';

/** What is filled in of what a line may be coded with, and at each cell why, and what else it may be. */
export function codedBy(suggestions: Suggestions): Coding & { marks: Record<string, StoredMark> } {
  const coding = codingOf(null),
    marks: Record<string, StoredMark> = {};
  for (const field of codingFields) {
    const [first, ...others] = suggestions[field];
    if (!first) continue;
    const filled = first.share >= sure;
    if (filled) coding[field] = first.id;
    const rivals = (filled ? others : [first, ...others]).map(({ id, why }) => ({ value: id, mark: null, why }));
    marks[field] = { mark: null, confidence: first.share, proof: filled ? first.why : null, ...(rivals.length > 0 ? { rivals } : {}) };
  }
  return { ...coding, marks };
}

/** A line with the figures by which it is found in an order. */
export type BilledLine = LineToCode & { quantity: string | null; unitPrice: string | null; priceQuantity?: string };

/** What goes with the likeliest of each. */
async function goingWithLikeliest(tx: Executor, companyId: string, suggestions: readonly Suggestions[], day: string) {
  const ids = new Set(suggestions.flatMap((s) => codingFields.flatMap((field) => s[field].slice(0, 1).map((o) => o.id))));
  return goingOn(tx, companyId, [...ids], day);
}

/**
 * What lines of a bill of this day may be coded with, in this order of trust: the order that they bill, rules, what was posted, what is
 * usual for the supplier, the item, the account's tax code, and what is usual in the company.
 */
export async function suggestFor(
  tx: Executor,
  companyId: string,
  usual: (Partial<Coding> & { id: string; suggests: boolean }) | null,
  lines: readonly BilledLine[],
  day: string,
  order: string | null,
): Promise<Suggestions[]> {
  const open = await tx
    .select()
    .from(taxCode)
    .where(and(eq(taxCode.companyId, companyId), openIn(taxCode, day)))
    .orderBy(taxCode.code);
  const codes = open.map((c) => ({ ...c, rate: rateOnDay(c.rate, c.laterRates, day) }));
  const [own] = await tx.select({ suggests: company.suggests }).from(company).where(eq(company.id, companyId));
  const learned = own?.suggests && (usual?.suggests ?? true);
  const dimensions = (await dimensionsOf(tx, companyId)).map((d) => d.field);
  const history = learned ? await postedLines(tx, companyId, usual?.id ?? null, day, dimensions) : new Memory();
  const [lasting] = usual ? await openOf(tx, [{ coding: usual }], day) : [];
  const posted = suggest(lines, history, lasting?.coding ?? null, codes, dimensions);
  const items = withItems(lines, posted, await openOf(tx, await codedItems(tx, companyId), day), codes);
  const ruled = withRules(lines, items, await rulesFor(tx, companyId, usual?.id ?? null, day), codes);
  const ordered = await orderedRows(tx, companyId, usual?.id ?? null, order, lines);
  const stillOpen = await openOf(tx, ordered.map((o) => ({ coding: codingOf(o?.coding) })), day); // prettier-ignore
  const first = withOrdered(lines, ruled, ordered.map((o, i) => o && { ...o, ...stillOpen[i]! }), codes); // prettier-ignore
  const [least] = await openOf(tx, [{ coding: (await companyUsual(tx, companyId)) ?? {} }], day);
  // What goes with the company's usual account and cost centre goes along, too.
  const { accountId = null, costCentreId = null } = least!.coding;
  const likely = withDefault(lines, first, { accountId, costCentreId }, codes);
  const following = withFollowing(lines, likely, await goingWithLikeliest(tx, companyId, likely, day), codes);
  return withDefault(lines, following, least!.coding, codes);
}

/** The one rate that a bill's tax and net make, in percent, as far as they make one. */
function rateOf({ net, tax }: Pick<WorkingBill, 'net' | 'tax'>): string | null {
  if (net === null || tax === null || dec(net).isZero()) return null;
  const rate = dec(tax).div(dec(net)).times(100);
  const near = rate.toDecimalPlaces(1);
  return rate.minus(near).abs().lte('0.02') ? near.toString() : null;
}

/** A cell that nobody typed: empty, or as it was suggested. */
export function untyped(line: WorkingLine, field: CodingField): boolean {
  const mark = line.marks[field];
  return line[field] === null || (mark !== undefined && mark.mark === null && mark.proof !== null);
}

/** A bill whose supplier was chosen or changed, its lines coded as that supplier's are; what somebody typed stays. */
export async function codedAnew(tx: Executor, companyId: string, bill: WorkingBill, today: string): Promise<WorkingBill> {
  const open = bill.lines.filter((l) => l.kind !== 'text' && codingFields.some((field) => untyped(l, field)));
  if (bill.supplierId === null || open.length === 0) return bill;
  const [usual] = await tx
    .select()
    .from(supplier)
    .where(and(eq(supplier.companyId, companyId), eq(supplier.id, bill.supplierId)));
  if (!usual) return bill;
  const onlyRate = rateOf(bill);
  const said = open.map(({ code, description, amount, taxRate, quantity, unitPrice, priceQuantity }) => ({
    quantity,
    unitPrice,
    priceQuantity,
    supplierId: usual.id,
    code,
    description,
    amount,
    day: bill.issueDate,
    taxRate: taxRate ?? onlyRate,
  }));
  const suggested = await suggestFor(tx, companyId, usual, said, bill.issueDate ?? today, bill.purchaseOrder);
  const anew = new Map(
    open.map((line, i) => {
      const { marks, ...coding } = codedBy(suggested[i]!);
      const changed: WorkingLine = { ...line, marks: { ...line.marks } };
      for (const field of codingFields.filter((of) => untyped(line, of))) {
        changed[field] = coding[field];
        delete changed.marks[field];
        if (marks[field]) changed.marks[field] = marks[field];
      }
      return [line.id, changed];
    }),
  );
  return { ...bill, lines: bill.lines.map((line) => anew.get(line.id) ?? line) };
}
