import { and, eq, inArray, sql } from 'drizzle-orm';
import { keyOf, lists } from '@ledgerline/core/imports';
import { orderNumber } from '@ledgerline/core/matching';
import { costCentre, item, ledgerAccount, orderLine, purchaseOrder, supplier, taxCode } from '../../db/schema/index.ts';
import { accountIds, centreIds, ordersNamed, supplierIds, taxCodeIds } from './ids.ts';
import { flag, idOf, text, type Writer } from './types.ts';
import { upsert } from './upsert.ts';

const spec = lists.orders;

/** A row is a line of an order: its order is made with its first line, and has the head of its last. */
export const orderWriter: Writer = {
  spec,
  table: orderLine,
  subject: 'order',
  noted: (v) => `${text(v['number'])}, line ${text(v['line'])}`,
  fresh: () => ({ code: null, unit: null, weight: null, volume: null, needsReceipt: true, account: null, costCentre: null, taxCode: null }),
  async current(tx, companyId) {
    const rows = await tx
      .select({
        l: orderLine,
        o: purchaseOrder,
        supplier: supplier.code,
        account: ledgerAccount.code,
        costCentre: costCentre.code,
        taxCode: taxCode.code,
      })
      .from(orderLine)
      .innerJoin(purchaseOrder, eq(purchaseOrder.id, orderLine.orderId))
      .innerJoin(supplier, eq(supplier.id, purchaseOrder.supplierId))
      .leftJoin(ledgerAccount, eq(ledgerAccount.id, orderLine.accountId))
      .leftJoin(costCentre, eq(costCentre.id, orderLine.costCentreId))
      .leftJoin(taxCode, eq(taxCode.id, orderLine.taxCodeId))
      .where(eq(orderLine.companyId, companyId));
    return new Map(
      rows.map(({ l: { id, position, ...line }, o: { number, orderDate, currency }, ...named }) => {
        const { code, description, quantity, unit, unitPrice, weight, volume, needsReceipt } = line;
        const own = { code, description, quantity, unit, unitPrice, weight, volume, needsReceipt };
        const values = { number, orderDate, currency, line: String(position + 1), ...own, ...named };
        return [keyOf(spec, values), { id, values }];
      }),
    );
  },
  ids: async (tx, companyId) => ({
    supplier: await supplierIds(tx, companyId),
    account: await accountIds(tx, companyId),
    'cost-centre': await centreIds(tx, companyId),
    'tax-code': await taxCodeIds(tx, companyId),
  }),
  orders: (tx, companyId, rows) =>
    ordersNamed(
      tx,
      companyId,
      rows.map((r) => r.values['number']),
    ),
  async put(tx, companyId, rows, ids) {
    // One number however its letters are written; an order that is there keeps its own spelling.
    const plain = (number: unknown) => text(number)!.toLowerCase(),
      wanted = [...new Set(rows.map(({ values: v }) => plain(v['number'])))];
    const ordersNow = () =>
      tx
        .select({ id: purchaseOrder.id, number: purchaseOrder.number })
        .from(purchaseOrder)
        .where(and(eq(purchaseOrder.companyId, companyId), inArray(sql`lower(${purchaseOrder.number})`, wanted)));
    const spelling = new Map((await ordersNow()).map((o) => [plain(o.number), o.number]));
    for (const { values: v } of rows) if (!spelling.has(plain(v['number']))) spelling.set(plain(v['number']), text(v['number'])!);
    const heads = new Map(
      rows.map(({ values: v }) => [
        spelling.get(plain(v['number']))!,
        {
          plainNumber: orderNumber(text(v['number'])!),
          supplierId: idOf(ids, 'supplier', v['supplier'])!,
          orderDate: text(v['orderDate'])!,
          currency: text(v['currency'])!,
        },
      ]),
    );
    for (const [number, head] of heads)
      await tx
        .insert(purchaseOrder)
        .values({ companyId, number, ...head })
        .onConflictDoUpdate({ target: [purchaseOrder.companyId, purchaseOrder.number], set: head });
    const orderId = new Map((await ordersNow()).map((o) => [plain(o.number), o.id]));
    // A line whose code is an item's is of that item; else it stays of the one that it was of.
    const codes = [...new Set(rows.flatMap(({ values: v }) => text(v['code'])?.toLowerCase() ?? []))];
    const items = await tx
      .select({ id: item.id, code: item.code })
      .from(item)
      .where(and(eq(item.companyId, companyId), inArray(sql`lower(${item.code})`, codes)));
    const kept = await tx
      .select({ id: orderLine.id, itemId: orderLine.itemId })
      .from(orderLine)
      .where(
        inArray(
          orderLine.id,
          rows.map((r) => r.id),
        ),
      );
    const itemOf = new Map<string, string | null>([
      ...items.map((i) => [i.code.toLowerCase(), i.id] as const),
      ...kept.map((k) => [k.id, k.itemId] as const),
    ]);
    await upsert(
      tx,
      orderLine,
      rows.map(({ id, values: v }) => ({
        id,
        companyId,
        orderId: orderId.get(plain(v['number']))!,
        position: Number(text(v['line'])) - 1,
        itemId: itemOf.get(text(v['code'])?.toLowerCase() ?? '') ?? itemOf.get(id) ?? null,
        code: text(v['code']),
        description: text(v['description'])!,
        quantity: text(v['quantity'])!,
        unit: text(v['unit']),
        unitPrice: text(v['unitPrice'])!,
        weight: text(v['weight']),
        volume: text(v['volume']),
        needsReceipt: flag(v['needsReceipt']),
        accountId: idOf(ids, 'account', v['account']),
        costCentreId: idOf(ids, 'cost-centre', v['costCentre']),
        taxCodeId: idOf(ids, 'tax-code', v['taxCode']),
      })),
      ['id'],
    );
  },
};
