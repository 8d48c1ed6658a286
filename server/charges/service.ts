import { eq } from 'drizzle-orm';
import type { Static } from '@sinclair/typebox';
import { shareTrouble, sharesOf, type Goods as Weighed } from '@ledgerline/core/charges';
import { dec, fixed } from '@ledgerline/core/money';
import { ShareCharge, type ChargeShares } from '@ledgerline/contract';
import { asItStands, checked, underReview } from '../bills/hand.ts';
import { findBill, linesOf } from '../bills/store.ts';
import { touch } from '../bills/touch.ts';
import { command } from '../commands/command.ts';
import type { Executor } from '../db/client.ts';
import { charge, chargeShare } from '../db/schema/index.ts';
import { notFound, Refusal } from '../http/problems.ts';
import { goodsById, goodsOfBill } from './goods.ts';
import { chargesOf, saidOf } from './shared.ts';

const gone = () => new Refusal(409, 'Some of these goods are not there any more. Look for them again.');

/** Shares a charge over goods that came, each part coded as its goods are; without a basis it is an expense of its own again. */
export const shareCharge = command(
  { body: ShareCharge, may: 'bills:edit', subject: underReview },
  async (tx, caller, input: Static<typeof ShareCharge>, hand) => {
    const record = hand.subject,
      own = caller.company;
    const row = (await linesOf(tx, record.id)).find((l) => l.id === input.row);
    if (!row || row.kind !== 'charge') throw new Refusal(422, 'This row is not there any more, or is no charge.');
    await tx.delete(charge).where(eq(charge.billLineId, row.id));
    let said = 'an expense of its own';
    if (input.basis !== null) {
      const ids = input.goods.map((g) => g.id);
      if (new Set(ids).size < ids.length) throw new Refusal(422, 'The same goods stand here twice.');
      const found = new Map((await goodsById(tx, own, ids)).map((g) => [g.id, g]));
      if (found.size < ids.length) throw gone();
      const goods = [...input.goods]
        .sort((a, b) => (a.id < b.id ? -1 : 1))
        .map((g) => ({ ...found.get(g.id)!, amount: g.amount })) satisfies Weighed[];
      const trouble = shareTrouble(row.amount, input.basis, goods, record.currency);
      if (trouble) throw new Refusal(422, trouble);
      const parts = sharesOf(row.amount, input.basis, goods, record.currency)!;
      if (parts.some((p) => !dec(fixed(p, record.currency)).eq(p)))
        throw new Refusal(422, `An amount has more places than ${record.currency} has.`);
      await tx.insert(charge).values({ billLineId: row.id, companyId: own.id, billId: record.id, basis: input.basis });
      await tx.insert(chargeShare).values(
        goods.map(({ id, coding }, i) => {
          const { taxCodeId: _, ...place } = coding;
          return { billLineId: row.id, companyId: own.id, receiptLineId: id, amount: fixed(parts[i]!, record.currency), ...place };
        }),
      );
      said = saidOf(input.basis, goods.length);
    }
    hand.record({
      subject: { type: 'bill', id: record.id },
      verb: 'coded',
      note: `Row ${row.position + 1}: ${said}`,
    });
    await touch(tx, record.id);
    return checked(tx, caller, record.id, hand);
  },
  asItStands,
);

/** How a row of a bill is shared, and what it may be shared over. */
export async function showShares(
  db: Executor,
  own: { id: string; baseCurrency: string },
  billId: string,
  row: string,
): Promise<ChargeShares> {
  const record = await findBill(db, own.id, billId);
  if (!record) throw notFound('This bill');
  const lines = await linesOf(db, billId);
  if (!lines.some((l) => l.id === row)) throw notFound('This row');
  const of = (await chargesOf(db, [billId])).get(row);
  const found = new Map((await goodsById(db, own, of?.shares.map((s) => s.receiptLineId) ?? [])).map((g) => [g.id, g]));
  return {
    basis: of?.basis ?? null,
    baseCurrency: own.baseCurrency,
    goods: (of?.shares ?? []).map((s) => {
      const { coding: _, ...goods } = found.get(s.receiptLineId)!;
      return { ...goods, amount: s.amount };
    }),
    suggested: await goodsOfBill(db, own, billId),
  };
}
