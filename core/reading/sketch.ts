import type { ReadLine } from './types.ts';

/** A line as it was read that has an amount and what a test gives it, and nothing else; for tests. */
export const sketchLine = (
  amount: string,
  given: { code?: string | null; taxRate?: string | null; confidence?: number } = {},
): ReadLine => {
  const read = (value: string | null | undefined) =>
    value === null || value === undefined ? null : { value, mark: null, confidence: given.confidence ?? 1, proof: null };
  return {
    code: read(given.code),
    description: null,
    quantity: null,
    unit: null,
    unitPrice: null,
    priceQuantity: null,
    discountPercent: null,
    taxRate: read(given.taxRate),
    amount: read(amount)!,
    further: [],
  };
};
