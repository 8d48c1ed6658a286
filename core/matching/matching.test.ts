import { describe, expect, it } from 'vitest';
import { matchCompany, matchSupplier } from './index.ts';

const known = [
  { id: 'q', name: 'Quillhaven Glass Ltd', taxId: 'GB918223107', iban: 'GB12XQZB00123456987654', email: 'accounts@quillhaven.example' },
  { id: 'm', name: 'Mossgarth Growing Media Ltd', taxId: 'GB731550842', iban: null, email: 'office@mossgarth.example' },
];
const traces = { name: null, taxId: null, iban: null, emails: [] as string[] };

describe('the supplier', () => {
  it('is found by tax number with or without its country', () =>
    expect([
      matchSupplier({ ...traces, taxId: '918223107' }, known)?.id,
      matchSupplier({ ...traces, taxId: 'GB731550842' }, known)?.id,
    ]).toEqual(['q', 'm']));
  it('by IBAN, mail domain and name, each with its reason', () => {
    expect(matchSupplier({ ...traces, iban: 'GB12 XQZB 0012 3456 9876 54' }, known)).toMatchObject({
      id: 'q',
      reason: expect.stringContaining('IBAN'),
    });
    expect(matchSupplier({ ...traces, emails: ['bills@mossgarth.example'] }, known)).toMatchObject({
      id: 'm',
      reason: 'Mail address at mossgarth.example',
    });
    expect(matchSupplier({ ...traces, name: 'QUILLHAVEN GLASS LIMITED' }, known)).toMatchObject({ id: 'q', sure: true });
  });
  it('by any of its tax numbers', () => {
    const more = [{ ...known[0]!, otherTaxIds: ['DE811907980'] }, known[1]!];
    expect(matchSupplier({ ...traces, taxId: 'DE811907980' }, more)).toMatchObject({ id: 'q', sure: true });
    expect(matchSupplier({ ...traces, taxId: 'DE811907980' }, known)).toBeNull();
  });
  it('by any of its bank accounts, and by the mail domain of a contact', () => {
    const more = [{ ...known[0]!, ibans: ['GB37XQZB00161331926819'], emails: ['petra@qh-billing.example'] }, known[1]!];
    expect(matchSupplier({ ...traces, iban: 'GB37 XQZB 0016 1331 9268 19' }, more)).toMatchObject({ id: 'q', sure: true });
    expect(matchSupplier({ ...traces, emails: ['invoices@qh-billing.example'] }, more)).toMatchObject({
      id: 'q',
      reason: 'Mail address at qh-billing.example',
    });
    expect(matchSupplier({ ...traces, emails: ['invoices@qh-billing.example'] }, known)).toBeNull();
  });
  it('is not sure when tax number and IBAN point to two', () =>
    expect(matchSupplier({ ...traces, taxId: 'GB731550842', iban: 'GB12XQZB00123456987654' }, known)).toMatchObject({
      id: 'm',
      sure: false,
    }));
  it('is nobody when two fit or none does', () =>
    expect([
      matchSupplier({ ...traces, taxId: 'GB1' }, known),
      matchSupplier({ ...traces, name: 'Stranger Ltd' }, known),
      matchSupplier({ ...traces, taxId: 'GB918223107' }, [known[0]!, { ...known[0]!, id: 'x' }]),
    ]).toEqual([null, null, null]));
});

it('the company is the one that the bill is addressed to', () => {
  const companies = [
    { id: 'g', name: 'Marrowby Botanic Gardens', taxId: null },
    { id: 'n', name: 'Marrowby Nursery Trading Ltd', taxId: null },
  ];
  expect([
    matchCompany('Marrowby Nursery Trading', companies)?.id,
    matchCompany('Marrowby', companies),
    matchCompany(null, companies),
  ]).toEqual(['n', null, null]);
});
