import { addDays } from '@ledgerline/core/dates';
import { makeInvoice, type Invoice } from '@ledgerline/documents/invoice';
import { seeded } from '@ledgerline/documents/random';
import { iban, suppliers } from '@ledgerline/documents/suppliers';

/** The invoices of the demo's first documents: by mail (one message each list), by scan, added by hand, and in other shapes. */
export interface FirstInvoices {
  mails: Invoice[][];
  scans: Invoice[];
  uploaded: Invoice[];
  /** Of a supplier that nobody knows. */
  unknown: Invoice;
  /** One of the first again, with a zero more in its number; one from a new sender that asks for payment to a new account. */
  doubtful: Invoice[];
  shapes: { both: Invoice; page: Invoice; pile: Invoice[]; photo: Invoice; carried: Invoice; again: Invoice };
}
/** What the numbers of a supplier's invoices begin with. */
export const prefix = (name: string) => name.replace(/[^A-Z]/g, '').slice(0, 3);

/** The same for the same day: what was ordered is known before they come. */
export function firstInvoices(today: string): FirstInvoices {
  const random = seeded(4711);
  const at = (i: number, days: number, lines?: number, wish: Partial<Parameters<typeof makeInvoice>[2]> = {}) => {
    const supplier = suppliers[i]!;
    return makeInvoice(supplier, random, {
      number: `${prefix(supplier.name)}-${20400 + i * 7 + days}`,
      issueDate: addDays(today, -days),
      lines,
      ...wish,
    });
  };
  const mails: Invoice[][] = [
    [at(0, 3, 4, { charge: true })],
    [at(1, 3, 4)],
    [at(2, 2, 3)],
    [at(3, 2, 4, { charge: true })],
    [at(4, 2, 4), at(4, 1, 3)],
    [at(7, 2, 3)],
    [at(8, 2, 2)],
    [at(11, 1, 3)],
    [at(15, 1, 4)],
    [at(17, 1, 3)],
    [at(19, 1, 3)],
    [at(1, 1, 1, { kind: 'credit-note' })],
    [at(13, 1, 2)],
  ];
  const scans = [at(5, 2, 2), at(6, 2, 3), at(9, 1, 3), at(14, 1, 3), at(20, 1, 2)];
  const stranger = {
    ...suppliers[16]!,
    name: 'Pondside Sculpture Studio Ltd',
    domain: 'pondside.example',
    taxId: 'GB771204983',
    iban: '',
    layout: 3,
  };
  const unknown = makeInvoice(stranger, random, { number: 'PSS-118', issueDate: addDays(today, -1), lines: 2 });
  const uploaded = [at(10, 1, 3), at(12, 1, 3), at(16, 1, 2)];
  const named = (i: number, number: string, lines = 3) =>
    makeInvoice(suppliers[i]!, random, { number, issueDate: addDays(today, -1), lines });
  const shapes = {
    both: named(0, 'QGR-20611', 4),
    page: named(2, 'SIL-20733'),
    pile: [named(1, 'MGM-20740', 2), named(7, 'CHS-20741', 2), named(11, 'LSL-20742', 2)],
    photo: named(5, 'HRS-20750', 2),
    // The paper of what came as a file before: nobody knows its supplier, so that no number tells it.
    again: unknown,
    // By itself, so that what the others are does not change with it.
    carried: makeInvoice(suppliers[1]!, seeded(91), { number: 'MGM-20760', issueDate: addDays(today, -1), lines: 3, charge: true }),
  };
  const first = mails[1]![0]!,
    other = at(22, 1, 2);
  const doubtful = [
    { ...first, number: `${first.number}0` },
    { ...other, supplier: { ...other.supplier, domain: `billing-${other.supplier.domain}`, iban: iban(other.supplier.country, 77) } },
  ];
  return { mails, scans, uploaded, unknown, doubtful, shapes };
}
