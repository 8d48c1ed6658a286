import type { ImportField } from './types.ts';

/** A row's own code and name, as most lists have them. */
export const code: ImportField = {
  key: 'code',
  label: 'Code',
  names: ['number', 'no', 'id', 'account', 'account code', 'account number', 'konto', 'compte', 'rekening'],
  kind: 'code',
  required: true,
  most: 20,
};
export const name: ImportField = {
  key: 'name',
  label: 'Name',
  names: ['description', 'title', 'text', 'account name', 'bezeichnung', 'libelle', 'omschrijving'],
  kind: 'text',
  required: true,
  most: 120,
};

/** Whether it is in use, and from when until when. */
export const days: ImportField[] = [
  { key: 'active', label: 'Open', names: ['active', 'in use', 'enabled'], kind: 'yes-no', otherwise: true },
  { key: 'validFrom', label: 'From', names: ['valid from', 'start', 'starts'], kind: 'day' },
  { key: 'validTo', label: 'To', names: ['valid to', 'until', 'end', 'ends'], kind: 'day' },
];
