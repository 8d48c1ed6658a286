import { codingOf, type Coding } from '@ledgerline/core/bills';
import { addDays } from '@ledgerline/core/dates';
import { orderNumber } from '@ledgerline/core/matching';
import { dec } from '@ledgerline/core/money';
import { suppliers } from '@ledgerline/documents/suppliers';
import type { Executor } from '@ledgerline/server/db/client';
import { orderLine, purchaseOrder } from '@ledgerline/server/db/schema/index';
import type { Master } from './load.ts';

/** Every second supplier has an order of the last weeks for what it sells, coded as its things are. */
export async function writeOrders(db: Executor, master: Master, today: string): Promise<void> {
  for (const [i, s] of suppliers.filter((_, n) => n % 2 === 0).entries()) {
    const own = master.company(s.company),
      number = `PO-${1001 + i}`;
    const [order] = await db
      .insert(purchaseOrder)
      .values({
        companyId: own.id,
        number,
        plainNumber: orderNumber(number),
        supplierId: master.supplier(s.name),
        orderDate: addDays(today, -(7 + ((i * 5) % 40))),
        currency: s.currency,
        note: i % 4 === 0 ? 'Call before delivery' : null,
        active: i % 5 !== 4,
      })
      .returning();
    await db.insert(orderLine).values(
      s.items.slice(0, 4).map((item, position) => {
        const coding: Partial<Coding> = {
          accountId: own.account(item.account),
          costCentreId: own.centre(s.centre),
          taxCodeId: own.codeAt(item.rate).id,
          ...own.dimensions(s.centre),
        };
        return {
          companyId: own.id,
          orderId: order!.id,
          position,
          code: item.code,
          description: item.text,
          quantity: String(2 + ((i + 3 * position) % 9)),
          unit: item.unit,
          unitPrice: dec(item.price).toFixed(),
          ...codingOf(coding),
        };
      }),
    );
  }
}
