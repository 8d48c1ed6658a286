import { candidatesOf } from '../candidates.ts';
import type { Layout } from '../layout.ts';
import type { Features } from '../learned/features.ts';
import type { FieldLabel } from '../lexicon/index.ts';
import type { Token } from './tokens.ts';

const known: FieldLabel[] = [
  'invoiceNumber',
  'creditNumber',
  'purchaseOrder',
  'otherReference',
  'issueDate',
  'dueDate',
  'otherDate',
  'taxId',
  'buyerTaxId',
  'iban',
  'terms',
  'billTo',
  'deliverTo',
];

/** What the labels that we know say of the words of a document: how well each stands to a label of each kind, 0 to 1. */
export class Labelled {
  private readonly hits = new Map<string, Map<FieldLabel, number>>();

  constructor(layout: Layout) {
    for (const row of layout.rows)
      for (const label of row.fields)
        for (const c of candidatesOf(layout, row, label)) {
          const key = placeOf(row.page, c.words[0]!);
          const own = this.hits.get(key) ?? this.hits.set(key, new Map<FieldLabel, number>()).get(key)!;
          own.set(label.role, Math.max(own.get(label.role) ?? 0, c.geometry * (label.weak ? 0.6 : 1)));
        }
  }

  add(f: Features, page: number, { word }: Token): void {
    const own = this.hits.get(placeOf(page, word));
    if (!own) return;
    for (const role of known) {
      const geometry = own.get(role);
      if (geometry) f.add(`label ${role}`, geometry);
    }
  }
}

const placeOf = (page: number, { x, y }: { x: number; y: number }): string => `${page} ${x} ${y}`;
