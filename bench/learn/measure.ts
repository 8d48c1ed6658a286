import { toFormat } from '../../core/reading/format.ts';
import type { Reading } from '../../core/reading/index.ts';
import type { Steps } from '../../core/reading/learned/weights.ts';
import { pooled, type Judged } from './models.ts';
import type { Sample } from './samples.ts';
import { same, scored } from './score.ts';

/** Facts that rules find or sums decide: how sure they are is measured here. All others say it by what was learned of them. */
const facts = ['kind', 'supplier.iban', 'currency', 'netTotal', 'taxTotal', 'grossTotal'] as const;
/** Cells of lines that are read under headings. */
const cells = ['code', 'description', 'quantity', 'unitPrice', 'discountPercent', 'taxRate', 'amount'] as const;
export interface Measured extends Judged {
  /** A path of the reading format, "lines.amount" for the amount of any line. */ field: string;
}

const at = (object: object, path: string): string | null =>
  (path.split('.').reduce<unknown>((value, key) => (value as Record<string, unknown> | null)?.[key], object) ?? null) as string | null;

/** Where lines stand and what they say: two ways to read them that come to the same have the same. */
const key = ({ lines }: Reading): string =>
  JSON.stringify(lines.map((l) => [l.amount.mark, ...cells.map((cell) => l[cell]?.value ?? null)]));

/**
 * Of each value that rules found, as they score it (`reading`, read raw), whether it is right. What is no invoice has its kind alone.
 * Lines count where they are what is said in the end (`chosen`): others are never shown.
 */
export function measured(sample: Sample, reading: Reading, chosen: Reading): Measured[] {
  const { truth, ignore } = sample;
  const said = (toFormat('', [reading]) as { documents: [{ confidence: Record<string, number> }] }).documents[0];
  const head = facts.flatMap((field) => {
    const value = at(said, field);
    if (value === null || ignore.includes(field) || (truth.kind === 'other' && field !== 'kind')) return [];
    const share = field === 'kind' ? reading.kindConfidence : said.confidence[field]!;
    return [{ field, share, right: same(field, at(truth, field), value) }];
  });
  if (truth.kind === 'other' || key(reading) !== key(chosen)) return head;
  const wrong = new Set(scored(sample, reading).faults.map((f) => f.path));
  return [
    ...head,
    ...reading.lines.flatMap((line, j) =>
      cells.flatMap((cell) => {
        const read = line[cell];
        return read
          ? [{ field: `lines.${cell}`, share: read.confidence, right: !wrong.has(`lines[${j}]`) && !wrong.has(`lines[${j}].${cell}`) }]
          : [];
      }),
    ),
  ];
}

/** By field: the rules' score up to which, and the share of such values that was right. */
export const shares = (all: readonly Measured[]): Record<string, Steps> =>
  Object.fromEntries([...facts, ...cells.map((c) => `lines.${c}`)].map((field) => [field, pooled(all.filter((m) => m.field === field))]));
