import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Page, Word } from '../page/index.ts';
import { sketch, type Piece } from '../page/sketch.ts';
import { misreadings, turnsOf } from './confusions.ts';
import { findIbans, isIban } from './iban.ts';
import { findLabels } from './labels.ts';
import { columnBook, fieldBook } from './lexicon/index.ts';
import { lettersApart, nearestOf } from './lexicon/likeness.ts';
import { readScanned } from './scanned.ts';

const lines: Piece[] = [
  [40, 50, 'Quillhaven Glasshouse Repairs Ltd', 16],
  [400, 50, 'INVOICE', 16],
  [40, 120, 'Invoice to'],
  [40, 134, 'Marrowby Botanic Gardens'],
  [350, 120, 'Invoice no.'],
  [450, 120, 'QGR-20611'],
  [350, 134, 'Invoice date'],
  [450, 134, '3 November 2026'],
  [40, 200, 'Description'],
  [300, 200, 'Quantity'],
  [380, 200, 'Price'],
  [470, 200, 'Amount'],
  [40, 220, 'Toughened pane'],
  [310, 220, '12'],
  [380, 220, '21.40'],
  [470, 220, '256.80'],
  [40, 236, 'Lead flashing'],
  [310, 236, '29'],
  [380, 236, '12.75'],
  [470, 236, '369.75'],
  [40, 252, 'Sealant'],
  [310, 252, '2'],
  [380, 252, '5.00'],
  [470, 252, '10.00'],
  [380, 280, 'Net total'],
  [470, 280, '636.55'],
  [380, 296, 'VAT 20%'],
  [470, 296, '127.31'],
  [380, 312, 'Invoice total GBP'],
  [470, 312, '763.86'],
];
const scan = { width: 595, height: 842, back: [1, 0, 0, 0, 1, 0, 0, 0, 1], skew: 0, squared: false, language: 'eng' as const };
/** The page as a recogniser saw it: some figures misread. */
function inked(misread: Record<string, Partial<Word>> = {}): Page {
  const page = sketch(lines);
  return { ...page, scan, words: page.words.map((w) => ({ ...w, sure: 0.93, ...misread[w.text] })) };
}
const line = (pages: Page[], seen: Parameters<typeof readScanned>[1] = null) => readScanned(pages, seen).reading.lines[0]!;

describe('ink', () => {
  it('read well needs no second look', () => {
    const { reading, spots } = readScanned([inked()], null);
    expect([spots, reading.header.grossTotal?.value, reading.flags]).toEqual([[], '763.86', []]);
  });
  it('a figure whose row fails is looked at again, digits only', () => {
    const { spots } = readScanned([inked({ '21.40': { text: '27.40', sure: 0.7 } })], null);
    expect(spots.length).toBeGreaterThan(0);
    expect(spots.every((s) => s.digits)).toBe(true);
  });
  it('a usual confusion is put right where one reading alone makes the row hold, and it says so', () => {
    const read = line([inked({ '21.40': { text: '27.40', sure: 0.7 } })], []);
    expect(read.unitPrice).toMatchObject({
      value: '21.40',
      repaired: expect.stringContaining('read 27.40, 21.40 makes 12 × 21.40 = 256.80'),
    });
  });
  it('a lost point is put back', () => {
    expect(line([inked({ '21.40': { text: '2140', sure: 0.7 } })], []).unitPrice).toMatchObject({ value: '21.40' });
  });
  it('a figure that no confusion explains stays as it was read, and is flagged', () => {
    const { reading } = readScanned([inked({ '21.40': { text: '26.90', sure: 0.95 } })], []);
    expect(reading.lines[0]!.unitPrice?.value).toBe('26.90');
    expect(reading.flags).toContain('lines[0].unitPrice');
  });
  it('of two readings of a spot the sums choose', () => {
    const page = inked({ '21.40': { text: '26.90', sure: 0.6 } });
    const word = page.words.find((w) => w.text === '26.90')!;
    const seen = { page: 1, x: word.x, y: word.y, w: word.w, h: word.h, digits: true, words: [{ ...word, text: '21.40', sure: 0.8 }] };
    expect(line([page], [seen]).unitPrice).toMatchObject({ value: '21.40', repaired: expect.stringContaining('read 26.90') });
  });
  it('a wrong printed total is not repaired into place', () => {
    const { reading } = readScanned([inked({ '763.86': { text: '790.00', sure: 0.95 } })], []);
    expect(reading.header.grossTotal?.value).toBe('790.00');
    expect(reading.flags).toContain('grossTotal');
  });
  it('an empty cell where the other rows have one is flagged', () => {
    const page = inked();
    const { reading } = readScanned([{ ...page, words: page.words.filter((w) => w.text !== '29') }], []);
    expect(reading.flags).toContain('lines[1].quantity');
  });
  it('lines are read where the amounts have lost their title', () => {
    const page = inked(),
      { reading } = readScanned([{ ...page, words: page.words.filter((w) => w.text !== 'Amount') }], null);
    expect(reading.lines.map((l) => [l.quantity?.value, l.unitPrice?.value, l.amount?.value])).toEqual([
      ['12', '21.40', '256.80'],
      ['29', '12.75', '369.75'],
      ['2', '5.00', '10.00'],
    ]);
  });
  it('a row that lost its amount is looked for where the amount should stand, and becomes a line when it is found', () => {
    const whole = inked(),
      there = whole.words.find((w) => w.text === '369.75')!;
    const page = { ...whole, words: whole.words.filter((w) => w !== there) };
    const { spots } = readScanned([page], null);
    const spot = spots.find((s) => s.digits && Math.abs(s.y - there.y) < 2 && s.x < there.x && s.x + s.w > there.x + there.w);
    expect(spot).toBeDefined();
    const { reading } = readScanned([page], [{ ...spot!, words: [there] }]);
    expect(reading.lines.map((l) => l.amount.value)).toEqual(['256.80', '369.75', '10.00']);
  });
  it('a unit behind a figure is its unit, though the next column begins close behind', () => {
    const { reading } = readScanned(
      [
        {
          ...sketch([
            [40, 50, 'Quillhaven Glasshouse Repairs Ltd', 16],
            [400, 50, 'INVOICE', 16],
            [60, 200, 'Hired'],
            [132, 200, 'Item'],
            [380, 200, 'Weekly'],
            [470, 200, 'Amount'],
            ...(['Dehumidifier, large', 'Lighting tower', 'Turf cutter'] as const).flatMap((name, i): Piece[] => [
              [83, 220 + i * 18, `${i + 2}`],
              [94, 220 + i * 18, 'weeks'],
              [132, 220 + i * 18, name],
              [380, 220 + i * 18, '10.00'],
              [470, 220 + i * 18, `${i + 2}0.00`],
            ]),
          ]),
        },
      ],
      [],
    );
    expect(reading.lines.map((l) => [l.description?.value, l.quantity?.value, l.unit?.value])).toEqual([
      ['Dehumidifier, large', '2', 'weeks'],
      ['Lighting tower', '3', 'weeks'],
      ['Turf cutter', '4', 'weeks'],
    ]);
  });
  it('a label may be a letter off where the recogniser was unsure', () => {
    const { reading } = readScanned([inked({ Invoice: { sure: 0.6, text: 'Invoioe' } })], []);
    expect(reading.header.invoiceNumber?.value).toBe('QGR-20611');
  });
});

describe('confusions', () => {
  it('a misreading never is what was read, and each is told once', () => {
    fc.assert(
      fc.property(fc.stringMatching(/^\d{1,4}([.,]\d{2})?$/), fc.constantFrom(null, 0, 2), (text, places) => {
        const all = misreadings(text, places).map((m) => m.text);
        expect(all).not.toContain(text);
        expect(new Set(all).size).toBe(all.length);
      }),
    );
  });
  it('a lost point is likelier where its column has decimals', () => {
    const cost = (places: number | null) => misreadings('745', places).find((m) => m.text === '7.45')!.cost;
    expect(cost(2)).toBeLessThan(cost(null));
  });
  it('codes that take turns between letters and digits are less plain', () =>
    expect([turnsOf('PO-4529'), turnsOf('P0O4529')]).toEqual([0, 3]));
  it('one character taken for another throughout costs less than two taken by chance', () => {
    const [all] = misreadings('12.14', 2).filter((m) => m.text === '72.74');
    expect(all!.cost).toBeLessThan(2 * 1.6);
  });
  it('letters apart is a distance: the same both ways, nothing for the same word', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 8 }), fc.string({ maxLength: 8 }), (a, b) => {
        expect(lettersApart(a, b, 20)).toBe(lettersApart(b, a, 20));
        expect(lettersApart(a, b, 20) === 0).toBe(a === b);
      }),
    );
  });
  it('the nearest word is taken only where there is one', () => {
    const known = new Set(['reference', 'order', 'quantity', 'invoice']);
    expect([nearestOf('teference', known), nearestOf('orders', known), nearestOf('lamp', known)]).toEqual(['reference', 'orders', 'lamp']);
  });
});

describe('a label that ink has spoiled', () => {
  const heads = (text: string, sure: number) => {
    const { words } = sketch([[50, 50, text]]);
    return findLabels(
      words.map((w, i) => (i === 0 ? { ...w, sure } : w)),
      columnBook,
    ).map((f) => f.text);
  };
  it('is known by the words beside it, even where its own is short', () => expect(heads('tem code', 0.43)).toEqual(['item code']));
  it('is taken as it stands where the recogniser was sure of it', () => expect(heads('tem code', 0.96)).not.toContain('item code'));
  it('is known where a later word of it was spoiled', () => {
    const { words } = sketch([[50, 50, 'Your ret']]);
    const labels = findLabels([words[0]!, { ...words[1]!, sure: 0.9 }], fieldBook);
    expect(labels.map((f) => f.text)).toEqual(['your ref']);
  });
  it('is not made up of a short word alone', () => expect(heads('tem', 0.43)).toEqual([]));
});

describe('an IBAN on ink', () => {
  const iban = 'GB37XQZB00231433231433';
  it('is put right where its letters and digits were taken for each other and the check digits then hold', () =>
    expect(findIbans('IBAN GB37 XQ2B 0O23 1433 2314 33').map((f) => f.iban)).toEqual([iban]));
  it('may have letters or a question mark for its check digits', () => {
    expect(findIbans('IBAN GB8S ZZZZ 8004 8340 2805 16 BIC ZZOXGB2X').map((f) => f.iban)).toEqual(['GB85ZZZZ80048340280516']);
    expect(findIbans('IBAN ES?2 7380 5984 5853 2506 2853').map((f) => f.iban)).toEqual(['ES2273805984585325062853']);
  });
  it('is not made of words in capitals', () => expect(findIbans('IT IS SOLID BOGOTA GLOSS OIL BOIL GILLS SOS')).toEqual([]));
  it('is not made up where they do not', () => expect(findIbans('IBAN GB37 XQ2B 0O23 1433 2314 34')).toEqual([]));
  it('may have lost the case of a letter or gained a point', () =>
    expect(findIbans('IBAN GB37. XQzB 0023 1433 2314 33').map((f) => f.iban)).toEqual([iban]));
  it('is not put together from the words of a row, though the modulus holds', () => {
    const row = 'SC2256 Orchid silk scarf 6 34.00 14.30 S';
    expect([isIban(row), findIbans(row)]).toEqual([false, []]);
  });
  it('has the length and shape its country gives it: the modulus may hold by chance', () => {
    // The modulus holds, yet no country has this code, nor this length.
    expect([isIban('RE300407RECHNUNGSAD'), findIbans('RE300407RECHNUNGSAD')]).toEqual([false, []]);
  });
  it('stays what it is where it is sound', () => expect([isIban(iban), findIbans(iban)[0]!.iban]).toEqual([true, iban]));
});
