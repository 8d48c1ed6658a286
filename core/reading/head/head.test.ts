import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { sketch, type Piece } from '../../page/sketch.ts';
import { layOut } from '../layout.ts';
import { evidenceOf } from './evidence.ts';
import { readHead, type Context } from './index.ts';
import { alike } from './namefeatures.ts';
import { plainName } from './names.ts';

/** A letterhead in words that stand in no list of labels, with a buyer, a number, two dates, an order and a total. */
const letter = (more: Piece[] = []): Piece[] => [
  [40, 50, 'Thornholm Crop Protection Ltd', 16],
  [40, 68, 'Grain Store Road, Thornholm TH8 2AB'],
  [40, 80, 'agronomy@thornholm.example'],
  [380, 50, 'TAX INVOICE', 16],
  [380, 80, 'Transaction no. 0091734'],
  [380, 94, 'Trading date 3 November 2026'],
  [40, 130, 'Buyer'],
  [40, 144, 'Marrowby Nursery Trading Limited'],
  [40, 156, 'The Potting Sheds'],
  [40, 168, 'Marrowby MB1 4QU'],
  [380, 130, 'Buyer’s order NT-4471-CP'],
  [380, 144, 'Due for payment 20 December 2026'],
  [40, 700, 'VAT number GB614083751'],
  ...more,
];
const read = (pieces: Piece[], context?: Context) => {
  const { dates, ...head } = readHead(layOut([sketch(pieces)]), 'day-first', context);
  return { ...head, ...dates(null, 'invoice') };
};
const values = (head: ReturnType<typeof read>) =>
  Object.fromEntries(Object.entries(head).flatMap(([field, r]) => (r && typeof r === 'object' && 'value' in r ? [[field, r.value]] : [])));

describe('what may be a number', () => {
  const evidence = (text: string) => evidenceOf(layOut([sketch([[40, 100, text]])]), 'day-first');
  const keys = (text: string) => evidence(text).references.map((r) => r.key);
  it('is no part of a date, but a date as a whole, or what stands before one', () => {
    const found = keys('Regning 1187 af 6/11 2026');
    expect(found).toContain('1187');
    expect(found).toContain('6/112026');
    expect(found).not.toContain('6/11');
    expect(found).not.toContain('2026');
    expect(keys('Rechnung 6/11')).toContain('6/11');
  });
  it('does not begin with the word for number', () => {
    expect(keys('VAT Reg NO 667 320 137')).toContain('667320137');
    expect(keys('VAT Reg NO 667 320 137')).not.toContain('NO667320137');
    expect(keys('Org. NO 999 888 777 MVA')).toContain('NO999888777MVA');
  });
  it('looks like nothing but a tax number, where it does', () => {
    const telling = (text: string) => evidence(text).of.reference.some((f) => f.has('only a tax number looks so'));
    expect([telling('GSTIN 29AAKCV4471P1ZQ'), telling('CZ04417792'), telling('Invoice 0091734')]).toEqual([true, true, false]);
  });
});

describe('a head whose labels nobody listed', () => {
  it('is read by everything that stands round its values', () =>
    expect(values(read(letter()))).toMatchObject({
      supplierName: 'Thornholm Crop Protection Ltd',
      buyerName: 'Marrowby Nursery Trading Limited',
      invoiceNumber: '0091734',
      issueDate: '2026-11-03',
      dueDate: '2026-12-20',
      supplierTaxId: 'GB614083751',
    }));
  it('says why, where, and what else it might be', () => {
    const number = read(letter()).invoiceNumber!;
    expect(number.why!.length).toBeGreaterThan(0);
    expect(number.mark).toMatchObject({ page: 1 });
    expect(number.rivals!.every((r) => r.value !== number.value)).toBe(true);
  });
  it('what is known as ours is never the sender', () => {
    const swapped = letter().map((p): Piece => (p[2] === 'Marrowby Nursery Trading Limited' ? [40, 30, p[2], 20] : p));
    const head = read(swapped, { companies: [{ name: 'Marrowby Nursery Trading Ltd', taxId: 'GB614083751' }] });
    expect([head.supplierName?.value, head.supplierTaxId]).toEqual(['Thornholm Crop Protection Ltd', null]);
  });
});

describe('roles exclude each other', () => {
  it('in every head: number and order are two, sender and buyer are two, due is not before issued', () =>
    fc.assert(
      fc.property(
        fc.shuffledSubarray(letter(), { minLength: 4 }),
        fc.array(
          fc.tuple(
            fc.integer({ min: 40, max: 400 }),
            fc.integer({ min: 200, max: 600 }),
            fc.constantFrom('Ref AB-12', '4 May 2026', 'Kelder & Sons Ltd', '77/20'),
          ),
          {
            maxLength: 4,
          },
        ),
        (own, more) => {
          const head = read([...own, ...(more as Piece[])]);
          if (head.invoiceNumber && head.purchaseOrder) expect(head.invoiceNumber.value).not.toBe(head.purchaseOrder.value);
          if (head.supplierName && head.buyerName) expect(plainName(head.supplierName.value)).not.toBe(plainName(head.buyerName.value));
          for (const r of [head.invoiceNumber, head.purchaseOrder, head.issueDate, head.supplierName])
            if (r) expect(r.confidence > 0 && r.confidence < 1 && r.mark !== null).toBe(true);
        },
      ),
      { numRuns: 40 },
    ));
});

describe('candidates', () => {
  const of = (...pieces: Piece[]) => evidenceOf(layOut([sketch(pieces)]), 'day-first');
  const keys = (...pieces: Piece[]) => of(...pieces).references.map((r) => r.key);
  it('numbers may have inner spaces, slashes and letters, and are cut off from their label', () => {
    expect(keys([50, 50, 'Your order no. STANDING 118'])).toContain('STANDING118');
    expect(keys([50, 50, 'MHW 1187/09'])).toContain('MHW1187/09');
    expect(keys([50, 50, 'Invoice:4711'])).toContain('4711');
    expect(keys([50, 50, 'Org.nr. NO 918 402 771 MVA'])).toContain('NO918402771MVA');
  });
  it('a letter behind a stroke belongs to a number, a word before it does not, and a minus for a hyphen is one', () => {
    expect(keys([50, 50, 'Invoice 26-7 / B'])).toContain('26-7/B');
    expect(keys([50, 50, 'nr 14/11/2026'])).toEqual(['14/11/2026']);
    expect(keys([50, 50, 'Your order PO\u22124495'])).toContain('PO-4495');
  });
  it('a number that ends with a word for tax is not cut short', () =>
    expect(keys([50, 50, 'NO 918 402 771 MVA']).filter((k) => k.endsWith('771'))).toEqual([]));
  it('two pieces under each other are one name, alike or not', () => {
    const stacked = (second: string) => of([50, 50, 'KELDER'], [50, 60, second]).names.find((n) => n.stacked)?.stacked;
    expect([stacked('WORKS'), stacked('Works')]).toEqual(['alike', 'other']);
  });
  it('money and web addresses are none', () => expect(keys([50, 50, '£12.50 www.kelder2.example 20%'])).toEqual([]));
  it('a name is a whole piece and its parts', () =>
    expect(of([50, 50, 'Kelder Ltd · 3 Silver Row']).names.map((n) => n.text)).toEqual([
      'Kelder Ltd · 3 Silver Row',
      'Kelder Ltd',
      '3 Silver Row',
    ]));
  it('likeness of names is one for the same and none for strangers', () =>
    expect([alike('kelder ltd', 'kelder ltd'), alike('abc', 'xyz')]).toEqual([1, 0]));
});
