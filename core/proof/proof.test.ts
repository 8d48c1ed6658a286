import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { prove, type ProofBill, type ProofLine } from './index.ts';

const line = (over: Partial<ProofLine> = {}): ProofLine => ({
  id: 'a',
  kind: 'line',
  quantity: '12',
  unitPrice: '21.40',
  priceQuantity: '1',
  discountPercent: null,
  amount: '256.80',
  ...over,
});
const bill = (over: Partial<ProofBill> = {}): ProofBill => ({
  currency: 'GBP',
  net: '256.80',
  tax: '51.36',
  gross: '308.16',
  pricesIncludeTax: false,
  lines: [line()],
  ...over,
});

describe('the proof of a bill', () => {
  it('holds when lines, charges and tax make the total', () =>
    expect(
      prove(
        bill({
          lines: [line(), line({ id: 'b', kind: 'charge', quantity: null, unitPrice: null, amount: '45.00' })],
          net: '301.80',
          gross: '353.16',
        }),
      ).holds,
    ).toBe(true));
  it('names the difference', () => expect(prove(bill({ gross: '318.16' })).sentence).toBe('Off by 10.00: the lines make too little.'));
  it('offers the total that lines and their tax make, where their rates make the tax; else the tax', () => {
    const off = (taxRate: string | null) =>
      prove(bill({ gross: '318.16', lines: [line({ taxRate })] })).repairs.map((r) => [r.kind, r.value]);
    expect(off('20')).toEqual([['gross', '308.16']]);
    expect(off(null)[0]).toEqual(['tax', '61.36']);
    expect(off('5')[0]).toEqual(['tax', '61.36']);
  });
  it('offers the amount that quantity × price makes', () => {
    const proof = prove(bill({ lines: [line({ amount: '265.80' })] }));
    expect(proof.rows).toEqual({ a: false });
    expect(proof.repairs).toContainEqual(expect.objectContaining({ kind: 'row-product', line: 'a', value: '256.8' }));
  });
  it('reads a price for a hundred and a discount', () =>
    expect(
      prove(
        bill({
          lines: [line({ quantity: '1500', unitPrice: '14.50', priceQuantity: '100', discountPercent: '10', amount: '195.75' })],
          net: '195.75',
          tax: '0',
          gross: '195.75',
        }),
      ).rows,
    ).toEqual({ a: true }));
  it('takes prices that include tax as they are', () =>
    expect(prove(bill({ pricesIncludeTax: true, lines: [line({ quantity: null, amount: '308.16' })] })).holds).toBe(true));
  it('does not hold without lines or without a total', () =>
    expect([prove(bill({ lines: [] })).holds, prove(bill({ gross: null })).holds]).toEqual([false, false]));
  it('every repair that it offers, carried out, makes the sums nearer or right', () => {
    const off = fc
      .integer({ min: -500, max: 500 })
      .filter((n) => n !== 0)
      .map((n) => n / 100);
    fc.assert(
      fc.property(off, (gap) => {
        const broken = bill({ lines: [line({ amount: (256.8 + gap).toFixed(2) })] });
        for (const r of prove(broken).repairs) {
          if (r.kind !== 'row-product') continue;
          const mended = { ...broken, lines: broken.lines.map((l) => (l.id === r.line ? { ...l, amount: r.value } : l)) };
          expect(prove(mended).holds).toBe(true);
        }
      }),
    );
  });
});
