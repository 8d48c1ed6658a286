import { describe, expect, it } from 'vitest';
import { sketch, type Piece } from '../page/sketch.ts';
import { namedAmounts } from './amounts.ts';
import { readCurrency } from './currency.ts';
import { readHead } from './head/index.ts';
import { documentNumber, readTerms, dateOrderOf } from './header.ts';
import { kindOf } from './kind.ts';
import { findLabels } from './labels.ts';
import { layOut } from './layout.ts';
import { fieldBook } from './lexicon/index.ts';
import { tokensOf } from './lexicon/tokens.ts';
import { isCurrency } from '../numbers/index.ts';
import { chooseLines } from './choose.ts';
import { readDocument } from './read.ts';
import { readTable } from './table/index.ts';
import { legendOf, taxRows } from './taxtable.ts';

const laid = (...pieces: Piece[]) => layOut([sketch(pieces)]);
const head = (...pieces: Piece[]) => {
  const { dates, ...facts } = readHead(laid(...pieces), 'day-first');
  return { ...facts, ...dates(null, 'invoice') };
};
const number = (...pieces: Piece[]) => head(...pieces).invoiceNumber?.value ?? null;

describe('words of the lexicon', () => {
  it.each([
    ['Rechnungs-Nr.', ['rechnungs', '#']],
    ['Rechnungsnummer', ['rechnungs', '#']],
    ['Fattura n.', ['fattura', '#']],
    ['N.º', ['#']],
    ['Nº', ['#']],
    ['N.”', ['#']],
    ['n*', ['#']],
    ['Inv.No.:', ['inv', '#']],
    ['Btw-bedrag', ['btw', 'bedrag']],
    ['Échéance', ['echeance']],
    ['Rate/kg', ['rate', 'kg']],
    ['VAT20%', ['vat', '20%']],
    ['P.IVA', ['piva']],
    ['***', []],
  ])('%s', (text, tokens) => expect(text.split(' ').flatMap(tokensOf)).toEqual(tokens));
  it('"number" at the end of a compound is no label of its own', () =>
    expect(findLabels(sketch([[50, 50, 'Artikelnummer 123']]).words, fieldBook)).toEqual([]));
  it('currencies are words of their own', () =>
    expect(['£', 'EUR', 'kr', 'CHF:', 'Euro', '12'].map(isCurrency)).toEqual([true, true, true, true, false, false]));
});

describe('the invoice’s number', () => {
  it.each<[string, Piece[], string]>([
    [
      'right of its label',
      [
        [50, 50, 'Invoice no.'],
        [140, 50, 'INV-204'],
      ],
      'INV-204',
    ],
    ['in the run of its label', [[50, 50, 'Factuurnummer: 2026-0077']], '2026-0077'],
    [
      'below its label',
      [
        [50, 50, 'Invoice number', 8],
        [50, 62, 'GH40317'],
      ],
      'GH40317',
    ],
    [
      'in a band whose values stand close',
      [
        [50, 50, 'Invoice no.'],
        [130, 50, 'Invoice date'],
        [210, 50, 'Order no.'],
        [50, 63, 'AB-1'],
        [130, 63, '17/11/2026'],
        [210, 63, 'PO-5'],
      ],
      'AB-1',
    ],
    ['after a title', [[50, 50, 'Invoice 2026/38', 16]], '2026/38'],
  ])('stands %s', (_, pieces, value) => expect(number(...pieces)).toBe(value));
  it('is never an amount', () => expect(number([50, 50, 'Invoice no.'], [140, 50, '12.50'])).toBeNull());
  it('an ambiguous label counts less than a clear one', () => {
    expect(number([50, 50, 'Number'], [140, 50, '7788'], [50, 64, 'Invoice no.'], [140, 64, 'INV-9'])).toBe('INV-9');
  });
  it('tells whose page it is only where a label says so', () =>
    expect([documentNumber(laid([50, 50, 'Invoice no. X-1'])), documentNumber(laid([50, 50, 'Number X-1']))]).toEqual(['X-1', null]));
});

describe('orders, dates and terms', () => {
  it.each<[string, Piece[], string]>([
    [
      'a day above twelve decides',
      [
        [50, 50, 'Date 17/11/2026'],
        [50, 64, 'Due 12/11/2026'],
      ],
      'day-first',
    ],
    ['a month above twelve decides', [[50, 50, 'Date 11/17/2026']], 'month-first'],
    [
      'an American address decides',
      [
        [50, 50, 'Larkspur, OH 00417'],
        [50, 64, 'Date 11/12/2026'],
      ],
      'month-first',
    ],
    ['else the day stands first', [[50, 50, 'Date 11/12/2026']], 'day-first'],
  ])('%s', (_, pieces, order) => expect(dateOrderOf(laid(...pieces))).toBe(order));
  it('delivery and order dates are not the invoice’s', () =>
    expect(head([50, 50, 'Delivery date 01/11/2026'], [50, 64, 'Invoice date 03/11/2026']).issueDate?.value).toBe('2026-11-03'));
  it('a due date follows from terms, with the sum said', () => {
    const layout = laid([50, 50, 'Terms: 30 days net'], [300, 50, 'Invoice date 3 November 2026']),
      terms = readTerms(layout, () => false);
    const { dueDate: due } = readHead(layout, 'day-first').dates(terms, 'invoice');
    expect([terms?.value, due?.value, due?.proof]).toEqual(['30 days net', '2026-12-03', '30 days net from 2026-11-03']);
  });
  it('days by themselves among the facts of the head are terms; a number of days in a sentence of its own is none', () => {
    const of = (text: string) => readTerms(laid([50, 50, text]), () => false)?.value ?? null;
    expect(of('Bill ref WG 20931 | dated 07/11/26 | 14 days | round 12')).toBe('14 days');
    expect(of('Keeps for 14 days in the cool')).toBeNull();
  });
  it('rows of the table are no terms', () => expect(readTerms(laid([50, 50, '2 Shading net 30 days']), () => true)).toBeNull());
});

describe('kind', () => {
  it.each([
    ['INVOICE', 'invoice'],
    ['CREDIT NOTE', 'credit-note'],
    ['Gutschrift', 'credit-note'],
    ['STATEMENT OF ACCOUNT', 'other'],
    ['Lieferschein', 'other'],
    ['Nota di credito', 'credit-note'],
    ['Offerte', 'other'],
  ])('%s is %s', (title, kind) => expect(kindOf(laid([50, 50, title, 18], [50, 90, 'Some text below it in plain size'])).kind).toBe(kind));
  it('says of itself that it asks for nothing', () =>
    expect(
      kindOf(
        laid(
          [50, 50, 'Coming renewals', 18],
          [50, 80, 'Invoice number'],
          [50, 110, 'This is a notice, not a bill: nothing is to be paid now.'],
        ),
      ).kind,
    ).toBe('other'));
  it('labels side by side say nothing of the kind: "Invoice No" beside "Invoice Date"', () =>
    expect(kindOf(laid([50, 50, 'INVOICE', 18], [50, 90, 'Invoice No'], [200, 90, 'Invoice Date'])).kind).toBe('invoice'));
  it('a title in words that no list has as a whole', () =>
    expect(kindOf(laid([50, 50, 'Weekly timesheet no. 20641', 18], [50, 90, 'Some text below it in plain size'])).kind).toBe('other'));
  it('a list of invoices is a statement or a remittance, whatever its labels; one word alone is a title', () => {
    const items = [100, 114, 128, 142].flatMap((y, i): Piece[] => [
      [50, y, `0${i + 1}/10/2026`],
      [150, y, 'Invoice'],
      [400, y, '112.44'],
    ]);
    expect(kindOf(laid([50, 40, 'REMITTANCE ADVICE'], ...items)).kind).toBe('other');
    expect(kindOf(laid([50, 50, 'Invoice'], [50, 90, 'Some text below it in plain size'])).kind).toBe('invoice');
    expect(kindOf(laid([50, 40, 'Price notice', 16], [50, 80, 'This is for your records: no payment is due on it.'])).kind).toBe('other');
  });
  it('a page that says nothing is told so', () => expect(kindOf(laid([50, 50, 'Just words']))).toMatchObject({ untold: true }));
});

describe('an account whose check digits do not hold', () => {
  it('is told, and flagged', () => {
    const r = readDocument([
      sketch([
        [50, 50, 'INVOICE 77', 18],
        [50, 90, 'Kelder Works Oy'],
        [50, 110, 'IBAN FI90 9991 0440 7718 24'],
      ]),
    ]);
    expect([r.header.supplierIban?.value, r.flags.includes('supplier.iban')]).toEqual(['FI9099910440771824', true]);
  });
  it('an account number that goes on in the row below is one', () =>
    expect(
      readDocument([
        sketch([
          [50, 50, 'Pay to'],
          [50, 64, 'GB41 JQUW 4022 1100'],
          [50, 76, '9384 75'],
          [300, 76, 'Payable in 28 days'],
        ]),
      ]).header.supplierIban?.value,
    ).toBe('GB41JQUW40221100938475'));
});

describe('who sends it', () => {
  it('finds the firm by its legal form and size, the buyer under its label', () => {
    const p = head(
      [50, 60, 'Thistledew Timber HB', 18],
      [50, 75, 'Storgatan 11'],
      [50, 120, 'Fakturaadress'],
      [50, 134, 'Marrowby Botanic Gardens'],
      [50, 146, 'The Walled Garden'],
      [300, 60, 'FAKTURA', 18],
    );
    expect([p.supplierName?.value, p.buyerName?.value]).toEqual(['Thistledew Timber HB', 'Marrowby Botanic Gardens']);
  });
  it('an IBAN is no tax number, a customer’s tax number is not the supplier’s', () => {
    expect(head([50, 800, 'IBAN DE36 3856 2618 4904 9302 87 | BIC ZZTHDE2X | USt-IdNr. DE123456789']).supplierTaxId?.value).toBe(
      'DE123456789',
    );
    expect(head([50, 700, 'Your VAT number GB111222333'], [50, 800, 'VAT reg. no. GB123456789']).supplierTaxId?.value).toBe('GB123456789');
  });
});

describe('currency', () => {
  const currency = (...pieces: Piece[]) => readCurrency(laid(...pieces), [])?.value ?? null;
  it.each<[string, Piece[], string | null]>([
    ['a sign', [[50, 50, 'Total £12.00']], 'GBP'],
    ['a code', [[50, 50, 'Total EUR 12,00']], 'EUR'],
    ['crowns', [[50, 50, 'Att betala 1 234,50 kr']], 'SEK'],
    ['nothing', [[50, 50, 'Total 12.00']], null],
  ])('%s', (_, pieces, code) => expect(currency(...pieces)).toBe(code));
  it('without any, the supplier’s country is only a guess', () =>
    expect(
      readCurrency(laid([50, 50, 'Total 12.00']), [{ value: 'SE556677889901', mark: null, confidence: 1, proof: null }]),
    ).toMatchObject({ value: 'SEK', confidence: 0.8 }));
});

describe('amounts beside the table', () => {
  const amounts = (...pieces: Piece[]) => {
    const l = laid(...pieces);
    return namedAmounts(l, readTable(l, 'GBP', new Map())).map((a) => [a.text, [...a.roles.keys()].join('+'), a.rate]);
  };
  it('are named by what stands before or above them', () => {
    expect(amounts([50, 50, 'Net total'], [200, 50, '100.00'], [50, 64, 'VAT 20%'], [200, 64, '20.00'])).toEqual([
      ['100.00', 'net', null],
      ['20.00', 'tax', '20'],
    ]);
    expect(
      amounts(
        [50, 50, 'Total net'],
        [150, 50, 'VAT 20%'],
        [250, 50, 'Amount due'],
        [50, 63, '100.00'],
        [150, 63, '20.00'],
        [250, 63, '120.00'],
      ),
    ).toEqual([
      ['100.00', 'net', null],
      ['20.00', 'tax', '20'],
      ['120.00', 'gross', null],
    ]);
  });
  it('what a tax is charged on is no tax', () =>
    expect(amounts([50, 50, 'VAT 5 % (51,686.43):'], [300, 50, '2,584.32'])).toEqual([
      ['-51686.43', '', '5'],
      ['2584.32', 'tax', '5'],
    ]));
  it('thousands parted by spaces and a currency behind are one amount', () =>
    expect(amounts([50, 50, 'Att betala'], [200, 50, '1 114 823,46 kr'])).toEqual([['1114823.46', 'gross', null]]));
});

const heading: Piece[] = [
  [50, 100, 'Description'],
  [250, 100, 'Qty'],
  [320, 100, 'Price'],
  [420, 100, 'Amount'],
];
const lineTable: Piece[] = [
  ...heading,
  [50, 116, 'Oak stake'],
  [255, 116, '2'],
  [318, 116, '21.40'],
  [425, 116, '42.80'],
  [50, 132, 'Hand fork'],
  [255, 132, '3'],
  [318, 132, '10.00'],
  [425, 132, '30.00'],
];
const linesOf = (...pieces: Piece[]) => {
  const l = laid(...pieces);
  return readTable(l, 'GBP', legendOf(l)).lines.map((x) => [
    x.description?.value ?? null,
    x.quantity?.value ?? null,
    x.unitPrice?.value ?? null,
    x.amount.value,
  ]);
};

/** Lines as they are read in the way that explains most. */
const chosen = (...pieces: Piece[]) =>
  chooseLines(laid(...pieces), 'GBP').table.lines.map((x) => [
    x.description?.value,
    x.quantity?.value,
    x.unitPrice?.value ?? null,
    x.amount.value,
  ]);

describe('the line table', () => {
  const two = [
    ['Oak stake', '2', '21.40', '42.80'],
    ['Hand fork', '3', '10.00', '30.00'],
  ];
  it('is cut under its heading, and every product says its sum', () => {
    expect(linesOf(...lineTable)).toEqual(two);
    expect(readTable(laid(...lineTable), 'GBP', new Map()).lines.map((x) => x.amount.proof)).toEqual([
      '2 × 21.40 = 42.80',
      '3 × 10.00 = 30.00',
    ]);
  });
  it('needs no heading where figures multiply', () => expect(chosen(...lineTable.filter((p) => p[1] > 100))).toEqual(two));
  it('needs no prices where the amounts add up to a printed total', () =>
    expect(
      chosen(
        [50, 116, 'Oak stake'],
        [255, 116, '2'],
        [425, 116, '42.80'],
        [50, 132, 'Hand fork'],
        [255, 132, '3'],
        [425, 132, '30.00'],
        [320, 160, 'Total'],
        [425, 160, '72.80'],
      ),
    ).toEqual([
      ['Oak stake', '2', null, '42.80'],
      ['Hand fork', '3', null, '30.00'],
    ]));
  it('subtotals, totals and what is carried forward are no lines', () =>
    expect(linesOf(...lineTable, [50, 148, 'Carried forward'], [425, 148, '72.80'], [320, 170, 'Net total'], [425, 170, '72.80'])).toEqual(
      two,
    ));
  it('a running sum is no line, whatever it is called', () =>
    expect(
      linesOf(
        ...lineTable,
        [50, 148, 'Transport'],
        [425, 148, '72.80'],
        [50, 164, 'Clay pot'],
        [255, 164, '5'],
        [318, 164, '1.00'],
        [425, 164, '5.00'],
      ),
    ).toEqual([...two, ['Clay pot', '5', '1.00', '5.00']]));
  it('item numbers stand inside the text', () => {
    const l = laid(
      [50, 100, 'Item'],
      [250, 100, 'Qty'],
      [320, 100, 'Price'],
      [420, 100, 'Value'],
      [50, 116, 'Item number: OS-1 Description: Oak stake'],
      [255, 130, '2'],
      [318, 130, '21.40'],
      [425, 130, '42.80'],
      [50, 150, 'Item number: HF-2 Description: Hand fork'],
      [255, 164, '3'],
      [318, 164, '10.00'],
      [425, 164, '30.00'],
    );
    expect(readTable(l, 'GBP', new Map()).lines.map((x) => [x.code?.value, x.description?.value])).toEqual([
      ['OS-1', 'Oak stake'],
      ['HF-2', 'Hand fork'],
    ]);
  });
  it('of two factors without headings the one with decimals is the price', () =>
    expect(
      chosen(
        [50, 116, 'Oak stake'],
        [250, 116, '21.40'],
        [330, 116, '2'],
        [425, 116, '42.80'],
        [50, 132, 'Hand fork'],
        [250, 132, '10.00'],
        [330, 132, '3'],
        [425, 132, '30.00'],
      ),
    ).toEqual(two));
});

describe('tax tables and legends', () => {
  it('a row whose rate makes its tax', () => {
    const l = laid(...lineTable, [50, 200, 'A'], [80, 200, '20.00'], [140, 200, '211.60'], [220, 200, '42.32']);
    expect(taxRows(l, readTable(l, 'GBP', new Map()))).toMatchObject([{ rate: '20', net: '211.6', tax: '42.32' }]);
  });
  it('codes that the page explains', () =>
    expect([...legendOf(laid([50, 50, 'A = 20%'], [50, 64, 'B = 5%']))]).toEqual([
      ['A', '20'],
      ['B', '5'],
    ]));
});
