import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { sketch } from '../page/sketch.ts';
import { readDocument, unread, type HeaderField, type Read, type Reading } from '../reading/index.ts';
import { matchSupplier, tracesOf, weighKnown, type Beside, type KnownSupplier } from './index.ts';

const candidate = (value: string, confidence: number) => ({ value, mark: null, confidence });
const read = (value: string, confidence: number, ...rivals: [string, number][]): Read => ({
  ...candidate(value, confidence),
  proof: null,
  rivals: rivals.map(([v, c]) => candidate(v, c)),
});
const page = (header: Partial<Record<HeaderField, Read>>, flags: string[] = [], emails: string[] = []): Reading => {
  const empty = unread([]);
  return { ...empty, header: { ...empty.header, ...header }, supplierEmails: emails, flags };
};
const mossgarth = { id: 'm', name: 'Mossgarth Growing Media Ltd', taxId: 'GB731550842', iban: null, email: 'office@mossgarth.example' };
/** As the application does it: the sender is who the reading's traces name. */
const weigh = (reading: Reading, { suppliers = [], ...more }: Partial<Beside>): Reading => {
  const match = matchSupplier(tracesOf(reading), [...suppliers]);
  return weighKnown(reading, { suppliers, sender: suppliers.find((s) => s.id === match?.id) ?? null, ...more });
};

describe('what is known beside the page', () => {
  const unsure = page({ supplierName: read('Growing since 1911', 0.6, ['Mossgarth Growing Media Ltd', 0.2]) }, ['supplier.name']);

  it('prefers the name of a supplier that is known, and says so', () => {
    const { header, flags } = weigh(unsure, { suppliers: [mossgarth] });
    // 0.2 × 50 = 10, beside 0.6 and 0.2 for neither: 10 / 10.8.
    expect(header.supplierName).toMatchObject({ value: mossgarth.name, why: ['a supplier that is known'] });
    expect(header.supplierName!.confidence).toBeCloseTo(10 / 10.8, 6);
    expect(header.supplierName!.rivals!.map((r) => r.value)).toEqual(['Growing since 1911']);
    expect(flags).toEqual([]);
  });
  it('never takes the buyer for it', () => {
    const ours = page({ ...unsure.header, buyerName: read(mossgarth.name, 0.99) } as Partial<Record<HeaderField, Read>>);
    expect(weigh(ours, { suppliers: [mossgarth] }).header.supplierName!.value).toBe('Growing since 1911');
  });
  it('takes the tax number that the supplier at this mail domain has', () => {
    const two = page({ supplierTaxId: read('GB111222333', 0.7, ['GB 731 5508 42', 0.2]) }, [], ['bills@mossgarth.example']);
    expect(weigh(two, { suppliers: [mossgarth] }).header.supplierTaxId!.value).toBe('GB 731 5508 42');
  });
  it('prefers a number that looks like the earlier ones, where three or more look alike', () => {
    const two = page({ supplierName: read(mossgarth.name, 0.99), invoiceNumber: read('C10023', 0.6, ['MG-4471', 0.3]) });
    const numbered = (numbers: string[]) => weigh(two, { suppliers: [mossgarth], numbers }).header.invoiceNumber!.value;
    expect(numbered(['MG-4402', 'MG-4413', 'MG-4460'])).toBe('MG-4471');
    expect(numbered(['MG-4402', 'MG-4413'])).toBe('C10023');
    expect(numbered(['MG-4402', '17', 'A/5', 'MG-4460'])).toBe('C10023');
  });
  it('hears the name of the file, unless it is that of the order', () => {
    const two = page({ invoiceNumber: read('88', 0.5, ['2026/1204', 0.4]) });
    expect(weigh(two, { fileName: 'Invoice 2026-1204.pdf' }).header.invoiceNumber!.value).toBe('2026/1204');
    const ordered = page({ ...two.header, purchaseOrder: read('2026/1204', 0.9) } as Partial<Record<HeaderField, Read>>);
    expect(weigh(ordered, { fileName: 'Invoice 2026-1204.pdf' }).header.invoiceNumber!.value).toBe('88');
  });
  it('leaves what a sum or check proves, and what is no invoice', () => {
    const proven = page({ invoiceNumber: { ...read('88', 0.5, ['2026/1204', 0.4]), proof: 'page and data agree' } });
    expect(weigh(proven, { fileName: '2026-1204.pdf' }).header.invoiceNumber!.value).toBe('88');
    const other: Reading = { ...unsure, kind: 'other' };
    expect(weigh(other, { suppliers: [mossgarth] })).toBe(other);
  });
});

it('a mail address of ours is no trace of the sender', () => {
  const page = sketch([
    [40, 40, 'Mossgarth Growing Media Ltd'],
    [40, 60, 'office@mossgarth.example'],
    [40, 120, 'Invoice'],
    [40, 140, 'Sent to invoices@gardens.marrowby.example'],
  ]);
  const ours = { name: 'Marrowby Botanic Gardens', email: 'Invoices@Gardens.Marrowby.example' };
  expect(readDocument([page], { companies: [ours] }).supplierEmails).toEqual(['office@mossgarth.example']);
  expect(readDocument([page]).supplierEmails).toHaveLength(2);
});

it('chooses among what the page shows and invents nothing', () => {
  const name = fc.constantFrom('Mossgarth Growing Media Ltd', 'Quillhaven Glass Ltd', 'Growing since 1911', 'C10023', 'MG-4471');
  const share = fc.double({ min: 0.01, max: 0.3, noNaN: true });
  const one = fc.tuple(name, share, fc.array(fc.tuple(name, share), { maxLength: 3 })).map(([v, c, rivals]) => read(v, c, ...rivals));
  const supplier: fc.Arbitrary<KnownSupplier> = fc.record({
    id: fc.uuid(),
    name,
    taxId: fc.option(name),
    iban: fc.constant(null),
    email: fc.constant(null),
  });
  const beside = fc.record({
    suppliers: fc.array(supplier, { maxLength: 4 }),
    numbers: fc.array(name, { maxLength: 5 }),
    fileName: fc.option(name),
  });
  fc.assert(
    fc.property(one, one, one, beside, (supplierName, invoiceNumber, supplierTaxId, known) => {
      const before = page({ supplierName, invoiceNumber, supplierTaxId });
      const after = weigh(before, known).header;
      for (const field of ['supplierName', 'invoiceNumber', 'supplierTaxId'] as const) {
        const values = (r: Read) => [r.value, ...r.rivals!.map((x) => x.value)].sort();
        expect(values(after[field]!)).toEqual(values(before.header[field]!));
        expect(after[field]!.confidence).toBeLessThanOrEqual(0.99);
        expect(after[field]!.confidence).toBeGreaterThan(0);
      }
    }),
  );
});
