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
  private readonly hits = new Map<string, number>();

  constructor(layout: Layout) {
    for (const row of layout.rows)
      for (const label of row.fields)
        for (const c of candidatesOf(layout, row, label)) {
          const key = `${row.page} ${c.words[0]!.x} ${c.words[0]!.y} ${label.role}`;
          this.hits.set(key, Math.max(this.hits.get(key) ?? 0, c.geometry * (label.weak ? 0.6 : 1)));
        }
  }

  add(f: Features, page: number, { word }: Token): void {
    for (const role of known) {
      const geometry = this.hits.get(`${page} ${word.x} ${word.y} ${role}`);
      if (geometry) f.add(`label ${role}`, geometry);
    }
  }
}
