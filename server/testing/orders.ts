import { newOrder } from '../orders/service.ts';
import { findOrder } from '../orders/store.ts';
import { newReceipt } from '../receipts/service.ts';
import type { World } from './world.ts';

export interface OrderWish {
  number?: string;
  currency?: string;
  lines?: {
    description?: string;
    quantity?: string;
    unit?: string;
    unitPrice?: string;
    code?: string;
    needsReceipt?: boolean;
    account?: string;
    centre?: string;
    weight?: string;
  }[];
}
let made = 0;

/** An order with a supplier of MBG; what a line does not say is a hundred pots at 0.22. Gives its id and its lines' ids. */
export async function orderOf(
  world: World,
  supplier: string,
  wish: OrderWish = {},
): Promise<{ id: string; number: string; lines: string[] }> {
  const own = world.master.company('MBG'),
    number = wish.number ?? `PO-${5000 + ++made}`;
  const lines = (wish.lines ?? [{}]).map((l) => ({
    itemId: null,
    code: l.code ?? null,
    description: l.description ?? 'Terracotta pot, 2 l',
    quantity: l.quantity ?? '100',
    unit: l.unit ?? 'pc',
    unitPrice: l.unitPrice ?? '0.22',
    needsReceipt: l.needsReceipt ?? true,
    weight: l.weight ?? null,
    coding: { accountId: own.account(l.account ?? '6000'), costCentreId: own.centre(l.centre ?? '200'), taxCodeId: own.taxCode('S20').id },
  }));
  const { id } = await world.run(newOrder, await world.as('Ines Okafor'), {}, {
    number,
    supplierId: world.master.supplier(supplier),
    orderDate: '2026-11-02',
    currency: wish.currency ?? 'GBP',
    note: null,
    active: true,
    lines,
  }); // prettier-ignore
  return { id, number, lines: (await findOrder(world.database.db, own.id, id)).lines.map((l) => l.id) };
}

/** Books what came of an order, line by line. */
export const receive = async (world: World, order: { id: string }, quantities: Record<string, string>, number = `GR-${++made}`) =>
  world.run(newReceipt, await world.as('Ines Okafor'), {}, {
    orderId: order.id,
    number,
    receivedOn: '2026-11-10',
    note: null,
    lines: Object.entries(quantities).map(([orderLineId, quantity]) => ({ orderLineId, quantity })),
  }); // prettier-ignore
