import type { ImportList } from '@ledgerline/core/imports';
import { accountWriter } from './accounts.ts';
import { budgetWriter } from './budgets.ts';
import { costCentreWriter } from './cost-centres.ts';
import { dimensionValueWriter } from './dimension-values.ts';
import { itemWriter } from './items.ts';
import { orderWriter } from './orders.ts';
import { rateWriter } from './rates.ts';
import { receiptWriter } from './receipts.ts';
import { supplierWriter } from './suppliers.ts';
import { taxCodeWriter } from './tax-codes.ts';
import { termsWriter } from './terms.ts';
import type { Writer } from './types.ts';

/** How each list is read and written by imports and exports. */
export const writers: Record<ImportList, Writer> = {
  accounts: accountWriter,
  'cost-centres': costCentreWriter,
  'dimension-values': dimensionValueWriter,
  'tax-codes': taxCodeWriter,
  terms: termsWriter,
  items: itemWriter,
  budgets: budgetWriter,
  orders: orderWriter,
  receipts: receiptWriter,
  suppliers: supplierWriter,
  rates: rateWriter,
};
export type { Current, Ids, Writer, Written } from './types.ts';
