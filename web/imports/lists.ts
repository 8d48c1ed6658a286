import type { ImportListName } from '@ledgerline/contract';

/** What each list is called, what one of its rows is, and where it stands. */
export const importable: Record<ImportListName, { title: string; one: string; many: string; path: string }> = {
  accounts: { title: 'Accounts', one: 'account', many: 'accounts', path: '/settings/accounts' },
  'cost-centres': { title: 'Cost centres', one: 'cost centre', many: 'cost centres', path: '/settings/cost-centres' },
  'dimension-values': { title: 'Dimensions', one: 'value', many: 'values', path: '/settings/dimensions' },
  'tax-codes': { title: 'Tax codes', one: 'tax code', many: 'tax codes', path: '/settings/tax-codes' },
  terms: { title: 'Payment terms', one: 'kind of terms', many: 'kinds of terms', path: '/settings/terms' },
  items: { title: 'Items', one: 'item', many: 'items', path: '/settings/items' },
  budgets: { title: 'Budgets', one: 'budget', many: 'budgets', path: '/settings/budgets' },
  orders: { title: 'Orders', one: 'order line', many: 'order lines', path: '/orders' },
  receipts: { title: 'Receipts', one: 'line that came', many: 'lines that came', path: '/orders' },
  suppliers: { title: 'Suppliers', one: 'supplier', many: 'suppliers', path: '/suppliers' },
  rates: { title: 'Exchange rates', one: 'rate', many: 'rates', path: '/settings/rates' },
};
