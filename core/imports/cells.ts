import { findDates, typedDate, type DateOrder } from '../dates/index.ts';
import { dec } from '../money/index.ts';
import { parseNumber, type NumberStyle } from '../numbers/index.ts';
import { isIban, squash } from '../reading/index.ts';
import { termsKnown, type ListedTerms } from '../terms/index.ts';
import type { ImportField, ImportValue } from './types.ts';

/** How a column writes its figures and days. */
export interface ColumnStyle {
  numbers: NumberStyle;
  order: Exclude<DateOrder, 'year-first'>;
  /** No day of the column tells whether the day or the month comes first. */ open: boolean;
}

/** How a column's cells are written, from all of them. */
export function styleOf(cells: readonly string[]): ColumnStyle {
  // Three digits behind a sign may be thousands; fewer or more are decimals.
  const parts = (sign: string) => cells.filter((c) => new RegExp(`^\\D*\\d[^${sign}]*[${sign}](\\d{1,2}|\\d{4,})\\D*$`).test(c)).length;
  let dayFirst = 0,
    monthFirst = 0,
    either = 0;
  for (const cell of cells) {
    const dates = findDates(cell)[0]?.dates;
    if (!dates) continue;
    const [day, month] = [dates['day-first'], dates['month-first']];
    if (day === month) continue;
    if (day && month) either++;
    else if (day) dayFirst++;
    else monthFirst++;
  }
  return {
    numbers: { decimal: parts(',') > parts('.') ? ',' : '.' },
    order: monthFirst > dayFirst ? 'month-first' : 'day-first',
    open: either > 0 && dayFirst === 0 && monthFirst === 0,
  };
}

const yes = /^(y|yes|true|1|x|open|active|ja|oui|si|sí|on)$/i,
  no = /^(n|no|false|0|closed|inactive|nein|non|nee|off)$/i;

/** A whole day, year and all; null where it is none. */
function dayOfCell(text: string, order: ColumnStyle['order']): string | null {
  if (/^\d{8}$/.test(text)) return typedDate(text, '2000-01-01', order);
  const [found] = findDates(text);
  if (!found || found.length !== text.length) return null;
  return found.dates[order] ?? found.dates['day-first'] ?? found.dates['month-first'] ?? null;
}

/** A cell as a value of its field, or what is wrong with it in a sentence. `terms`: those that the company names itself. */
export function readCell(
  field: ImportField,
  cell: string,
  style: ColumnStyle,
  terms: readonly ListedTerms[] = [],
): { value: ImportValue } | { wrong: string } {
  const text = cell.trim();
  if (text === '') {
    if (field.kind === 'yes-no') return { value: field.otherwise ?? false };
    return field.required ? { wrong: `${field.label} is empty.` } : { value: null };
  }
  if (field.most !== undefined && text.length > field.most) return { wrong: `Longer than ${field.most} characters.` };
  const quoted = `“${text.slice(0, 40)}”`;
  switch (field.kind) {
    case 'code':
      return /\s/.test(text) ? { wrong: `${quoted} has a space in it; a code has none.` } : { value: text };
    case 'decimal': {
      const percent = field.among === 'percent',
        value = parseNumber(percent ? text.replace(/\s*%$/, '') : text, style.numbers);
      if (value === null) return { wrong: `${quoted} is not a number.` };
      if (field.among === 'positive' && dec(value).lte(0)) return { wrong: 'This has to be above zero.' };
      if (field.among === 'not-negative' && dec(value).lt(0)) return { wrong: 'This has to be zero or more.' };
      if (percent && (dec(value).lt(0) || dec(value).gt(100))) return { wrong: 'This is a percentage between 0 and 100.' };
      return { value };
    }
    case 'day': {
      const day = dayOfCell(text, style.order);
      return day === null ? { wrong: `${quoted} is not a day of the calendar.` } : { value: day };
    }
    case 'place':
      return /^[1-9]\d{0,2}$/.test(text) ? { value: text } : { wrong: `${quoted} is not a line’s number, from 1.` };
    case 'year':
      return /^20\d\d$/.test(text) ? { value: text } : { wrong: `${quoted} is not a year, such as 2026.` };
    case 'yes-no':
      return yes.test(text) ? { value: true } : no.test(text) ? { value: false } : { wrong: `${quoted} is neither yes nor no.` };
    case 'currency':
      return /^[a-z]{3}$/i.test(text) ? { value: text.toUpperCase() } : { wrong: `${quoted} is no currency code, such as GBP.` };
    case 'one-of': {
      const value = field.options?.find((o) => o === text.toLowerCase());
      return value ? { value } : { wrong: `${quoted} is none of: ${field.options?.join(', ')}.` };
    }
    case 'terms':
      return termsKnown(text, terms)
        ? { value: text }
        : { wrong: `${quoted} is not understood. Write terms as net 30, 30 eom or 2/10 n30.` };
    case 'iban':
      return isIban(squash(text)) ? { value: squash(text) } : { wrong: `The check digits of ${quoted} do not fit.` };
    default:
      return { value: text };
  }
}
