import { applyOperation, parsePath, type Operation } from '@ledgerline/core/bills';
import { prove } from '@ledgerline/core/proof';
import type { Bill, Mark } from '@ledgerline/contract';
import type { ShownPage } from '../ui/page-view';
import { fillFrom } from './fill';
import type { Print } from './print';

/** Words that a value may be of, at most: "24 November 2026". */
const longest = 3;
/** So many are gone through. */
const most = 12;
const dates = ['issueDate', 'dueDate'];
const references = ['invoiceNumber', 'purchaseOrder', 'code'];
const figures = ['net', 'tax', 'gross', 'quantity', 'unitPrice', 'discountPercent', 'taxRate', 'amount'];
const sought: ReadonlySet<string> = new Set([...dates, ...references, ...figures]);

type Word = ShownPage['words'][number];
const union = (page: number, words: readonly Word[]): Mark => {
  const x = Math.min(...words.map((w) => w.x)),
    y = Math.min(...words.map((w) => w.y));
  return {
    page,
    x,
    y,
    w: Math.max(...words.map((w) => w.x + w.w)) - x,
    h: Math.max(...words.map((w) => w.y + w.h)) - y,
  };
};
/** Runs of neighbouring words on one line, the longer first. */
function* runs(page: ShownPage, upTo: number): Generator<{ text: string; mark: Mark }> {
  for (let n = upTo; n >= 1; n--)
    for (let i = 0; i + n <= page.words.length; i++) {
      const words = page.words.slice(i, i + n);
      const [first] = words;
      if (
        words.some(
          (w, k) =>
            k > 0 &&
            (Math.abs(w.y - first!.y) > first!.h || w.x < words[k - 1]!.x || w.x - words[k - 1]!.x - words[k - 1]!.w > 2 * first!.h),
        )
      )
        continue;
      yield { text: words.map((w) => w.text).join(' '), mark: union(page.number, words) };
    }
}

/** A number of a document has a digit, and is no amount, date or share of something. */
const isReference = (text: string): boolean =>
  /\d/.test(text) && /^[\p{L}\d][\p{L}\d/.-]{2,}$/u.test(text) && !/^\d{1,3}([.,]\d{3})*[.,]\d{2}$/.test(text);

/**
 * What else the field in hand could be, the likeliest first: what reading weighed beside the value, then as the pages have it what makes
 * the sums hold and what stands nearest to where the value was read. Each value once, none that stands there already.
 */
export function othersFor(bill: Bill, path: string, pages: readonly ShownPage[], print: Print): Operation[] {
  const at = parsePath(path);
  if (!at) return [];
  const field = 'field' in at ? at.field : at.cell;
  if (!sought.has(field)) return [];
  const own = 'field' in at ? bill : bill.lines.find((l) => l.id === at.line);
  const here = own?.marks[field]?.mark ?? null,
    now = own?.[field as keyof typeof own] ?? null;
  const reference = references.includes(field);
  const found = new Map<string, { operation: Operation; holds: boolean; far: number }>();
  for (const page of pages)
    for (const { text, mark } of runs(page, dates.includes(field) ? longest : 1)) {
      if (reference && !isReference(text)) continue;
      const operation = fillFrom(bill, path, text, mark, print, true);
      if (!operation || !('value' in operation) || operation.value === now || operation.value === null) continue;
      const value = String(operation.value);
      if (now !== null && Number(value) === Number(now)) continue;
      const far = here && here.page === page.number ? Math.hypot(mark.x - here.x, 3 * (mark.y - here.y)) : 1e6 + page.number * 1e4 + mark.y;
      const known = found.get(value);
      if (known && known.far <= far) continue;
      found.set(value, { operation, holds: known?.holds ?? prove(applyOperation(bill, operation).bill).holds, far });
    }
  const weighed = 'field' in at ? rivalsOf(bill, at.field, now) : [];
  const known = new Set(weighed.map((o) => ('value' in o ? String(o.value) : '')));
  const printed = [...found.entries()].flatMap(([value, f]) => (known.has(value) ? [] : [f]));
  const rest = printed.sort((a, b) => Number(b.holds) - Number(a.holds) || a.far - b.far).map((f) => f.operation);
  return [...weighed, ...rest].slice(0, most);
}

/** What reading weighed beside a value of the head: numbers and days. */
function rivalsOf(bill: Bill, field: string, now: unknown): Operation[] {
  if (![...dates, 'invoiceNumber', 'purchaseOrder'].includes(field)) return [];
  return (bill.marks[field]?.rivals ?? []).flatMap(({ value, mark }): Operation[] =>
    value === now ? [] : [{ do: 'set', field, value, ...(mark ? { mark } : {}) } as Operation],
  );
}
