import fc from 'fast-check';
import { expect, it } from 'vitest';
import { matchSupplier, type KnownSupplier } from './index.ts';

const maybe = <T>(of: fc.Arbitrary<T>) => fc.option(of, { nil: null });
const taxId = fc.constantFrom('GB918223107', 'GB731550842', '918223107', 'NL001234567B01');
const iban = fc.constantFrom('GB12XQZB00123456987654', 'GB37XQZB00161331926819', 'gb12 xqzb 0012 3456 9876 54');
const mail = fc.constantFrom('accounts@quillhaven.example', 'x@mossgarth.example', 'a@mail.example', 'no address', '@');
const name = fc.constantFrom('Quillhaven Glass Ltd', 'QUILLHAVEN GLASS', 'Mossgarth Growing Media Ltd', 'Mossgarth', 'Ltd', '');
const list: fc.Arbitrary<KnownSupplier[]> = fc
  .array(fc.record({ name, taxId: maybe(taxId), iban: maybe(iban), email: maybe(mail) }), { maxLength: 5 })
  .map((all) => all.map((s, i) => ({ ...s, id: `s${i}` })));
const traces = fc.record({ name: maybe(name), taxId: maybe(taxId), iban: maybe(iban), emails: fc.array(mail, { maxLength: 2 }) });
const digits = (id: string | null) => id?.replace(/^[A-Z]{2}(?=\d{8})/, '') ?? null;
const plain = (id: string | null) => id?.replace(/\s/g, '').toUpperCase() ?? null;

it('who is found does not depend on the order of the list', () =>
  fc.assert(
    fc.property(traces, list, (page, known) => void expect(matchSupplier(page, [...known].reverse())).toEqual(matchSupplier(page, known))),
  ));
it('a document without a trace is nobody’s', () =>
  fc.assert(
    fc.property(list, (known) => void expect(matchSupplier({ name: null, taxId: null, iban: null, emails: [] }, known)).toBe(null)),
  ));
it('a tax number that one supplier has decides, and sure is only who no bank account contradicts', () =>
  fc.assert(
    fc.property(traces, list, (page, known) => {
      const found = matchSupplier(page, known);
      const byTax = page.taxId ? known.filter((s) => digits(s.taxId) === digits(page.taxId)) : [];
      const byIban = page.iban ? known.filter((s) => plain(s.iban) === plain(page.iban)) : [];
      if (byTax.length === 1) expect(found?.id).toBe(byTax[0]!.id);
      if (byTax.length !== 1 && byIban.length === 1) expect(found?.id).toBe(byIban[0]!.id);
      if (found?.sure && byIban.length === 1) expect(found.id).toBe(byIban[0]!.id);
    }),
  ));
it('every match gives its reason in words', () =>
  fc.assert(
    fc.property(traces, list, (page, known) => {
      const found = matchSupplier(page, known);
      if (found) expect(found.reason).toMatch(/^(Tax number|IBAN|Mail address at|Name) ?\S*/);
      if (found) expect(known.map((s) => s.id)).toContain(found.id);
    }),
  ));
