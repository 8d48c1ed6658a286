import { grouped } from '../money/index.ts';
import type { Check } from './types.ts';

/** A value as a button shows it: figures with their thousands parted, anything else as it is. */
const shown = (field: string, text: string): string => (field.endsWith('Total') ? grouped(text) : text);

export const documentChecks: Check[] = [
  {
    code: 'company-differs',
    scope: 'document',
    needs: ['addressedTo'],
    severity: 'asks',
    adjustable: true,
    settledBy: ['confirm'],
    what: 'The page is addressed to this company',
    run: (_, { addressedTo }) =>
      addressedTo
        ? [{ path: 'supplierId', sentence: `The page is addressed to ${addressedTo}.`, key: addressedTo, found: addressedTo }]
        : [],
  },
  {
    code: 'document-awaited',
    scope: 'document',
    needs: ['awaits'],
    severity: 'stops',
    adjustable: true,
    settledBy: ['confirm'],
    what: 'The document of a bill that repeats is there',
    run: (_, { awaits }) =>
      awaits && !awaits.missed
        ? [
            {
              path: 'invoiceNumber',
              sentence: `Waits for its document, expected by ${awaits.by}. It joins by itself; or confirm to go on without.`,
            },
          ]
        : [],
  },
  {
    code: 'document-missed',
    scope: 'document',
    needs: ['awaits'],
    severity: 'stops',
    adjustable: true,
    settledBy: ['confirm'],
    what: 'The document of a bill that repeats has come in time',
    run: (_, { awaits }) =>
      awaits?.missed
        ? [
            {
              path: 'invoiceNumber',
              sentence: `Its document was expected by ${awaits.by} and has not come. Ask for it; or confirm to go on without.`,
            },
          ]
        : [],
  },
  {
    code: 'data-differs',
    scope: 'document',
    needs: ['differences'],
    severity: 'stops',
    adjustable: false,
    settledBy: ['choose', 'confirm'],
    what: 'An e-invoice’s data and its page say the same',
    run: (_, { differences }) =>
      differences.map((d) => ({
        path: d.path,
        sentence: d.sentence,
        key: d.field,
        found: shown(d.field, d.page),
        expected: shown(d.field, d.data),
        choices: d.choosable
          ? [
              { take: 'data' as const, label: `Data: ${shown(d.field, d.data)}`, value: d.data },
              { take: 'page' as const, label: `Page: ${shown(d.field, d.page)}`, value: d.page },
            ]
          : [],
      })),
  },
  {
    code: 'e-invoice-rule',
    scope: 'document',
    needs: ['broken'],
    severity: 'asks',
    adjustable: true,
    settledBy: ['confirm'],
    what: 'An e-invoice keeps the rules of its standard',
    run: (_, { broken }) =>
      broken.map((b) => ({ path: b.path, sentence: `The e-invoice breaks rule ${b.rule}: ${b.sentence}`, key: b.rule })),
  },
  {
    code: 'unsure',
    scope: 'document',
    needs: [],
    severity: 'asks',
    adjustable: true,
    settledBy: [],
    what: 'The reader is sure of every value',
    // A doubt whose row is gone has nowhere to be looked at.
    run: ({ unsure, lines }) =>
      unsure
        .filter((path) => !path.includes('.') || lines.some((l) => path.startsWith(`${l.id}.`)))
        .map((path) => ({ path, sentence: 'The reader is not sure of this. Look at the page.' })),
  },
];
