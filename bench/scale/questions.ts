import type { seeded } from '@ledgerline/documents/random';

type Random = ReturnType<typeof seeded>;
/** What there is to ask for in the company that is measured. */
export interface Ground {
  company: string;
  bills: string[];
  suppliers: string[];
  accounts: string[];
  /** Suppliers with the most bills. */
  largest: string[];
}
export interface Question {
  name: string;
  path(random: Random): string;
}

const common = ['Ltd', 'Glass', 'Works', 'Oak', 'Supplies'],
  rare = ['Quillhaven', 'Zephyr', 'Mossgarth', 'Yarrow', 'Kestrel'],
  trades = ['Glass', 'soil', 'pa', 'timb'],
  nowhere = ['xylophone', 'qqqq', 'zzz9', 'no-such-thing'],
  short = ['ox', 'z', '7', 'wh', 'qz'];

/** What people ask of lists, places and bills, each kind under a name; words are drawn from those that are common, rare, short, or nowhere. */
export function questions({ company, bills, suppliers, accounts, largest }: Ground): Question[] {
  const q =
    (words: (random: Random) => string, more = '') =>
    (random: Random) =>
      `${company}/bills?limit=100${more}&q=${encodeURIComponent(words(random))}`;
  const digits = (random: Random) => String(200_000 + random.int(0, 999_999));
  return [
    { name: 'bills, newest', path: () => `${company}/bills?limit=100` },
    { name: 'bills by total', path: (r) => `${company}/bills?limit=100&sort=total&order=${r.pick(['asc', 'desc'])}` },
    { name: 'bills by due date', path: (r) => `${company}/bills?limit=100&sort=due&order=${r.pick(['asc', 'desc'])}` },
    ...['supplier', 'hands', 'number', 'discount', 'entry'].map((by) => ({
      name: `bills by ${by}`,
      path: (r: Random) => `${company}/bills?limit=100&sort=${by}&order=${r.pick(['asc', 'desc'])}`,
    })),
    { name: 'bills, word sorted by supplier', path: q((r) => r.pick([...rare, ...common]), '&sort=supplier&order=asc') },
    { name: 'choices, account', path: (r) => `${company}/choices?of=accounts&q=${r.pick([...trades, '7', '61', 'nowhere', '9999'])}` },
    { name: 'choices, supplier', path: (r) => `${company}/choices?of=suppliers&q=${r.pick([...rare, ...common, ...short])}` },
    { name: 'bills, common word', path: q((r) => r.pick(common)) },
    { name: 'bills, rare word', path: q((r) => r.pick(rare)) },
    { name: 'bills, word that is nowhere', path: q((r) => r.pick(nowhere)) },
    { name: 'bills, short word', path: q((r) => r.pick(short)) },
    { name: 'bills, number', path: q(digits) },
    { name: 'bills, part of a number', path: q((r) => digits(r).slice(1, 5)) },
    { name: 'bills, two words', path: q((r) => `${r.pick(rare)} ${r.pick(common)}`) },
    { name: 'bills, word sorted by total', path: q((r) => r.pick([...rare, ...common]), '&sort=total') },
    { name: 'bills, stage', path: q((r) => `stage:${r.pick(['read', 'coded', 'approved', 'posted', 'returned,read'])}`) },
    { name: 'bills, supplier', path: q((r) => `supplier:${r.pick([...rare, ...common])}`) },
    { name: 'bills, over', path: q((r) => `over:${r.pick(['500', '4900', '999999'])}`) },
    { name: 'bills, under', path: q((r) => `under:${r.pick(['700', '1'])}`) },
    { name: 'bills, due', path: q((r) => `due:${r.pick(['late', 'this-week', 'today', 'this-month'])}`) },
    { name: 'bills, kind', path: q(() => 'kind:credit') },
    { name: 'bills, currency', path: q((r) => `currency:${r.pick(['CHF', 'EUR', 'JPY'])}`) },
    { name: 'bills, exception', path: q((r) => `exception:${r.pick(['proof-off', 'duplicate'])}`) },
    { name: 'bills, filters and a word', path: q((r) => `stage:paid over:4000 ${r.pick(rare)} currency:EUR`) },
    { name: 'Today', path: () => `${company}/today` },
    { name: 'suppliers', path: () => `${company}/suppliers?limit=100` },
    { name: 'suppliers, word', path: (r) => `${company}/suppliers?limit=100&q=${r.pick([...rare, ...common, ...nowhere])}` },
    { name: 'a supplier', path: (r) => `${company}/suppliers/${r.pick([...suppliers, ...largest])}` },
    {
      name: 'a supplier’s items',
      path: (r) => `${company}/suppliers/${r.pick([...suppliers, ...largest])}/items?show=${r.pick(['open', 'settled', 'all'])}`,
    },
    { name: 'a bill', path: (r) => `${company}/bills/${r.pick(bills)}` },
    { name: 'bills of the same supplier', path: (r) => `${company}/bills/${r.pick(bills)}/with-supplier` },
    { name: 'entries', path: () => `${company}/entries?limit=100` },
    { name: 'entries, word', path: (r) => `${company}/entries?limit=100&q=${r.pick([...rare, ...common, ...nowhere])}` },
    { name: 'entries, number', path: (r) => `${company}/entries?limit=100&q=2025-${String(r.int(1, 90_000)).padStart(5, '0')}` },
    { name: 'entries of an account', path: (r) => `${company}/entries?limit=100&account=${r.pick(accounts)}` },
    { name: 'event log', path: () => `${company}/events?limit=100` },
    { name: 'periods', path: () => `${company}/periods` },
  ];
}
