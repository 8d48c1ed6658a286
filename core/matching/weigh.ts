import { referenceKey, squash } from '../reading/identifiers.ts';
import { headerPaths, sure, type HeaderField, type Read, type Reading } from '../reading/index.ts';
import { bareTaxId, plainName, type KnownSupplier } from './supplier.ts';

/** What is known of a document beside its pages. */
export interface Beside {
  suppliers: readonly KnownSupplier[];
  /** The one that its traces name. */ sender: KnownSupplier | null;
  /** Numbers of the sender's earlier bills of this kind. */ numbers?: readonly string[];
  /** The file's name: people give it the number of the invoice. */ fileName?: string | null;
}

/** How much more likely a candidate is that a known fact speaks for: by the share of right and of wrong ones that have it, set by hand. */
const weighs = { name: 50, taxId: 50, shape: 10, fileName: 8 };

type Candidate = NonNullable<Read['rivals']>[number];
const candidates = (read: Read | null): Candidate[] =>
  read ? [{ value: read.value, mark: read.mark, confidence: read.confidence }, ...(read.rivals ?? [])] : [];

/**
 * The value and what else it might be, each as likely as it was and as much more as what is known speaks for it (Bayes' rule, with the
 * likelihood ratio `weight`). What a sum or a proof tells stays.
 */
function weighed(read: Read | null, speaksFor: (value: string) => number, why: string): Read | null {
  if (!read || read.proof) return read;
  const all = candidates(read),
    weights = all.map((c) => speaksFor(c.value));
  if (weights.every((w) => w === 1)) return read;
  const nothing = Math.max(0, 1 - all.reduce((sum, c) => sum + c.confidence, 0));
  const scores = all.map((c, i) => c.confidence * weights[i]!);
  const whole = nothing + scores.reduce((a, b) => a + b, 0);
  const best = scores.indexOf(Math.max(...scores));
  const now = (i: number): Candidate => ({ ...all[i]!, confidence: Math.min(0.99, scores[i]! / whole) });
  return {
    ...read,
    ...now(best),
    why: weights[best]! > 1 ? [why, ...(best === 0 ? (read.why ?? []) : [])] : (read.why ?? []),
    rivals: all
      .map((_, i) => now(i))
      .filter((_, i) => i !== best)
      .sort((a, b) => b.confidence - a.confidence),
  };
}

/** How a number looks: its letters and signs as they are, its digits by how many there are. */
const shapeOf = (number: string): string => referenceKey(number).replace(/\d/g, '9');

/** The shape that nearly all of a supplier's earlier numbers have, where there are enough to say so. */
function usualShape(numbers: readonly string[]): string | null {
  const times = new Map<string, number>();
  for (const n of numbers) times.set(shapeOf(n), (times.get(shapeOf(n)) ?? 0) + 1);
  const [shape, most] = [...times].sort((a, b) => b[1] - a[1])[0] ?? ['', 0];
  return numbers.length >= 3 && most >= 0.8 * numbers.length ? shape : null;
}

/**
 * A reading weighed with what is known beside the page: the names, tax numbers and accounts of suppliers, how their earlier numbers look,
 * and the name of the file. It chooses among what the page shows and invents nothing.
 */
export function weighKnown(reading: Reading, { suppliers, sender, numbers = [], fileName }: Beside): Reading {
  if (reading.kind === 'other') return reading;
  const { header } = reading;
  const names = new Set((sender ? [sender] : suppliers).map((s) => plainName(s.name)));
  const buyer = header.buyerName && plainName(header.buyerName.value);
  const supplierName = weighed(
    header.supplierName,
    (v) => (plainName(v) !== buyer && names.has(plainName(v)) ? weighs.name : 1),
    'a supplier that is known',
  );
  const shape = usualShape(numbers);
  const file = squash((fileName ?? '').replace(/\.\w{2,4}$/, ''));
  const order = header.purchaseOrder && referenceKey(header.purchaseOrder.value);
  const invoiceNumber = weighed(
    header.invoiceNumber,
    (v) =>
      referenceKey(v) === order
        ? 1
        : (shape && shapeOf(v) === shape ? weighs.shape : 1) * (squash(v).length >= 4 && file.includes(squash(v)) ? weighs.fileName : 1),
    shape ? 'like the numbers before it' : 'in the name of the file',
  );
  const supplierTaxId = weighed(
    header.supplierTaxId,
    (v) => (sender?.taxId && bareTaxId(v) === bareTaxId(sender.taxId) ? weighs.taxId : 1),
    'tax number that is known',
  );
  const weighedNow: Partial<Record<HeaderField, Read | null>> = { supplierName, invoiceNumber, supplierTaxId };
  const flags = new Set(reading.flags);
  for (const [field, read] of Object.entries(weighedNow) as [HeaderField, Read | null][])
    if (read && read !== header[field]) flags[read.confidence < sure ? 'add' : 'delete'](headerPaths[field]);
  return { ...reading, header: { ...header, ...weighedNow }, flags: [...flags] };
}
