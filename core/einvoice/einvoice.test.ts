import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { ciiOf, ublOf } from '@ledgerline/documents/einvoice';
import { makeInvoice, type Invoice } from '@ledgerline/documents/invoice';
import { seeded } from '@ledgerline/documents/random';
import { suppliers } from '@ledgerline/documents/suppliers';
import { check, compare, looksLikeXml, readEInvoice, render, toReading, unitWord, UnreadableXml, withMarks } from './index.ts';

const bytes = (text: string) => new TextEncoder().encode(text);
const registered = suppliers.filter((s) => /^[A-Z]{2}/.test(s.taxId));
const make = (seed: number, wish: Partial<Parameters<typeof makeInvoice>[2]> = {}): Invoice =>
  makeInvoice(registered[seed % registered.length]!, seeded(seed), { number: `E-${seed}`, issueDate: '2026-11-10', ...wish });
const broken = (xml: string) => check(readEInvoice(bytes(xml))).map((b) => b.rule);
const anyInvoice = fc
  .record({ seed: fc.nat(5000), lines: fc.integer({ min: 1, max: 30 }), charge: fc.boolean(), credit: fc.boolean() })
  .map(({ seed, lines, charge, credit }) => make(seed, { lines, charge, kind: credit ? 'credit-note' : 'invoice' }));

describe('both syntaxes', () => {
  it('say what was written, break no rule, and are the same reading', () =>
    fc.assert(
      fc.property(anyInvoice, (invoice) => {
        const readings = [ublOf(invoice), ciiOf(invoice)].map((xml) => {
          const e = readEInvoice(bytes(xml));
          expect(check(e)).toEqual([]);
          return toReading(e).reading;
        });
        const [ubl, cii] = readings as [(typeof readings)[0], (typeof readings)[0]];
        expect(ubl).toEqual(cii);
        const h = ubl!.header;
        expect([
          ubl!.kind,
          h.invoiceNumber?.value,
          h.issueDate?.value,
          h.netTotal?.value,
          h.taxTotal?.value,
          h.grossTotal?.value,
          h.supplierName?.value,
          h.buyerName?.value,
          h.purchaseOrder?.value,
        ]).toEqual([
          invoice.kind,
          invoice.number,
          invoice.issueDate,
          invoice.net,
          invoice.tax,
          invoice.gross,
          invoice.supplier.name,
          invoice.buyer.name,
          invoice.purchaseOrder,
        ]);
        expect(ubl!.lines.map((l) => [l.description?.value, l.quantity?.value, l.unitPrice?.value, l.amount.value])).toEqual(
          invoice.lines.map((l) => [l.text, l.quantity, l.price, l.amount]),
        );
        expect(ubl!.flags).toEqual([]);
      }),
      { numRuns: 60 },
    ));
  it('every line is proven by its product, in words', () => {
    const { reading } = toReading(readEInvoice(bytes(ublOf(make(3)))));
    for (const line of reading.lines)
      expect(line.amount.proof).toBe(`${line.quantity!.value} × ${line.unitPrice!.value} = ${line.amount.value}`);
    expect(reading.header.grossTotal?.proof).toContain(`= ${reading.header.grossTotal!.value}`);
  });
});

describe('rules of EN 16931', () => {
  const invoice = make(1, { charge: true, lines: 3 });
  const ubl = ublOf(invoice);
  const swap = (from: string | RegExp, to: string) => {
    const changed = ubl.replace(from, to);
    expect(changed).not.toBe(ubl);
    return changed;
  };
  it.each([
    ['a number that is missing', /<cbc:ID>E-1<\/cbc:ID>/, '', 'BR-02'],
    ['a date that is missing', /<cbc:IssueDate>.*?<\/cbc:IssueDate>/, '', 'BR-03'],
    ['a type that is missing', /<cbc:InvoiceTypeCode>380<\/cbc:InvoiceTypeCode>/, '', 'BR-04'],
    ['a supplier without a name', /<cbc:RegistrationName>.*?<\/cbc:RegistrationName>/, '', 'BR-06'],
    ['a line without a price', /<cac:Price>.*?<\/cac:Price>/, '', 'BR-26'],
    ['a line without a tax category', /<cac:ClassifiedTaxCategory>.*?<\/cac:ClassifiedTaxCategory>/, '', 'BR-CO-4'],
    ['a tax number without its country', /<cbc:CompanyID>[A-Z]{2}/, '<cbc:CompanyID>', 'BR-CO-9'],
    [
      'a sum of lines that is wrong',
      /(<cbc:LineExtensionAmount currencyID="GBP">)[\d.]+(?=.*<cbc:TaxExclusiveAmount)/,
      '$11.00',
      'BR-CO-10',
    ],
    ['a sum of charges that is wrong', /(<cbc:ChargeTotalAmount currencyID="GBP">)[\d.]+/, '$10.01', 'BR-CO-12'],
    ['a total before tax that is wrong', /(<cbc:TaxExclusiveAmount currencyID="GBP">)[\d.]+/, '$17.00', 'BR-CO-13'],
    ['a tax total that is wrong', /(<cac:TaxTotal><cbc:TaxAmount currencyID="GBP">)[\d.]+/, '$17.00', 'BR-CO-14'],
    ['a total that is wrong', /(<cbc:TaxInclusiveAmount currencyID="GBP">)[\d.]+/, '$17.00', 'BR-CO-15'],
    ['an amount to pay that is wrong', /(<cbc:PayableAmount currencyID="GBP">)[\d.]+/, '$17.00', 'BR-CO-16'],
    ['a tax that its rate does not make', /(<\/cbc:TaxableAmount><cbc:TaxAmount currencyID="GBP">)[\d.]+/, '$17.77', 'BR-CO-17'],
    ['no tax breakdown', /<cac:TaxSubtotal>.*<\/cac:TaxSubtotal>/, '', 'BR-CO-18'],
    ['a charge without a reason', /<cbc:AllowanceChargeReason>.*?<\/cbc:AllowanceChargeReason>/, '', 'BR-CO-22'],
    ['neither due date nor terms', /<cbc:DueDate>.*?<\/cbc:DueDate>|<cac:PaymentTerms>.*?<\/cac:PaymentTerms>/g, '', 'BR-CO-25'],
    ['a standard rate of nothing', /(<cac:ClassifiedTaxCategory><cbc:ID>S<\/cbc:ID><cbc:Percent>)20/, '$10', 'BR-S-5'],
    ['a standard rated base that is wrong', /(<cbc:TaxableAmount currencyID="GBP">)[\d.]+/, '$17.00', 'BR-S-8'],
    ['a zero rate with a rate', /(<cac:ClassifiedTaxCategory><cbc:ID>)S/, '$1Z', 'BR-Z-5'],
    ['an exemption without a breakdown', /(<cac:ClassifiedTaxCategory><cbc:ID>)S/, '$1E', 'BR-E-1'],
    ['reverse charge with a rate', /(<cac:ClassifiedTaxCategory><cbc:ID>)S/, '$1AE', 'BR-AE-5'],
    ['a supply within the EU with a rate', /(<cac:ClassifiedTaxCategory><cbc:ID>)S/, '$1K', 'BR-IC-5'],
    ['an export with a rate', /(<cac:ClassifiedTaxCategory><cbc:ID>)S/, '$1G', 'BR-G-5'],
    ['what is outside the scope beside what is inside', /(<cac:TaxSubtotal>.*?<cbc:ID>)S/, '$1O', 'BR-O-8'],
  ])('names %s', (_, from, to, rule) => expect(broken(swap(from, to))).toContain(rule));
  it('an exemption has no tax and a reason', () => {
    const exempt = ubl.replaceAll('<cbc:ID>S</cbc:ID><cbc:Percent>20</cbc:Percent>', '<cbc:ID>E</cbc:ID><cbc:Percent>0</cbc:Percent>');
    expect(broken(exempt)).toEqual(expect.arrayContaining(['BR-E-9', 'BR-E-10']));
  });
  it('flags the fields that a broken rule concerns', () =>
    expect(toReading(readEInvoice(bytes(swap(/(<cbc:TaxInclusiveAmount currencyID="GBP">)[\d.]+/, '$17.00')))).reading.flags).toContain(
      'grossTotal',
    ));
  it('takes off what was paid and adds what was rounded', () => {
    const e = readEInvoice(
      bytes(
        swap(
          '<cbc:PayableAmount',
          '<cbc:PrepaidAmount currencyID="GBP">10.00</cbc:PrepaidAmount><cbc:PayableRoundingAmount currencyID="GBP">0.02</cbc:PayableRoundingAmount><cbc:PayableAmount',
        ),
      ),
    );
    expect([e.totals.prepaid, e.totals.rounding, check(e).map((b) => b.rule)]).toEqual(['10.00', '0.02', ['BR-CO-16']]);
    expect(toReading(e).reading.header.grossTotal?.value).toBe(invoice.gross);
  });
});

describe('hostile and foreign XML', () => {
  it.each([
    ['a document type', '<!DOCTYPE Invoice [<!ENTITY a "b">]><Invoice/>', 'document type'],
    ['an entity that is not its own', '<?xml version="1.0"?><Invoice>&secret;</Invoice>', 'damaged'],
    ['an end that is missing', '<Invoice><cbc:ID>', 'damaged'],
    ['another vocabulary', '<?xml version="1.0"?><menu><dish/></menu>', 'not an e-invoice'],
    ['depth without end', '<a>'.repeat(100), 'too deep'],
    ['nothing', '', 'damaged|empty'],
  ])('refuses %s in words', (_, xml, words) => expect(() => readEInvoice(bytes(xml))).toThrow(new RegExp(words)));
  it('refuses more elements or bytes than an invoice has', () => {
    expect(() => readEInvoice(bytes(`<a>${'<b/>'.repeat(50)}</a>`), { bytes: 1e6, elements: 20, depth: 9 })).toThrow('too large');
    expect(() => readEInvoice(bytes('<a>long</a>'), { bytes: 5, elements: 20, depth: 9 })).toThrow('too large');
  });
  it('reads UTF-16 and Latin-1', () => {
    const xml = ublOf(make(2));
    const wide = new Uint8Array([
      0xff,
      0xfe,
      ...new Uint8Array(Uint16Array.from([...xml.replace('UTF-8', 'UTF-16')].map((c) => c.charCodeAt(0))).buffer),
    ]);
    expect(readEInvoice(wide).number).toBe('E-2');
    expect(readEInvoice(new Uint8Array(Buffer.from(xml.replace('UTF-8', 'ISO-8859-1').replace('E-2<', 'É-2<'), 'latin1'))).number).toBe(
      'É-2',
    );
  });
  it('answers for any mutation: a reading or a refusal in words', () =>
    fc.assert(
      fc.property(
        fc.nat(200),
        fc.array(fc.tuple(fc.nat(), fc.constantFrom('<', '>', '&', '"', '\0', 'x', '</', '<![CDATA[', '-1e999', '')), {
          minLength: 1,
          maxLength: 6,
        }),
        (seed, cuts) => {
          let xml = seed % 2 ? ublOf(make(seed)) : ciiOf(make(seed));
          for (const [at, put] of cuts) {
            const i = at % xml.length;
            xml = xml.slice(0, i) + put + xml.slice(i + (at % 7));
          }
          try {
            const e = readEInvoice(bytes(xml));
            render(e, toReading(e).reading);
          } catch (error) {
            expect(error).toBeInstanceOf(UnreadableXml);
          }
        },
      ),
      { numRuns: 1500 },
    ));
  it('tells XML from other text', () =>
    expect([ublOf(make(1)), '<html><body>', 'plain', '%PDF-1.7', '<a/>'].map((t) => looksLikeXml(bytes(t)))).toEqual([
      true,
      false,
      false,
      false,
      true,
    ]));
});

describe('beside its page', () => {
  const invoice = make(4),
    data = toReading(readEInvoice(bytes(ciiOf(invoice)))).reading;
  const page = {
    ...data,
    header: {
      ...data.header,
      grossTotal: { value: '1.00', mark: { page: 1, x: 1, y: 1, w: 1, h: 1 }, confidence: 0.99, proof: null },
      invoiceNumber: {
        value: ` ${invoice.number.toLowerCase()} `,
        mark: { page: 1, x: 2, y: 2, w: 2, h: 2 },
        confidence: 0.9,
        proof: null,
      },
      dueDate: null,
    },
  };
  it('says both values where they differ, and nothing where the page says nothing', () =>
    expect(compare(data, page)).toEqual([
      {
        field: 'grossTotal',
        data: invoice.gross,
        page: '1.00',
        sentence: `The total is ${invoice.gross} in the e-invoice’s data, but 1.00 on its page.`,
      },
    ]));
  it('what the page reads unsurely is no difference', () =>
    expect(compare(data, { ...page, header: { ...page.header, grossTotal: { ...page.header.grossTotal, confidence: 0.4 } } })).toEqual([]));
  it('takes marks only where both say the same', () => {
    const marked = withMarks(data, page);
    expect([marked.header.invoiceNumber?.mark, marked.header.grossTotal?.mark]).toEqual([{ page: 1, x: 2, y: 2, w: 2, h: 2 }, null]);
  });
});

describe('as a page', () => {
  it('marks every value where it is written, on paper', () =>
    fc.assert(
      fc.property(anyInvoice, (invoice) => {
        const e = readEInvoice(bytes(ublOf(invoice)));
        const { pages, reading } = render(e, toReading(e).reading);
        const under = (mark: { page: number; x: number; y: number; w: number; h: number }) =>
          pages[mark.page - 1]!.words.filter(
            (w) => w.x >= mark.x - 0.1 && w.x + w.w <= mark.x + mark.w + 0.1 && w.y >= mark.y - 0.1 && w.y + w.h <= mark.y + mark.h + 0.1,
          )
            .map((w) => w.text)
            .join(' ');
        for (const name of ['invoiceNumber', 'issueDate', 'supplierName', 'netTotal', 'grossTotal'] as const)
          expect(under(reading.header[name]!.mark!)).toBe(reading.header[name]!.value);
        for (const line of reading.lines) expect(under(line.amount.mark!)).toBe(line.amount.value);
        for (const page of pages) for (const w of page.words) expect(w.y + w.h).toBeLessThan(842);
      }),
      { numRuns: 40 },
    ));
  it('says unit codes in words', () => expect(['H87', 'KGM', 'ZZ9'].map(unitWord)).toEqual(['pc', 'kg', 'ZZ9']));
});
