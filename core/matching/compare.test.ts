import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dec } from '../money/index.ts';
import { compareWithOrder, within, type BilledRow, type OrderedLine, type Tolerances } from './compare.ts';

const none: Tolerances = { pricePercent: null, priceAmount: null, quantityPercent: null, quantityAmount: null, which: 'stricter' };
const line = (more: Partial<OrderedLine> = {}): OrderedLine => ({ id: '1', order: 'PO-1', place: 1, description: 'Pot', unit: 'pc', unitPrice: '0.22', ordered: '100', received: '100', billed: '0', ...more }); // prettier-ignore
const billed = (quantity: string, amount: string | null = null, row = 'a'): BilledRow => ({ row, line: '1', quantity, amount });
const one = (l: Partial<OrderedLine>, rows: BilledRow[], t: Partial<Tolerances> = {}) => compareWithOrder([line(l)], rows, { ...none, ...t })[0]!; // prettier-ignore

describe('a bill beside its order', () => {
  it('within it says nothing, and what becomes of the line', () => {
    expect(one({ billed: '30' }, [billed('40', '8.80')])).toMatchObject({ onBill: '40', price: '0.22', overOrdered: null, overReceived: null, overPrice: [], state: 'part-billed' }); // prettier-ignore
    expect(one({ billed: '60' }, [billed('40')]).state).toBe('billed');
    expect(compareWithOrder([line()], [], none)).toEqual([]);
  });
  it('says what is billed beyond what was ordered, and beyond what has come', () => {
    expect(one({ billed: '70', received: '90' }, [billed('40')])).toMatchObject({ overOrdered: '10', overReceived: '20', state: 'over-billed' }); // prettier-ignore
    expect(one({ received: null }, [billed('40')]).overReceived).toBeNull();
    expect(one({ received: '0' }, [billed('40')])).toMatchObject({ overOrdered: null, overReceived: '40' });
  });
  it('says what each row costs more, of one and as a whole; to the cent it is the same', () => {
    expect(one({}, [billed('40', '10.00'), billed('10', '2.20', 'b')]).overPrice).toEqual([{ row: 'a', each: '0.03', total: '1.2' }]);
    // 33 times 0.2214 is 7.3062, printed as 7.31.
    expect(one({ unitPrice: '0.2214' }, [billed('33', '7.31')]).overPrice).toEqual([]);
    expect(one({}, [billed('40', '8.00')])).toMatchObject({ overPrice: [], price: '0.2' });
  });
  it('lets what is within the tolerances: both, or one of them', () => {
    // 1.20 more on 8.80 is 13.6%.
    const rows = [billed('40', '10.00')];
    const over = (t: Partial<Tolerances>) => one({}, rows, t).overPrice.length;
    expect([over({ pricePercent: '15' }), over({ pricePercent: '10' }), over({ priceAmount: '1.20' }), over({ priceAmount: '1.19' })]).toEqual([0, 1, 0, 1]); // prettier-ignore
    expect(over({ pricePercent: '15', priceAmount: '1' })).toBe(1);
    expect(over({ pricePercent: '15', priceAmount: '1', which: 'looser' })).toBe(0);
    expect(one({}, [billed('103')], { quantityPercent: '3' }).overOrdered).toBeNull();
    expect(one({}, [billed('104')], { quantityPercent: '3' }).overOrdered).toBe('4');
  });
  it('a credit note takes back what was billed, and says where it takes more', () => {
    expect(one({ billed: '40' }, [billed('-40', '-8.80')])).toMatchObject({ overOrdered: null, overPrice: [], state: 'open' });
    expect(one({ billed: '30' }, [billed('-40')]).overOrdered).toBe('-10');
  });
  it('a looser rule never says more than a stricter one, and no difference is ever said', () => {
    const limit = fc.option(fc.integer({ min: 0, max: 20 }).map(String), { nil: null });
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 50 }), fc.integer({ min: 0, max: 100 }), limit, limit, (by, of, percent, amount) => {
        const lets = (which: Tolerances['which']) => within(dec(by), dec(of), percent, amount, which);
        if (lets('stricter')) expect(lets('looser')).toBe(true);
        expect(within(dec(0), dec(of), percent, amount, 'stricter')).toBe(true);
      }),
    );
  });
  it('however an order is billed in parts: what goes beyond it is said at the part that does', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 1, max: 60 }), { minLength: 1, maxLength: 8 }), (parts) => {
        let before = 0;
        for (const part of parts) {
          const { overOrdered } = one({ billed: String(before) }, [billed(String(part))]);
          expect(overOrdered).toBe(before + part > 100 ? String(before + part - 100) : null);
          before += part;
        }
      }),
    );
  });
});
