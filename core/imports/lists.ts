import type { ImportField, ImportList, ListSpec } from './types.ts';

const accountKinds = ['expense', 'asset', 'income', 'tax', 'payable', 'bank', 'equity', 'liability'];
const code: ImportField = {
  key: 'code',
  label: 'Code',
  names: ['number', 'no', 'id', 'account', 'account code', 'account number', 'konto', 'compte', 'rekening'],
  kind: 'code',
  required: true,
  most: 20,
};
const name: ImportField = {
  key: 'name',
  label: 'Name',
  names: ['description', 'title', 'text', 'account name', 'bezeichnung', 'libelle', 'omschrijving'],
  kind: 'text',
  required: true,
  most: 120,
};
const days: ImportField[] = [
  { key: 'active', label: 'Open', names: ['active', 'in use', 'enabled'], kind: 'yes-no', otherwise: true },
  { key: 'validFrom', label: 'From', names: ['valid from', 'start', 'starts'], kind: 'day' },
  { key: 'validTo', label: 'To', names: ['valid to', 'until', 'end', 'ends'], kind: 'day' },
];

const months = ['January', 'February', 'March', 'April', 'May', 'June', 'July', 'August', 'September', 'October', 'November', 'December'];
/** A column a month: `m01` to `m12`. */
const monthFields = months.map((label, i): ImportField => {
  const n = String(i + 1).padStart(2, '0');
  return {
    key: `m${n}`,
    label,
    names: [label.slice(0, 3), `${i + 1}`, `month ${i + 1}`, `period ${i + 1}`].map((s) => s.toLowerCase()),
    kind: 'decimal',
  };
});

/** "Project ROOF, Fund GENERAL": each by its dimension's name and its own code. */
const going: ImportField = {
  key: 'going',
  label: 'Filled in with it',
  names: ['goes with', 'default dimensions', 'linked values'],
  kind: 'text',
  most: 600,
};

/** What each list takes, in the order of a template's columns. */
export const lists: Record<ImportList, ListSpec> = {
  accounts: {
    list: 'accounts',
    what: 'account',
    key: ['code'],
    parent: 'parent',
    fields: [
      code,
      name,
      { key: 'group', label: 'Group', names: ['category', 'class', 'section'], kind: 'text', most: 80 },
      { key: 'kind', label: 'Kind', names: ['type', 'account type', 'nature'], kind: 'one-of', options: accountKinds, required: true },
      { key: 'parent', label: 'Under', names: ['parent', 'sub-account of', 'main account'], kind: 'account' },
      { key: 'taxCode', label: 'Usual tax code', names: ['tax', 'tax code', 'vat', 'vat code', 'default tax'], kind: 'tax-code' },
      {
        key: 'needsCostCentre',
        label: 'Needs a cost centre',
        names: ['cost centre required', 'cost centre', 'needs cost centre'],
        kind: 'yes-no',
        otherwise: false,
      },
      { key: 'postable', label: 'Takes lines', names: ['postable', 'direct posting', 'posting allowed'], kind: 'yes-no', otherwise: true },
      {
        key: 'needsDimensions',
        label: 'Needs',
        names: ['needs dimensions', 'required dimensions', 'dimensions required'],
        kind: 'text',
        most: 300,
        anyCase: true,
      },
      going,
      ...days,
    ],
  },
  'cost-centres': {
    list: 'cost-centres',
    what: 'cost centre',
    key: ['code'],
    parent: 'parent',
    fields: [
      { ...code, names: ['number', 'no', 'id', 'cost centre', 'cost centre code', 'department', 'kostenstelle'] },
      { ...name, names: [...name.names, 'cost centre name', 'department name'] },
      { key: 'parent', label: 'Part of', names: ['parent', 'under', 'belongs to'], kind: 'cost-centre' },
      {
        key: 'owner',
        label: 'Answers for it',
        names: ['owner', 'manager', 'responsible', 'budget holder', 'owner mail address'],
        kind: 'person',
      },
      going,
      ...days,
    ],
  },
  'dimension-values': {
    list: 'dimension-values',
    what: 'value',
    key: ['dimension', 'code'],
    fields: [
      { key: 'dimension', label: 'Dimension', names: ['kind', 'list', 'analysis'], kind: 'dimension', required: true },
      { ...code, names: ['number', 'no', 'id', 'project', 'project code', 'project number', 'asset', 'asset number'] },
      { ...name, names: [...name.names, 'project name', 'asset name'] },
      ...days,
      going,
      { key: 'account', label: 'Asset account', names: ['account', 'class account', 'balance sheet account'], kind: 'account' },
      { key: 'inUseFrom', label: 'In use from', names: ['acquired', 'acquisition date', 'in service', 'bought on'], kind: 'day' },
      { key: 'serial', label: 'Serial number', names: ['serial', 'serial no', 'plate'], kind: 'text', most: 120 },
      { key: 'location', label: 'Location', names: ['place', 'site', 'where'], kind: 'text', most: 120 },
    ],
  },
  'tax-codes': {
    list: 'tax-codes',
    what: 'tax code',
    key: ['code'],
    fields: [
      { ...code, names: ['tax code', 'vat code', 'id'] },
      name,
      {
        key: 'rate',
        label: 'Rate',
        names: ['rate %', 'percent', 'percentage', 'vat rate', 'tax rate'],
        kind: 'decimal',
        among: 'percent',
        required: true,
      },
      {
        key: 'recoverable',
        label: 'Reclaimed %',
        names: ['recoverable', 'recoverable %', 'deductible'],
        kind: 'decimal',
        among: 'percent',
      },
      { key: 'reverseCharge', label: 'Reverse charge', names: ['reverse'], kind: 'yes-no', otherwise: false },
      { key: 'account', label: 'Account', names: ['tax account', 'input account', 'recoverable account'], kind: 'account', required: true },
      {
        key: 'owedAccount',
        label: 'Account for tax owed',
        names: ['output account', 'owed account', 'liability account'],
        kind: 'account',
      },
      { key: 'withheld', label: 'Withheld %', names: ['withholding', 'withholding rate', 'retained %'], kind: 'decimal', among: 'percent' },
      {
        key: 'withheldAccount',
        label: 'Account for what is withheld',
        names: ['withholding account', 'retention account'],
        kind: 'account',
      },
      { key: 'laterRates', label: 'Later rates', names: ['rate changes', 'new rates', 'rates from'], kind: 'text', most: 400 },
      ...days,
    ],
  },
  items: {
    list: 'items',
    what: 'item',
    key: ['code'],
    fields: [
      { ...code, names: ['item', 'item code', 'item number', 'article', 'article number', 'number', 'no', 'id', 'sku'] },
      { ...name, names: [...name.names, 'item name', 'article name'] },
      { key: 'alsoCalled', label: 'Also called', names: ['aliases', 'supplier codes', 'other names', 'keywords'], kind: 'text', most: 200 },
      { key: 'unit', label: 'Unit', names: ['uom', 'unit of measure', 'measure'], kind: 'text', most: 20 },
      { key: 'price', label: 'Price', names: ['unit price', 'cost', 'net price'], kind: 'decimal', among: 'not-negative' },
      { key: 'currency', label: 'Currency', names: ['curr', 'ccy'], kind: 'currency' },
      { key: 'account', label: 'Usual account', names: ['account', 'expense account', 'ledger account', 'nominal'], kind: 'account' },
      { key: 'taxCode', label: 'Usual tax code', names: ['tax code', 'vat code', 'tax'], kind: 'tax-code' },
      days[0]!,
    ],
  },
  terms: {
    list: 'terms',
    what: 'kind of terms',
    key: ['code'],
    fields: [
      { ...code, names: ['terms code', 'terms id', 'id', 'key'] },
      name,
      {
        key: 'terms',
        label: 'Terms',
        names: ['rule', 'payment terms', 'due', 'days', 'terms of payment'],
        kind: 'terms',
        required: true,
        most: 200,
      },
      { key: 'alsoCalled', label: 'Also called', names: ['aliases', 'other names'], kind: 'text', most: 200 },
      days[0]!,
    ],
  },
  orders: {
    list: 'orders',
    what: 'order line',
    key: ['number', 'line'],
    together: { by: 'number', same: ['supplier', 'orderDate', 'currency'] },
    fields: [
      {
        key: 'number',
        label: 'Order',
        names: ['order number', 'order no', 'po', 'po number', 'purchase order'],
        kind: 'text',
        required: true,
        most: 40,
      },
      { key: 'line', label: 'Line', names: ['line number', 'line no', 'position', 'pos'], kind: 'place', required: true },
      {
        key: 'supplier',
        label: 'Supplier',
        names: ['supplier code', 'supplier number', 'vendor', 'creditor'],
        kind: 'supplier',
        required: true,
      },
      { key: 'orderDate', label: 'Date', names: ['order date', 'ordered on', 'ordered'], kind: 'day', required: true },
      { key: 'currency', label: 'Currency', names: ['curr', 'ccy'], kind: 'currency', required: true },
      { key: 'code', label: 'Item code', names: ['code', 'item', 'article', 'supplier item'], kind: 'text', most: 60 },
      { key: 'description', label: 'Description', names: ['text', 'name', 'item name'], kind: 'text', required: true, most: 500 },
      {
        key: 'quantity',
        label: 'Quantity',
        names: ['qty', 'ordered quantity', 'pieces'],
        kind: 'decimal',
        among: 'positive',
        required: true,
      },
      { key: 'unit', label: 'Unit', names: ['uom', 'unit of measure'], kind: 'text', most: 20 },
      { key: 'unitPrice', label: 'Price', names: ['unit price', 'net price'], kind: 'decimal', among: 'not-negative', required: true },
      { key: 'weight', label: 'Weight, kg', names: ['weight', 'unit weight', 'kg'], kind: 'decimal', among: 'not-negative' },
      { key: 'volume', label: 'Volume, m³', names: ['volume', 'm3', 'cubic metres'], kind: 'decimal', among: 'not-negative' },
      {
        key: 'needsReceipt',
        label: 'Needs a receipt',
        names: ['needs receipt', 'receipt needed', 'goods receipt'],
        kind: 'yes-no',
        otherwise: true,
      },
      { key: 'account', label: 'Account', names: ['ledger account', 'nominal', 'expense account'], kind: 'account' },
      { key: 'costCentre', label: 'Cost centre', names: ['department'], kind: 'cost-centre' },
      { key: 'taxCode', label: 'Tax code', names: ['vat code', 'tax'], kind: 'tax-code' },
    ],
  },
  budgets: {
    list: 'budgets',
    what: 'budget',
    key: ['account', 'costCentre', 'year'],
    fields: [
      { key: 'account', label: 'Account', names: ['account code', 'ledger account', 'nominal', 'konto'], kind: 'account', required: true },
      { key: 'costCentre', label: 'Cost centre', names: ['department', 'cost centre code', 'centre'], kind: 'cost-centre' },
      { key: 'year', label: 'Year', names: ['budget year', 'financial year'], kind: 'year', required: true },
      ...monthFields,
    ],
  },
  suppliers: {
    list: 'suppliers',
    what: 'supplier',
    key: ['code'],
    fields: [
      { ...code, names: ['number', 'no', 'id', 'supplier code', 'supplier number', 'vendor', 'account'] },
      { ...name, names: ['supplier', 'supplier name', 'company', 'vendor name', 'firm'] },
      { key: 'taxId', label: 'Tax number', names: ['vat number', 'vat no', 'tax id', 'vat id', 'vat reg no'], kind: 'text', most: 30 },
      { key: 'email', label: 'Mail address', names: ['email', 'e-mail', 'mail'], kind: 'text', most: 200 },
      { key: 'phone', label: 'Telephone', names: ['phone', 'tel', 'telephone number'], kind: 'text', most: 40 },
      { key: 'address', label: 'Address', names: ['street', 'postal address'], kind: 'text', most: 300 },
      { key: 'currency', label: 'Currency', names: ['curr', 'ccy'], kind: 'currency', required: true },
      { key: 'terms', label: 'Terms', names: ['payment terms', 'terms of payment'], kind: 'terms', most: 60 },
      { key: 'account', label: 'Usual account', names: ['account', 'expense account', 'ledger account', 'nominal'], kind: 'account' },
      { key: 'costCentre', label: 'Usual cost centre', names: ['cost centre', 'department'], kind: 'cost-centre' },
      { key: 'taxCode', label: 'Usual tax code', names: ['tax code', 'vat code', 'tax'], kind: 'tax-code' },
      { key: 'blocked', label: 'Blocked because', names: ['blocked', 'block reason', 'on hold because'], kind: 'text', most: 200 },
      {
        key: 'paymentsHeld',
        label: 'Payments held because',
        names: ['payments held', 'hold payments', 'payment hold'],
        kind: 'text',
        most: 200,
      },
      { key: 'iban', label: 'IBAN', names: ['bank account', 'account iban'], kind: 'iban', most: 42 },
    ],
  },
  rates: {
    list: 'rates',
    what: 'exchange rate',
    key: ['currency', 'day'],
    fields: [
      { key: 'day', label: 'From', names: ['date', 'day', 'valid from'], kind: 'day', required: true },
      { key: 'currency', label: 'Currency', names: ['curr', 'ccy', 'code'], kind: 'currency', required: true },
      { key: 'rate', label: 'Rate', names: ['exchange rate', 'value', 'price'], kind: 'decimal', among: 'positive', required: true },
    ],
  },
};
