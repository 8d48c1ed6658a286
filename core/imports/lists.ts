import { buying } from './buying.ts';
import { code, days, name } from './common.ts';
import type { ImportField, ImportList, ListSpec } from './types.ts';

const accountKinds = ['expense', 'asset', 'income', 'tax', 'payable', 'bank', 'equity', 'liability'];
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
  ...buying,
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
