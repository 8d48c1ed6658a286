import { Value } from '@sinclair/typebox/value';
import { FormatRegistry } from '@sinclair/typebox';
import { beforeAll, describe, expect, it } from 'vitest';
import { headerFields, lineFields } from '@ledgerline/core/bills';
import { isIsoDate } from '@ledgerline/core/dates';
import { cellSchemas, ChangeBill, closed, headerSchemas, NewSupplier, PutAccount, SettleException, SetRoles } from './index.ts';

beforeAll(() => {
  FormatRegistry.Set('uuid', (t) => /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/.test(t));
  FormatRegistry.Set('date', isIsoDate);
  FormatRegistry.Set('email', (t) => t.includes('@'));
});
const id = '01900000-0000-7000-8000-000000000001';
const change = closed(ChangeBill);
const takes = (op: object) => Value.Check(change, { rowVersion: 1, operations: [op] });
const mark = { page: 1, x: 1.5, y: 2, w: 30, h: 8 };

describe('what the desk may say', () => {
  it.each([
    { do: 'set', field: 'gross', value: '12.00' },
    { do: 'set', field: 'gross', value: null, mark },
    { do: 'set', field: 'pricesIncludeTax', value: true },
    { do: 'set-cell', line: id, field: 'description', value: 'Pots' },
    { do: 'add-line', line: id, kind: 'charge', after: null },
    { do: 'add-line', line: id, kind: 'line', after: id, cells: { amount: '1', accountId: null }, marks: { amount: mark } },
    { do: 'remove-line', line: id },
    { do: 'move-line', line: id, after: null },
    { do: 'looked', path: 'gross' },
  ])('is taken: $do', (op) => expect(takes(op)).toBe(true));
  it.each([
    ['a field that only the server sets', { do: 'set', field: 'stage', value: 'approved' }],
    ['a field of the event log', { do: 'set', field: 'sentBy', value: id }],
    ['an operation that does not exist', { do: 'approve' }],
    ['a row number in place of an id', { do: 'set-cell', line: 0, field: 'amount', value: '1' }],
    ['a cell that a line does not have', { do: 'set-cell', line: id, field: 'billId', value: id }],
    ['a kind of line that does not exist', { do: 'add-line', line: id, kind: 'total', after: null }],
    ['a proof with a place', { do: 'set', field: 'gross', value: '1', mark: { ...mark, proof: 'sure' } }],
    ['a place outside any page', { do: 'set', field: 'gross', value: '1', mark: { ...mark, page: 0 } }],
    ['a place without end', { do: 'set', field: 'gross', value: '1', mark: { ...mark, w: 1e12 } }],
    ['something more in a new row', { do: 'add-line', line: id, kind: 'line', after: null, cells: { companyId: id } }],
    ['a description without end', { do: 'set-cell', line: id, field: 'description', value: 'x'.repeat(501) }],
  ])('is refused: %s', (_, op) => expect(takes(op)).toBe(false));
  it('has a schema for every field and cell of core, and for no other', () => {
    expect(Object.keys(headerSchemas).sort()).toEqual([...headerFields].sort());
    expect(Object.keys(cellSchemas).sort()).toEqual([...lineFields].sort());
  });
  it('comes with the version that it was typed on, and is not nothing', () => {
    expect(Value.Check(change, { rowVersion: 1, operations: [] })).toBe(false);
    expect(Value.Check(change, { operations: [{ do: 'remove-line', line: id }] })).toBe(false);
    expect(Value.Check(change, { rowVersion: 0, operations: [{ do: 'remove-line', line: id }] })).toBe(false);
  });
});

describe('values', () => {
  it.each([
    ['gross', '1234567.89', true],
    ['gross', '1,234.50', false],
    ['gross', '1e9', false],
    ['gross', 'NaN', false],
    ['gross', '-5', true],
    ['issueDate', '2026-02-28', true],
    ['issueDate', '2026-02-30', false],
    ['issueDate', '28/02/2026', false],
    ['currency', 'GBP', true],
    ['currency', 'gbp', false],
    ['currency', null, false],
    ['invoiceNumber', '', false],
    ['invoiceNumber', null, true],
    ['kind', 'statement', false],
    ['supplierId', 'S1001', false],
  ] as const)('%s: %s', (field, value, good) => expect(Value.Check(headerSchemas[field], value)).toBe(good));
});

describe('other bodies', () => {
  it('an exception is settled in one of three ways, a reason is a sentence', () => {
    const settle = { rowVersion: 1, code: 'bank-differs', path: 'supplierId', key: 'X', how: 'overrule', reason: 'Standing order' };
    const check = (more: object) => Value.Check(closed(SettleException), { ...settle, ...more });
    expect([check({}), check({ how: 'ignore' }), check({ reason: '  ' }), check({ take: 'both' }), check({ state: 'settled' })]).toEqual([
      true,
      false,
      false,
      false,
      false,
    ]);
  });
  it('roles are those that there are, each once', () => {
    const check = (roles: unknown) => Value.Check(closed(SetRoles), { roles });
    expect([check(['clerk', 'approver']), check([]), check(['owner']), check(['clerk', 'clerk'])]).toEqual([true, true, false, false]);
  });
  it('codes have no spaces, names are not blank', () => {
    const account = {
      code: '6000',
      name: 'Media',
      group: 'Garden',
      kind: 'expense',
      needsCostCentre: true,
      parentId: null,
      postable: true,
      taxCodeId: null,
      active: true,
      validFrom: null,
      validTo: null,
    };
    const check = (more: object) => Value.Check(closed(PutAccount), { ...account, ...more });
    expect([check({}), check({ code: '60 00' }), check({ code: 'É-1' }), check({ name: ' ' }), check({ kind: 'magic' })]).toEqual([
      true,
      false,
      true,
      false,
      false,
    ]);
    expect(
      Value.Check(closed(NewSupplier), {
        name: '  ',
        taxId: null,
        iban: null,
        email: null,
        phone: null,
        address: null,
        currency: 'GBP',
        terms: null,
      }),
    ).toBe(false);
  });
});
