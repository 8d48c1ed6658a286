import type { GoodsRow } from '@ledgerline/contract';
import { shareTrouble, sharesOf, type Basis } from '@ledgerline/core/charges';
import { dec, fixed } from '@ledgerline/core/money';

/** What a charge is shared by, as people say it. */
export const basisNames: Record<Basis, string> = {
  value: 'By value',
  quantity: 'By quantity',
  weight: 'By weight',
  volume: 'By volume',
  equally: 'Equally',
  'by-hand': 'By hand',
};

/** Goods that bear a part of a charge, with what a person typed for them. */
export interface Chosen {
  goods: GoodsRow;
  typed: string | null;
}

/** What each of the chosen bears, by its id, and why it cannot be shared so: just as the server works it out. */
export function tried(
  amount: string | null,
  basis: Basis,
  chosen: readonly Chosen[],
  currency: string,
): { parts: ReadonlyMap<string, string>; trouble: string | null } {
  const sorted = [...chosen].sort((a, b) => (a.goods.id < b.goods.id ? -1 : 1));
  const over = sorted.map(({ goods, typed }) => ({ ...goods, amount: typed }));
  const parts = sharesOf(amount, basis, over, currency);
  return {
    parts: new Map(
      sorted.flatMap(({ goods, typed }, i): [string, string][] => {
        const part = parts?.[i] ?? (basis === 'by-hand' && typed !== null ? dec(typed) : null);
        return part === null ? [] : [[goods.id, fixed(part, currency)]];
      }),
    ),
    trouble: shareTrouble(amount, basis, over, currency),
  };
}
