import { foreignKey, index, numeric, pgTable, text, unique, uuid } from 'drizzle-orm/pg-core';
import { bill, billLine } from './bills.ts';
import { day, id, moment } from './columns.ts';
import { item } from './items.ts';
import { orderLine, purchaseOrder } from './orders.ts';
import { company, person } from './people.ts';

/** What was bought into stock on a posted bill, by its row; below zero what a credit note took back. Only added. */
export const itemReceipt = pgTable(
  'item_receipt',
  {
    id: id(),
    companyId: uuid('company_id').notNull(),
    itemId: uuid('item_id').notNull(),
    billLineId: uuid('bill_line_id').notNull().unique('item_receipt_once'),
    quantity: numeric('quantity').notNull(),
    receivedOn: day('received_on').notNull(),
    at: moment('at').notNull().defaultNow(),
  },
  (t) => [
    index('item_receipt_item').on(t.itemId, t.receivedOn),
    foreignKey({ columns: [t.itemId, t.companyId], foreignColumns: [item.id, item.companyId], name: 'item_receipt_item' }),
    foreignKey({ columns: [t.billLineId, t.companyId], foreignColumns: [billLine.id, billLine.companyId], name: 'item_receipt_line' }),
  ],
);

/** What came of an order on a day. Only added: what was wrong is taken back by another. */
export const goodsReceipt = pgTable(
  'goods_receipt',
  {
    id: id(),
    companyId: uuid('company_id')
      .notNull()
      .references(() => company.id),
    orderId: uuid('order_id').notNull(),
    /** The delivery note's number, or whatever it is called by. */
    number: text('number').notNull(),
    receivedOn: day('received_on').notNull(),
    note: text('note'),
    personId: uuid('person_id').references(() => person.id),
    at: moment('at').notNull().defaultNow(),
  },
  (t) => [
    unique('goods_receipt_of_company').on(t.id, t.companyId),
    unique('goods_receipt_number').on(t.orderId, t.number),
    index('goods_receipt_list').on(t.companyId, t.receivedOn, t.id),
    foreignKey({
      columns: [t.orderId, t.companyId],
      foreignColumns: [purchaseOrder.id, purchaseOrder.companyId],
      name: 'goods_receipt_order',
    }),
  ],
);

export const receiptLine = pgTable(
  'receipt_line',
  {
    id: id(),
    companyId: uuid('company_id').notNull(),
    receiptId: uuid('receipt_id').notNull(),
    orderLineId: uuid('order_line_id').notNull(),
    /** In the order line's unit; below zero where it went back. */
    quantity: numeric('quantity').notNull(),
  },
  (t) => [
    unique('receipt_line_once').on(t.receiptId, t.orderLineId),
    unique('receipt_line_of_company').on(t.id, t.companyId),
    index('receipt_line_order').on(t.orderLineId),
    foreignKey({
      columns: [t.receiptId, t.companyId],
      foreignColumns: [goodsReceipt.id, goodsReceipt.companyId],
      name: 'receipt_line_receipt',
    }),
    foreignKey({
      columns: [t.orderLineId, t.companyId],
      foreignColumns: [orderLine.id, orderLine.companyId],
      name: 'receipt_line_order_line',
    }),
  ],
);

/** So much of a line of an order is billed by a row of a bill. Without a line: somebody said that the row is of no order. */
export const lineMatch = pgTable(
  'line_match',
  {
    id: id(),
    companyId: uuid('company_id').notNull(),
    billId: uuid('bill_id').notNull(),
    billLineId: uuid('bill_line_id').notNull(),
    orderLineId: uuid('order_line_id'),
    /** In the order line's unit, positive on a credit note, too. */
    quantity: numeric('quantity').notNull(),
    /** What speaks for it. */
    why: text('why').notNull(),
    /** found: by the matching, which may find better; hand: a person said so. */
    how: text('how').notNull(),
  },
  (t) => [
    unique('line_match_once').on(t.billLineId, t.orderLineId).nullsNotDistinct(),
    index('line_match_bill').on(t.billId),
    index('line_match_order').on(t.orderLineId),
    foreignKey({ columns: [t.billId, t.companyId], foreignColumns: [bill.id, bill.companyId], name: 'line_match_bill_of_company' }),
    foreignKey({
      columns: [t.billLineId, t.companyId],
      foreignColumns: [billLine.id, billLine.companyId],
      name: 'line_match_bill_line',
    }).onDelete('cascade'),
    foreignKey({
      columns: [t.orderLineId, t.companyId],
      foreignColumns: [orderLine.id, orderLine.companyId],
      name: 'line_match_order_line',
    }),
  ],
);
