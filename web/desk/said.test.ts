import { expect, it } from 'vitest';
import type { Bill, Exception } from '@ledgerline/contract';
import { saidOf } from './said';

/** What each of these checks says of many rows. */
const many: Record<string, string> = {
  'account-missing': 'need an account',
  'cost-centre-missing': 'need a cost centre',
  'tax-code-missing': 'need a tax code',
  'amount-missing': 'have no amount',
  'account-closed': 'are on closed accounts',
};

const lines = ['a', 'b', 'c', 'd', 'e'].map((id) => ({ id })) as Bill['lines'];
const open = (code: string, path: string, severity: Exception['severity'] = 'stops', sentence = `${code} at ${path}`): Exception => ({
  code,
  path,
  key: '',
  many: many[code] ?? null,
  sentence,
  severity,
  settledBy: [],
  choices: [],
  changes: [],
  other: null,
  earlier: [],
  found: null,
  expected: null,
});
const said = (...exceptions: Exception[]) => saidOf({ exceptions, lines });

it('says what many rows miss in one sentence, with what fills them all', () => {
  const [all] = said(...lines.map((l) => open('account-missing', `${l.id}.accountId`)));
  expect(all).toMatchObject({
    sentence: 'All 5 rows need an account.',
    path: 'a.accountId',
    fill: { field: 'accountId', lines: ['a', 'b', 'c', 'd', 'e'] },
  });
  expect(said(open('account-missing', 'b.accountId'), open('account-missing', 'e.accountId'))[0]!.sentence).toBe(
    'Rows 2 and 5 need an account.',
  );
  expect(said(...['a', 'b', 'c', 'd'].map((l) => open('cost-centre-missing', `${l}.costCentreId`)))[0]!.sentence).toBe(
    '4 rows need a cost centre.',
  );
});
it('one row is one row, with nothing to fill', () => {
  expect(said(open('tax-code-missing', 'c.taxCodeId', 'stops', 'Row 3 needs a tax code.'))).toMatchObject([
    { sentence: 'Row 3 needs a tax code.', fill: null },
  ]);
  expect(said(open('amount-missing', 'a.amount'), open('amount-missing', 'b.amount'))[0]).toMatchObject({
    sentence: 'Rows 1 and 2 have no amount.',
    fill: null,
  });
});
it('the weightiest comes first: what stops before what asks, the bill before its rows; doubts and the proof are told elsewhere', () => {
  const codes = said(
    open('unsure', 'net', 'asks'),
    open('wrong-company', '', 'asks'),
    open('account-missing', 'a.accountId'),
    open('supplier-missing', 'supplierId'),
    open('proof-off', 'proof'),
  ).map((s) => s.all[0]!.code);
  expect(codes).toEqual(['supplier-missing', 'account-missing', 'wrong-company']);
});
it('two of two are both', () => {
  const exceptions = ['a', 'b'].map((l) => open('tax-code-missing', `${l}.taxCodeId`));
  expect(saidOf({ exceptions, lines: lines.slice(0, 2) })[0]!.sentence).toBe('Both rows need a tax code.');
});
it('one check may say different things of rows: each is its own sentence, with what fills its rows', () => {
  const missing = (line: string, field: string, what: string) => ({ ...open('dimension-missing', `${line}.${field}`), many: what });
  const found = said(
    missing('a', 'dimension1', 'need a project'),
    missing('a', 'dimension2', 'need a fund'),
    missing('b', 'dimension1', 'need a project'),
  );
  expect(found.map((f) => f.sentence)).toEqual(['Rows 1 and 2 need a project.', 'dimension-missing at a.dimension2']);
  expect(found[0]!.fill).toEqual({ field: 'dimension1', lines: ['a', 'b'] });
});
it('leaves nothing out', () => {
  const many = [
    open('duplicate', 'invoiceNumber'),
    open('duplicate', 'gross'),
    ...lines.map((l) => open('account-closed', `${l.id}.accountId`)),
  ];
  expect(said(...many).flatMap((s) => s.all)).toHaveLength(many.length);
});
