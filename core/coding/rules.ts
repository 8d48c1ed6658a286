import { codingFields, type Coding } from '../bills/index.ts';
import { plainName } from '../matching/index.ts';
import { rateFits, type LineToCode, type Option, type RateCode, type Suggestions } from './suggest.ts';

/** How lines are coded that come from a supplier, or say something, or both: as somebody laid it down. */
export interface CodingRule {
  id: string;
  /** Null: from any. */ supplierId: string | null;
  /** What the line says: a beginning of words; several, with commas between, any of which is enough. Null: whatever it says. */
  words: string | null;
  /** What it codes; null is not its business. */ coding: Partial<Coding>;
}

/** As sure as anything is: somebody said so. */
export const ruled = 0.99;

const said = (text: string): string => ` ${plainName(text)}`;
/** The texts of which any is enough. */
export const alternatives = (words: string): string[] =>
  words
    .split(',')
    .map(plainName)
    .filter((w) => w !== '');

/** Whether a rule is about a line. A text is found where it begins a word: “electric” in “Electricity, May”. */
export function rules(
  rule: Pick<CodingRule, 'supplierId' | 'words'>,
  line: Pick<LineToCode, 'supplierId' | 'code' | 'description'>,
): boolean {
  if (rule.supplierId !== null && rule.supplierId !== line.supplierId) return false;
  if (rule.words === null) return rule.supplierId !== null;
  const text = said(`${line.description} ${line.code ?? ''}`);
  return alternatives(rule.words).some((words) => text.includes(` ${words}`));
}

/** The more a rule says of a line, the sooner it counts: supplier and text, text, supplier; of two alike the later. */
const weight = (rule: CodingRule): number => (rule.words === null ? 0 : 2) + (rule.supplierId === null ? 0 : 1);

const whyOf = ({ supplierId, words }: CodingRule): string =>
  words === null ? 'By a rule for every line from this supplier' : `By a rule for “${words}”${supplierId ? ' from this supplier' : ''}`;

/**
 * Suggestions with what rules say before all that was posted. `all`: the oldest first. A tax code that is not of the rate that the page
 * states is left out: the page knows better.
 */
export function withRules(
  lines: readonly LineToCode[],
  suggestions: readonly Suggestions[],
  all: readonly CodingRule[],
  codes: readonly RateCode[],
): Suggestions[] {
  if (all.length === 0) return [...suggestions];
  const ordered = [...all].reverse().sort((a, b) => weight(b) - weight(a));
  return suggestions.map((suggested, i) => {
    const line = lines[i]!,
      own = ordered.filter((rule) => rules(rule, line));
    if (own.length === 0) return suggested;
    const now = { ...suggested };
    for (const field of codingFields) {
      const rule = own.find(({ coding }) => coding[field] && (field !== 'taxCodeId' || rateFits(coding[field], line.taxRate, codes)));
      if (!rule) continue;
      const first: Option = { id: rule.coding[field]!, share: ruled, why: whyOf(rule), laidDown: true };
      now[field] = [first, ...now[field].filter((o) => o.id !== first.id).map((o) => ({ ...o, share: o.share * (1 - ruled) }))];
    }
    return now;
  });
}
