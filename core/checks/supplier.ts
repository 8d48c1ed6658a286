import { squash } from '../reading/identifiers.ts';
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
      return [{ path: 'supplierId', sentence, key: page }];
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
