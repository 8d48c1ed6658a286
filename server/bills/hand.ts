import type { HeaderCells } from '@ledgerline/core/bills';
import { discountDate, parseTerms } from '@ledgerline/core/terms';
import type { Bill } from '@ledgerline/contract';
import type { Caller, Hand, Params } from '../commands/command.ts';
import type { Executor } from '../db/client.ts';
import { notFound, Refusal } from '../http/problems.ts';
import { recheck } from './checking.ts';
import { getBill } from './show.ts';
import { editable, findBill, type BillRecord } from './store.ts';

/** Takes the bill for a change: refused when its stage does not allow it, or when somebody else changed it since. */
export const billIn =
  (stages: readonly string[], cannot: string) =>
  async (tx: Executor, caller: Caller, params: Params, input: { rowVersion: number }): Promise<BillRecord> => {
    const record = await findBill(tx, caller.company.id, params['id']!, true);
    if (!record) throw notFound('This bill');
    if (!stages.includes(record.stage)) throw new Refusal(409, cannot);
    if (record.rowVersion !== input.rowVersion)
      throw new Refusal(409, 'Somebody else changed this bill meanwhile. Load it again to see what is new.', [], 'changed');
    return record;
  };

/** A bill of the company at whatever stage; taken for a change where it is asked for. */
export const anyBill =
  (lock = false) =>
  async (tx: Executor, caller: Caller, params: Params): Promise<BillRecord> => {
    const record = await findBill(tx, caller.company.id, params['id']!, lock);
    if (!record) throw notFound('This bill');
    return record;
  };

export const underReview = billIn(editable, 'This bill has been sent on and cannot be changed here.');

/** A bill's head, by name; nothing else of what is given gets in. */
export const headOf = (head: HeaderCells): HeaderCells => ({
  kind: head.kind,
  supplierId: head.supplierId,
  invoiceNumber: head.invoiceNumber,
  issueDate: head.issueDate,
  dueDate: head.dueDate,
  terms: head.terms,
  currency: head.currency,
  purchaseOrder: head.purchaseOrder,
  net: head.net,
  tax: head.tax,
  gross: head.gross,
  pricesIncludeTax: head.pricesIncludeTax,
});
/** The head as columns, with what follows from it. */
export const headColumns = (head: HeaderCells) => ({ ...headOf(head), discountUntil: discountOf(head.issueDate, head.terms) });

/** The last day on which a bill earns the cash discount of its terms. */
export function discountOf(issued: string | null, terms: string | null): string | null {
  const parsed = issued && terms ? parseTerms(terms) : null;
  return parsed && issued ? discountDate(issued, parsed) : null;
}

/** After a change: the checks run again. Gives the bill's id. */
export async function checked(tx: Executor, caller: Caller, id: string, hand: Pick<Hand<unknown>, 'now'>): Promise<string> {
  const record = (await findBill(tx, caller.company.id, id))!;
  if ([...editable, 'set-aside'].includes(record.stage))
    await recheck(tx, caller.company, record, { personId: caller.me.id, now: hand.now });
  return id;
}
/** The answer of every use case of a bill: the bill as it stands now. */
export const asItStands = (db: Executor, caller: Caller, id: string, now: Date): Promise<Bill> =>
  getBill(db, caller.company, id, now.toISOString().slice(0, 10));
