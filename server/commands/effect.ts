import { and, eq } from 'drizzle-orm';
import type { Effect } from '@ledgerline/contract';
import type { Db, Executor } from '../db/client.ts';
import { bill, billException } from '../db/schema/index.ts';
import { transaction } from '../events/record.ts';

/** Thrown at the end of a trial, so that nothing of it is kept. */
class Tried extends Error {
  constructor(readonly effect: Effect) {
    super('A trial is never kept');
  }
}

type Finding = Awaited<ReturnType<typeof openFindings>>[number];
const openFindings = (tx: Executor, companyId: string) =>
  tx
    .select({
      billId: billException.billId,
      invoiceNumber: bill.invoiceNumber,
      code: billException.code,
      path: billException.path,
      key: billException.key,
      severity: billException.severity,
      sentence: billException.sentence,
    })
    .from(billException)
    .innerJoin(bill, eq(bill.id, billException.billId))
    .where(and(eq(billException.companyId, companyId), eq(billException.state, 'open')))
    .orderBy(bill.createdAt, bill.id, billException.code, billException.path);
const toldBy = (f: Finding): string => JSON.stringify([f.billId, f.code, f.path, f.key, f.severity]);

/** By code and severity, what is on most bills first. */
function turns(findings: readonly Finding[]): Effect['found'] {
  const groups = new Map<string, Finding[]>();
  for (const f of findings) groups.set(`${f.code} ${f.severity}`, [...(groups.get(`${f.code} ${f.severity}`) ?? []), f]);
  return [...groups.values()]
    .map((own) => {
      const { code, severity, billId, invoiceNumber, sentence } = own[0]!;
      return { code, severity, bills: new Set(own.map((f) => f.billId)).size, example: { billId, invoiceNumber, sentence } };
    })
    .sort((a, b) => b.bills - a.bills);
}

/**
 * What a change would do to the bills in hand: it is made, with all that follows from it, and taken back before anybody else can see it.
 * What it refuses, it refuses here, too.
 */
export async function effectOn(db: Db, companyId: string, work: (tx: Executor) => Promise<unknown>): Promise<Effect> {
  try {
    await transaction(db, async (tx) => {
      const before = await openFindings(tx, companyId);
      await work(tx);
      const after = await openFindings(tx, companyId);
      const [was, is] = [new Set(before.map(toldBy)), new Set(after.map(toldBy))];
      throw new Tried({ found: turns(after.filter((f) => !was.has(toldBy(f)))), gone: turns(before.filter((f) => !is.has(toldBy(f)))) });
    });
  } catch (error) {
    if (error instanceof Tried) return error.effect;
    throw error;
  }
  throw new Error('A trial ends by being taken back');
}
