import { union, type Mark, type Word } from '../page/index.ts';
import type { LabelledRow, Layout } from './layout.ts';
import { currencyCodes, currencySigns } from '../numbers/index.ts';
import type { Read } from './types.ts';

const code = new RegExp(`(?<![A-Z])(${currencyCodes.join('|')})(?![A-Z])`);
const spelled: [RegExp, string][] = [
  [/^sterling[.,]?$/i, 'GBP'],
  [/^dollars?[.,]?$/i, 'USD'],
  [/^euros?[.,]?$/i, 'EUR'],
  [/^yen[.,]?$/i, 'JPY'],
  [/^kronor[.,]?$/i, 'SEK'],
  [/^franken[.,]?$/i, 'CHF'],
];
const ofCountry: Record<string, string> = {
  GB: 'GBP',
  SE: 'SEK',
  CH: 'CHF',
  DK: 'DKK',
  NO: 'NOK',
  PL: 'PLN',
  CZ: 'CZK',
  NL: 'EUR',
  DE: 'EUR',
  FR: 'EUR',
  BE: 'EUR',
  ES: 'EUR',
  IT: 'EUR',
  IE: 'EUR',
  AT: 'EUR',
  LU: 'EUR',
  FI: 'EUR',
  PT: 'EUR',
  IN: 'INR',
  AU: 'AUD',
};

/** Signs that several countries share: whose it is, by the supplier's numbers and by what only that country prints. */
const sharedBy: Record<string, [currency: string, country: RegExp, words: RegExp][]> = {
  kr: [
    ['NOK', /^NO/, /\bMVA\b|\bNorge\b|\bNorway\b|\bForetaksregisteret\b|norske kroner/],
    ['DKK', /^DK/, /\bCVR\b|\bDanmark\b|\bDenmark\b|danske kroner/],
  ],
  $: [
    ['AUD', /^AU/, /\bABN\b|\bAustralia\b/],
    ['NZD', /^NZ/, /\bNZBN\b|\bNew Zealand\b/],
    ['CAD', /^CA|RT\d{4}$/, /\bHST\b|\b\d{9} ?RT ?\d{4}\b|, Canada\b/],
  ],
};
function shared(sign: string, text: string, ids: (Read | null)[]): string | null {
  const own = sharedBy[sign.replace('.', '')] ?? [];
  return (own.find(([, country, words]) => ids.some((id) => id && country.test(id.value)) || words.test(text)) ?? [null])[0];
}

/**
 * The currency: an ISO code, a sign beside amounts, a word; where nothing of these is printed, the supplier's country by tax number
 * or bank account.
 */
export function readCurrency(layout: Layout, supplierIds: (Read | null)[]): Read | null {
  const votes = new Map<string, { score: number; mark: Mark }>();
  const vote = (value: string, score: number, row: LabelledRow, word: Word) => {
    const old = votes.get(value);
    votes.set(value, { score: (old?.score ?? 0) + score, mark: old?.mark ?? { page: row.page, ...union([word]) } });
  };
  for (const row of layout.rows)
    for (const word of row.words) {
      const iso = code.exec(word.text)?.[1];
      if (iso) vote(iso, 3, row, word);
      const sign = /[£€¥円₹]|\$/.exec(word.text)?.[0] ?? (/^(kr\.?|SFr|Fr\.|zł|Kč)$/.test(word.text) ? word.text : undefined);
      if (sign) vote(shared(sign, layout.text, supplierIds) ?? currencySigns[sign]!, 1, row, word);
      const name = spelled.find(([test]) => test.test(word.text))?.[1];
      if (name) vote(name, 2, row, word);
    }
  const [first, second] = [...votes].sort((a, b) => b[1].score - a[1].score);
  if (first)
    return { value: first[0], mark: first[1].mark, confidence: (second?.[1].score ?? 0) * 2 > first[1].score ? 0.7 : 0.98, proof: null };
  for (const id of supplierIds) {
    const home = id && ofCountry[id.value.slice(0, 2)];
    if (home) return { value: home, mark: id.mark, confidence: 0.8, proof: null };
  }
  if (/\bVAT\b/.test(layout.text) && /\b[A-Z]{1,2}\d{1,2}[A-Z]? \d[A-Z]{2}\b/.test(layout.text))
    return { value: 'GBP', mark: null, confidence: 0.8, proof: null };
  return null;
}
