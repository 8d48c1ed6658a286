import { codingOf } from '@ledgerline/core/bills';
import { addDays } from '@ledgerline/core/dates';
import type { Coding, LineSaid } from '@ledgerline/core/coding';
import { seeded } from '@ledgerline/documents/random';
import { goods, qualities } from './words.ts';

export interface PostedLine {
  id: string;
  line: LineSaid & { day: string };
  /** As it was posted. */ coding: Coding;
  /** As it should have been. */ right: Coding;
}
type Random = ReturnType<typeof seeded>;
const chance = (r: Random, share: number): boolean => r.next() < share;

interface Item {
  words: string;
  code: string | null;
  price: number;
  accountId: string;
  costCentreId: string;
  taxCodeId: string;
  /** In the second and third quarter it goes elsewhere. */ summer: string | null;
  /** From this amount on it is another account. */ large: { from: number; accountId: string } | null;
}
interface Firm {
  id: string;
  begins: string;
  every: number;
  items: Item[];
  /** From that day one of its items is coded otherwise. */ turns: {
    day: string;
    item: number;
    accountId: string;
    costCentreId: string;
  } | null;
}

/** What a company has in common: which trade a kind of goods belongs to, which account its goods are posted to. */
const taxes = ['S20', 'S20', 'S20', 'S20', 'R5', 'Z0'] as const;

function firm(r: Random, n: number, from: string, months: number): Firm {
  const accounts = Object.keys(goods);
  const own = Array.from({ length: r.int(1, 3) }, () => r.pick(accounts));
  const centres = Array.from({ length: 18 }, (_, i) => `c${i}`),
    home = r.pick(centres),
    by = r.next();
  const coded = chance(r, 0.5),
    tax = r.pick(taxes);
  const items = Array.from({ length: r.int(2, 12) }, (_, i): Item => {
    const accountId = r.pick(own);
    return {
      words: `${chance(r, 0.7) ? `${r.pick(qualities)} ` : ''}${r.pick(goods[accountId]!)}${chance(r, 0.3) ? ` ${r.pick(qualities)}` : ''}`,
      code: coded ? `${String.fromCharCode(65 + (n % 26))}-${r.int(100, 999)}${i}` : null,
      price: Math.exp(r.next() * 5 + 1),
      accountId,
      costCentreId: by < 0.6 ? home : by < 0.8 ? r.pick(centres) : centres[(accounts.indexOf(accountId) + n) % centres.length]!,
      taxCodeId: chance(r, 0.9) ? tax : r.pick(taxes),
      summer: chance(r, 0.04) ? r.pick(centres) : null,
      large: chance(r, 0.04) ? { from: 1500, accountId: 'a-assets' } : null,
    };
  });
  const day = (share: number) => addDays(from, Math.floor(share * months * 30.4));
  return {
    id: `s${n}`,
    begins: chance(r, 0.8) ? from : day(0.4 + 0.58 * r.next()),
    every: r.pick([7, 14, 30, 30, 30, 61, 91]),
    items,
    turns: chance(r, 0.15)
      ? { day: day(0.2 + 0.8 * r.next()), item: r.int(0, items.length - 1), accountId: r.pick(accounts), costCentreId: r.pick(centres) }
      : null,
  };
}

/** How suppliers write the same goods: sizes, months, an order of words, short forms. */
function written(r: Random, item: Item, day: string): string {
  let words = item.words.split(' ');
  if (chance(r, 0.15)) words = [...words].reverse();
  if (chance(r, 0.1)) words = words.map((w) => (w.length > 7 && chance(r, 0.5) ? `${w.slice(0, 5)}.` : w));
  const tail = r.pick(['', '', `${r.int(2, 90)} mm`, `${r.int(1, 50)} l`, `ref ${r.int(1000, 9999)}`, `to ${day.slice(0, 7)}`]);
  return `${words.join(' ')} ${tail}`.trim();
}

/** Other goods of the same firm, once: what every supplier bills now and then. */
const oneOff = (r: Random, of: Item): Item => ({
  ...of,
  code: null,
  words: `${r.pick(qualities)} ${r.pick(goods[of.accountId]!)}`,
  summer: null,
});

/**
 * Posted lines of a made-up company in order of their days: suppliers with their own goods and rhythms, new ones that come, codings that
 * turn from a day on, by season and by size, one-off goods, and people who now and then code otherwise (`noise`, a share).
 */
export function company(seed: number, { suppliers = 200, months = 24, noise = 0.015 } = {}): PostedLine[] {
  const r = seeded(seed * 7919 + 5),
    from = '2024-11-01',
    end = addDays(from, Math.floor(months * 30.4));
  const accounts = Object.keys(goods);
  const all: PostedLine[] = [];
  for (let n = 0; n < suppliers; n++) {
    const f = firm(r, n, from, months);
    for (
      let day = addDays(f.begins, r.int(0, f.every));
      day < end;
      day = addDays(day, Math.max(3, Math.round(f.every * (0.7 + r.next() * 0.6))))
    ) {
      for (let k = r.int(1, Math.min(6, f.items.length)); k > 0; k--) {
        const at = r.int(0, f.items.length - 1),
          usual = f.items[at]!,
          item = chance(r, 0.06) ? oneOff(r, usual) : usual;
        const amount = item.price * r.int(1, 20),
          turned = f.turns?.item === at && day >= f.turns.day ? f.turns : null,
          month = Number(day.slice(5, 7));
        const right: Coding = codingOf({
          accountId: item.large && amount >= item.large.from ? item.large.accountId : (turned?.accountId ?? item.accountId),
          costCentreId: item.summer && month >= 4 && month <= 9 ? item.summer : (turned?.costCentreId ?? item.costCentreId),
          taxCodeId: item.taxCodeId,
        });
        const coding = chance(r, noise) ? { ...right, accountId: r.pick(accounts) } : right;
        all.push({
          id: `l${all.length}`,
          line: { supplierId: f.id, code: item.code, description: written(r, item, day), amount: amount.toFixed(2), day },
          coding,
          right,
        });
      }
    }
  }
  return all.sort((a, b) => (a.line.day < b.line.day ? -1 : a.line.day > b.line.day ? 1 : 0));
}
