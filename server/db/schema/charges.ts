import { foreignKey, index, numeric, pgTable, primaryKey, text, uuid } from 'drizzle-orm/pg-core';
import { costCentre, ledgerAccount } from './accounts.ts';
import { bill, billLine } from './bills.ts';
import { dimensionColumns, dimensionKeys } from './dimensions.ts';
import { receiptLine } from './matching.ts';

/** A row of a bill that is shared over goods that came, and by what. */
export const charge = pgTable(
  'charge',
  {
    billLineId: uuid('bill_line_id').primaryKey(),
    companyId: uuid('company_id').notNull(),
    billId: uuid('bill_id').notNull(),
    /** `bases` in core/charges */
    basis: text('basis').notNull(),
  },
  (t) => [
    index('charge_bill').on(t.billId),
    foreignKey({ columns: [t.billId, t.companyId], foreignColumns: [bill.id, bill.companyId], name: 'charge_bill_of_company' }),
    foreignKey({
      columns: [t.billLineId, t.companyId],
      foreignColumns: [billLine.id, billLine.companyId],
      name: 'charge_bill_line',
    }).onDelete('cascade'),
  ],
);

/** Goods that bear a part of a charge. */
export const chargeShare = pgTable(
  'charge_share',
  {
    billLineId: uuid('bill_line_id')
      .notNull()
      .references(() => charge.billLineId, { onDelete: 'cascade' }),
    companyId: uuid('company_id').notNull(),
    receiptLineId: uuid('receipt_line_id').notNull(),
    /** What they bear, in the bill's currency. */
    amount: numeric('amount').notNull(),
    /** Where the goods were when it was shared; without an account their part stays on the row's own. */
    accountId: uuid('account_id'),
    costCentreId: uuid('cost_centre_id'),
    ...dimensionColumns(),
  },
  (t) => [
    primaryKey({ columns: [t.billLineId, t.receiptLineId] }),
    index('charge_share_receipt_line').on(t.receiptLineId),
    foreignKey({
      columns: [t.receiptLineId, t.companyId],
      foreignColumns: [receiptLine.id, receiptLine.companyId],
      name: 'charge_share_receipt_line_of_company',
    }),
    foreignKey({
      columns: [t.accountId, t.companyId],
      foreignColumns: [ledgerAccount.id, ledgerAccount.companyId],
      name: 'charge_share_account',
    }),
    foreignKey({
      columns: [t.costCentreId, t.companyId],
      foreignColumns: [costCentre.id, costCentre.companyId],
      name: 'charge_share_cost_centre',
    }),
    ...dimensionKeys('charge_share', t),
  ],
);
