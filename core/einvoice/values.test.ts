import fc from 'fast-check';
import { expect, it } from 'vitest';
import { isIsoDate } from '@ledgerline/core/dates';
import { ciiOf, ublOf } from '@ledgerline/documents/einvoice';
import { makeInvoice } from '@ledgerline/documents/invoice';
import { seeded } from '@ledgerline/documents/random';
import { suppliers } from '@ledgerline/documents/suppliers';
import { readEInvoice, toReading } from './index.ts';

/** Data that is well-formed and says what no bill can hold: it is left out, so that its field asks a person. */
const invoice = makeInvoice(suppliers[0]!, seeded(3), { number: 'V-1', issueDate: '2026-11-10', lines: 2 });
const syntaxes = { UBL: ublOf(invoice), CII: ciiOf(invoice) };
const readingOf = (xml: string) => toReading(readEInvoice(new TextEncoder().encode(xml))).reading;
const odd = fc.constantFrom(
  '0-11-16',
  '99999999999-11-16',
  '2026-02-31',
  '20260231',
  '2026-11',
  '-1',
  'NaN',
  'Infinity',
  '1e400',
  '0x10',
  '1,5',
  '½',
  'EURO',
  'eu',
  '€',
  'x'.repeat(300),
  '٣',
  '1.2.3',
);

it.each(Object.entries(syntaxes))('%s: whatever stands in a field, what is read of it is what a bill can hold', (_, xml) => {
  const fields = [...xml.matchAll(/>([^<>\s][^<>]*)</g)].map((m) => m.index + 1);
  fc.assert(
    fc.property(fc.constantFrom(...fields), odd, (at, value) => {
      const end = xml.indexOf('<', at);
      const { header, lines, charges } = readingOf(xml.slice(0, at) + value + xml.slice(end));
      for (const day of [header.issueDate, header.dueDate]) if (day) expect(isIsoDate(day.value), day.value).toBe(true);
      if (header.currency) expect(header.currency.value).toMatch(/^[A-Z]{3}$/);
      const numbers = [header.netTotal, header.taxTotal, header.grossTotal, ...charges.map((c) => c.amount)];
      for (const l of lines) numbers.push(l.quantity, l.unitPrice, l.discountPercent, l.taxRate, l.amount);
      for (const number of numbers) if (number) expect(number.value).toMatch(/^-?\d+(\.\d+)?$/);
    }),
    { numRuns: 400 },
  );
});
it('a day may come with its zone (XML Schema, 3.2.9), and is the day that it says', () => {
  for (const zone of ['Z', '+01:00', '-11:00'])
    expect(readingOf(syntaxes.UBL.replace('2026-11-10</cbc:IssueDate>', `2026-11-10${zone}</cbc:IssueDate>`)).header.issueDate?.value).toBe(
      '2026-11-10',
    );
});
