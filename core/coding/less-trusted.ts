import { codingFields, type Coding } from '../bills/index.ts';
import { plainName } from '../matching/index.ts';
import { rules } from './rules.ts';
import { rateFits, type LineToCode, type Option, type RateCode, type Suggestions } from './suggest.ts';

/** What a company buys again and again, and how it is coded. */
export interface Item {
  code: string;
  name: string;
  /** Its name, and what suppliers call it, as a rule's words: any is enough. */ words: string;
  /** Null is not its business. */ coding: Partial<Coding>;
}

/** What is laid down for want of anything better is as sure as a supplier's usual coding. */
const laidDown = 0.96;
/** From this share on, what was posted is trusted more. */
const trusted = 0.5;

/** One option more: before what is only guessed, behind what is trusted, and surer where both say the same. */
function withOption(options: readonly Option[], id: string, why: string): Option[] {
  const [first] = options;
  if (first?.id === id) return [{ ...first, share: Math.max(first.share, laidDown) }, ...options.slice(1)];
  const own: Option = { id, share: laidDown, why };
  if (!first || first.share < trusted)
    return [own, ...options.filter((o) => o.id !== id).map((o) => ({ ...o, share: o.share * (1 - laidDown) }))];
  return options.some((o) => o.id === id) ? [...options] : [...options, { ...own, share: Math.min(1 - first.share, trusted) }];
}

function withCoding(suggested: Suggestions, coding: Partial<Coding>, why: string, stated: string | null, codes: readonly RateCode[]) {
  const now = { ...suggested };
  for (const field of codingFields) {
    const id = coding[field];
    if (id && (field !== 'taxCodeId' || rateFits(id, stated, codes))) now[field] = withOption(now[field], id, why);
  }
  return now;
}

/** Fewer letters of a code may be anything in a text. */
const tellingCode = 3;

/** What a line says of itself. */
type Said = Pick<LineToCode, 'supplierId' | 'code' | 'description'>;

/** Whether a line is an item: it has its code, or says it, or one of its names. */
function isItem(line: Said, { code, words }: Pick<Item, 'code' | 'words'>): boolean {
  const plain = plainName(code);
  if (plain !== '' && line.code !== null && plainName(line.code) === plain) return true;
  if (plain.length >= tellingCode && ` ${plainName(line.description)} `.includes(` ${plain} `)) return true;
  return rules({ supplierId: null, words }, line);
}

/** The item that a line is: of several the one whose name says most. */
export function itemOf<I extends Pick<Item, 'code' | 'name' | 'words'>>(line: Said, items: readonly I[]): I | undefined {
  return items.reduce<I | undefined>(
    (best, item) => (isItem(line, item) && item.name.length > (best?.name.length ?? 0) ? item : best),
    undefined,
  );
}

/** Suggestions with how the items are coded that lines are: trusted less than posted lines, rules and the supplier's usual coding. */
export function withItems(
  lines: readonly LineToCode[],
  suggestions: readonly Suggestions[],
  items: readonly Item[],
  codes: readonly RateCode[],
): Suggestions[] {
  return suggestions.map((suggested, i) => {
    const line = lines[i]!,
      item = itemOf(line, items);
    return item ? withCoding(suggested, item.coding, `Usual for the item “${item.name}”`, line.taxRate, codes) : suggested;
  });
}

/** Suggestions with how the company codes what nothing else tells anything about: trusted least of all. */
export function withDefault(
  lines: readonly LineToCode[],
  suggestions: readonly Suggestions[],
  usual: Partial<Coding> | null,
  codes: readonly RateCode[],
): Suggestions[] {
  if (usual === null) return [...suggestions];
  return suggestions.map((suggested, i) => withCoding(suggested, usual, 'Usual in this company', lines[i]!.taxRate, codes));
}
