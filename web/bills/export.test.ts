import { expect, it } from 'vitest';
import type { BillRow } from '@ledgerline/contract';
import { isLate } from './columns';
import { csvOf } from './export';

const row = (over: Partial<BillRow>): BillRow => ({
  id: 'a',
  stage: 'posted',
  kind: 'invoice',
  supplier: 'Quillhaven',
  supplierId: null,
  invoiceNumber: 'Q-1',
  issueDate: '2026-11-01',
  dueDate: '2026-11-20',
  currency: 'GBP',
  gross: '120.00',
  arrivedAt: '2026-11-02T08:00:00Z',
  rowVersion: 1,
  sentBy: null,
  assignee: null,
  asideUntil: null,
  discountUntil: null,
  entry: '2026-00001',
  stops: 0,
  asks: 0,
  ...over,
});

it('bills as CSV: quoted where needed, credit notes below zero, no formula of a stranger', () => {
  const text = csvOf([
    row({ supplier: 'Moss, "Bark" & Co' }),
    row({ kind: 'credit-note', supplier: '=HYPERLINK("x")', invoiceNumber: '-1' }),
  ]);
  expect(text.split('\r\n').slice(1, 3)).toEqual([
    'posted,invoice,"Moss, ""Bark"" & Co",Q-1,2026-11-01,2026-11-20,GBP,120.00,2026-00001,,2026-11-02',
    'posted,credit-note,"\'=HYPERLINK(""x"")",-1,2026-11-01,2026-11-20,GBP,-120.00,2026-00001,,2026-11-02',
  ]);
});
it('late is what is past its day and not paid', () => {
  expect(isLate(row({}), '2026-11-21')).toBe(true);
  expect([
    isLate(row({}), '2026-11-20'),
    isLate(row({ stage: 'paid' }), '2026-12-01'),
    isLate(row({ dueDate: null }), '2026-12-01'),
    isLate(row({ kind: 'credit-note' }), '2026-12-01'),
  ]).toEqual([false, false, false, false]);
});
