import { codingFields, type Coding } from '../bills/index.ts';
import { rateFits, type LineToCode, type Option, type RateCode, type Suggestions } from './suggest.ts';

/** The line of an order that a row bills, and how that line is coded. */
export interface Ordered {
  order: string;
  /** From 1. */ line: number;
  /** What speaks for it: "same code, same price". */ why: string;
  coding: Partial<Coding>;
}
/** As sure as a rule: it was said when it was ordered. */
const asOrdered = 0.995;

/** Suggestions with what was ordered before all else. A tax code that is not of the rate that the page states is left out. */
export function withOrdered(
  lines: readonly LineToCode[],
  suggestions: readonly Suggestions[],
  ordered: readonly (Ordered | null)[],
  codes: readonly RateCode[],
): Suggestions[] {
  return suggestions.map((suggested, i) => {
    const own = ordered[i];
    if (!own) return suggested;
    const now = { ...suggested };
    for (const field of codingFields) {
      const id = own.coding[field];
      if (!id || (field === 'taxCodeId' && !rateFits(id, lines[i]!.taxRate, codes))) continue;
      const first: Option = { id, share: asOrdered, why: `As ordered: ${own.order}, line ${own.line} (${own.why})`, laidDown: true };
      now[field] = [first, ...now[field].filter((o) => o.id !== id).map((o) => ({ ...o, share: o.share * (1 - asOrdered) }))];
    }
    return now;
  });
}
