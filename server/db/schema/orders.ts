import { boolean, char, foreignKey, index, integer, numeric, pgTable, text, unique, uuid } from 'drizzle-orm/pg-core';
import { costCentre, ledgerAccount, taxCode } from './accounts.ts';
import { day, id } from './columns.ts';
import { dimensionColumns, dimensionKeys } from './dimensions.ts';
import { item } from './items.ts';
import { company } from './people.ts';
import { supplier } from './suppliers.ts';

/** What was ordered from a supplier. `plainNumber`: the number as it is compared, however it is printed. */
export const purchaseOrder = pgTable(
  'purchase_order',
  {
    id: id(),
    companyId: uuid('company_id')
      .notNull()
      .references(() => company.id),
    number: text('number').notNull(),
    plainNumber: text('plain_number').notNull(),
    supplierId: uuid('supplier_id').notNull(),
    orderDate: day('order_date').notNull(),
    currency: char('currency', { length: 3 }).notNull(),
    note: text('note'),
    /** False: no bill is expected any more. */
    active: boolean('active').notNull().default(true),
  },
  (t) => [
    unique('purchase_order_number').on(t.companyId, t.number),
    unique('purchase_order_of_company').on(t.id, t.companyId),
    index('purchase_order_supplier').on(t.supplierId, t.active),
    index('purchase_order_plain').on(t.companyId, t.plainNumber),
    foreignKey({
      columns: [t.supplierId, t.companyId],
      foreignColumns: [supplier.id, supplier.companyId],
      name: 'purchase_order_supplier',
    }),
  ],
);

export const orderLine = pgTable(
  'order_line',
  {
    id: id(),
    companyId: uuid('company_id').notNull(),
    orderId: uuid('order_id').notNull(),
    position: integer('position').notNull(),
    itemId: uuid('item_id'),
    /** The supplier's item code. */
    code: text('code'),
    description: text('description').notNull(),
    quantity: numeric('quantity').notNull(),
    unit: text('unit'),
    /** Of one unit, without tax. */
    unitPrice: numeric('unit_price').notNull(),
    /** Of one unit, in kg and in m³. */
    weight: numeric('weight'),
    volume: numeric('volume'),
    /** Bills of it wait for what has come; without this they are held against the order alone. */
    needsReceipt: boolean('needs_receipt').notNull().default(true),
    accountId: uuid('account_id'),
    costCentreId: uuid('cost_centre_id'),
    taxCodeId: uuid('tax_code_id'),
    ...dimensionColumns(),
  },
  (t) => [
    unique('order_line_position').on(t.orderId, t.position),
    unique('order_line_of_company').on(t.id, t.companyId),
    foreignKey({
      columns: [t.orderId, t.companyId],
      foreignColumns: [purchaseOrder.id, purchaseOrder.companyId],
      name: 'order_line_order',
    }),
    foreignKey({ columns: [t.itemId, t.companyId], foreignColumns: [item.id, item.companyId], name: 'order_line_item' }),
    foreignKey({
      columns: [t.accountId, t.companyId],
      foreignColumns: [ledgerAccount.id, ledgerAccount.companyId],
      name: 'order_line_account',
    }),
    foreignKey({
      columns: [t.costCentreId, t.companyId],
      foreignColumns: [costCentre.id, costCentre.companyId],
      name: 'order_line_cost_centre',
    }),
    foreignKey({ columns: [t.taxCodeId, t.companyId], foreignColumns: [taxCode.id, taxCode.companyId], name: 'order_line_tax_code' }),
    ...dimensionKeys('order_line', t),
  ],
);
