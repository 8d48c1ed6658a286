import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dec } from '@ledgerline/core/money';
import { readDocument } from '@ledgerline/core/reading';
import { pagesOfPdf } from '@ledgerline/server/reading/pdf';
import { makeInvoice } from './invoice.ts';
import { seeded } from './random.ts';
import { suppliers } from './suppliers.ts';
import { layouts } from './layouts.ts';
import { makePdf } from './maker.ts';

const read = async (bytes: Uint8Array) => readDocument(await pagesOfPdf(bytes));

describe('what the document maker prints is what is read', () => {
  it.each(suppliers.map((s, i) => [s.name, i] as const))('%s', async (_, index) => {
    const supplier = suppliers[index]!;
    const invoice = makeInvoice(supplier, seeded(index * 31 + 7), {
      number: `T-${2000 + index}`,
      issueDate: '2026-11-16',
      charge: index % 2 === 0,
    });
    const r = await read(await makePdf(invoice));
    const said = Object.fromEntries(Object.entries(r.header).map(([k, v]) => [k, v?.value ?? null]));
    expect(said).toMatchObject({
      supplierName: supplier.name,
      invoiceNumber: invoice.number,
      issueDate: invoice.issueDate,
      dueDate: invoice.dueDate,
      currency: invoice.currency,
      purchaseOrder: invoice.purchaseOrder,
      netTotal: invoice.net,
      taxTotal: invoice.tax,
      grossTotal: invoice.gross,
    });
    expect(r.lines.map((l) => [l.quantity?.value, l.unitPrice?.value, l.amount.value])).toEqual(
      invoice.lines.map((l) => [l.quantity, l.price, l.amount]),
    );
    expect(r.charges.map((c) => c.amount.value)).toEqual(invoice.charge ? [invoice.charge.amount] : []);
  });
  it('in every layout, with any number of lines over several pages', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.integer({ min: 0, max: 14 }),
        fc.integer({ min: 0, max: layouts.length - 1 }),
        fc.integer({ min: 1, max: 60 }),
        fc.integer(),
        async (index, layout, count, seed) => {
          const invoice = makeInvoice({ ...suppliers[index === 3 ? 0 : index]!, layout }, seeded(seed), {
            number: 'T-77',
            issueDate: '2026-11-16',
            lines: count,
          });
          const r = await read(await makePdf(invoice));
          expect(r.header.grossTotal?.value).toBe(invoice.gross);
          expect(r.lines.map((l) => l.amount.value)).toEqual(invoice.lines.map((l) => l.amount));
        },
      ),
      { numRuns: 25, seed: 42 },
    );
  });
  it('a credit note is told from an invoice', async () => {
    const r = await read(
      await makePdf(makeInvoice(suppliers[1]!, seeded(3), { number: 'CN-5', issueDate: '2026-11-16', kind: 'credit-note' })),
    );
    expect([r.kind, r.header.invoiceNumber?.value, r.header.dueDate]).toEqual(['credit-note', 'CN-5', null]);
  });
  it('a printed total that is wrong is read as printed and flagged', async () => {
    const invoice = makeInvoice(suppliers[0]!, seeded(4), { number: 'T-9', issueDate: '2026-11-16' });
    const wrong = dec(invoice.gross).plus(9).toFixed(2);
    const r = await read(await makePdf({ ...invoice, gross: wrong }));
    expect(r.header.grossTotal?.value).toBe(wrong);
    expect(r.flags).toContain('grossTotal');
  });
  it('marks lie on the words that they were read from', async () => {
    const invoice = makeInvoice(suppliers[2]!, seeded(5), { number: 'T-10', issueDate: '2026-11-16' });
    const pages = await pagesOfPdf(await makePdf(invoice));
    const mark = readDocument(pages).header.invoiceNumber!.mark!;
    expect(pages[0]!.words.find((w) => w.x === mark.x && w.y === mark.y)?.text).toBe('T-10');
  });
});
