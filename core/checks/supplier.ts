import { squash } from '../reading/identifiers.ts';
import { dayInWords } from '../dates/index.ts';
import type { Check } from './types.ts';

/** An IBAN in groups of four, as it is printed. */
export const spacedIban = (iban: string): string => squash(iban).replace(/(.{4})(?=.)/g, '$1 ');

export const supplierChecks: Check[] = [
  {
    code: 'duplicate',
    scope: 'supplier',
    needs: ['duplicate'],
    severity: 'stops',
    adjustable: false,
    settledBy: [],
    what: 'A supplier’s invoice number is used once',
    run: (bill, { duplicate }) =>
      duplicate && bill.invoiceNumber
        ? [{ path: 'invoiceNumber', sentence: `Number ${bill.invoiceNumber} from this supplier is already on ${duplicate}.` }]
        : [],
  },
  {
    code: 'duplicate-alike',
    scope: 'supplier',
    needs: ['alike', 'duplicate'],
    severity: 'stops',
    adjustable: true,
    settledBy: ['overrule'],
    what: 'No other bill of the supplier has a number alike and the same total',
    run: (bill, { alike, duplicate }) =>
      alike && !duplicate && bill.gross
        ? [
            {
              path: 'invoiceNumber',
              key: alike.id,
              other: alike.id,
              found: bill.invoiceNumber,
              expected: alike.number,
              sentence: `${alike.number} of this supplier (${alike.issueDate ? dayInWords(alike.issueDate) : 'no date'}) is this number ${alike.how}, with the same total.`,
            },
          ]
        : [],
  },
  {
    code: 'amount-elsewhere',
    scope: 'supplier',
    needs: ['elsewhere'],
    severity: 'asks',
    adjustable: true,
    settledBy: ['confirm'],
    what: 'No bill of another supplier or company has the same number, total and day',
    run: (_, { elsewhere: it }) =>
      it
        ? [
            {
              path: 'gross',
              key: `${it.id ?? it.company} ${it.number}`,
              other: it.id,
              sentence: it.company
                ? `${it.company} has ${it.number} of ${it.supplier} with the same total and date. Is it the same bill?`
                : `${it.number} of ${it.supplier} has the same total and date. Is it the same bill?`,
            },
          ]
        : [],
  },
  {
    code: 'same-paper',
    scope: 'document',
    needs: ['samePaper', 'alike', 'duplicate', 'elsewhere'],
    severity: 'asks',
    adjustable: true,
    settledBy: ['confirm'],
    what: 'No other bill came from the same paper',
    run: (_, { samePaper: it, alike, duplicate, elsewhere }) =>
      // Told already by its number.
      it && !duplicate && !alike && !elsewhere
        ? [
            {
              path: 'invoiceNumber',
              key: it.id ?? it.company ?? '',
              other: it.id,
              sentence: `The page says the same as that of ${it.number ?? 'a bill without a number'}${it.day ? ` of ${dayInWords(it.day)}` : ''}${it.company ? ` in ${it.company}` : ''}, in the same places. Is it the same paper?`,
            },
          ]
        : [],
  },
  {
    code: 'supplier-blocked',
    scope: 'supplier',
    needs: ['blocked'],
    severity: 'stops',
    adjustable: false,
    settledBy: ['overrule'],
    what: 'The supplier is not blocked',
    run: (_, { blocked }) =>
      blocked ? [{ path: 'supplierId', sentence: `${blocked.supplier} is blocked: ${blocked.because}.`, key: blocked.because }] : [],
  },
  {
    code: 'bank-differs',
    scope: 'supplier',
    needs: ['bank'],
    severity: 'stops',
    adjustable: false,
    settledBy: ['overrule'],
    what: 'The page asks for payment to the supplier’s verified bank account',
    run(bill, { bank }) {
      if (!bill.supplierIban || !bank) return [];
      const page = squash(bill.supplierIban);
      if (bank.verified.some((iban) => squash(iban) === page)) return [];
      const asked = `The page asks for payment to ${spacedIban(page)}`;
      const sentence = bank.waiting.some((iban) => squash(iban) === page)
        ? `${asked}, which a second person still has to verify for ${bank.supplier}.`
        : bank.verified.length > 0
          ? `${asked}; the verified account of ${bank.supplier} is ${bank.verified.map(spacedIban).join(' or ')}.`
          : `${asked}, and ${bank.supplier} has no verified bank account yet.`;
      return [
        { path: 'supplierId', sentence, key: page, found: spacedIban(page), expected: bank.verified.map(spacedIban).join(' or ') || null },
      ];
    },
  },
  {
    code: 'tax-number-shared',
    scope: 'supplier',
    needs: ['sameTaxId'],
    severity: 'asks',
    adjustable: true,
    settledBy: ['confirm'],
    what: 'No other supplier has the same tax number',
    run: (_, { sameTaxId }) =>
      sameTaxId ? [{ path: 'supplierId', sentence: `${sameTaxId} has the same tax number. Is it the same supplier?`, key: sameTaxId }] : [],
  },
  {
    code: 'bank-shared',
    scope: 'supplier',
    needs: ['sameIban'],
    severity: 'asks',
    adjustable: true,
    settledBy: ['confirm'],
    what: 'No other supplier has the same bank account',
    run: (_, { sameIban }) =>
      sameIban ? [{ path: 'supplierId', sentence: `${sameIban} has the same bank account. Is it the same supplier?`, key: sameIban }] : [],
  },
];
