import { SaxesParser } from 'saxes';
import { findDates, isIsoDate } from '../dates/index.ts';
import { dec } from '../money/index.ts';

/** Units of a currency for one euro on a day. */
export interface EuroRate {
  day: string;
  currency: string;
  /** Plain decimal above zero. */ perEuro: string;
}

const currencyCode = /^[A-Z]{3}$/;

/** Rates against the euro from a table with a day and a column for each currency, as central banks publish them; null where it is none. */
export function euroTable(heads: readonly string[], rows: readonly (readonly string[])[]): EuroRate[] | null {
  const codes = heads.map((h) => h.trim().toUpperCase());
  const columns = codes.flatMap((code, at) => (at > 0 && currencyCode.test(code) ? [at] : []));
  if (columns.length === 0 || !/^(date|day|time[ _]?period)$/i.test(heads[0]?.trim() ?? '') || currencyCode.test(codes[0]!)) return null;
  // Nothing but currencies, and the empty last column that their lines end with.
  if (codes.some((code, at) => at > 0 && code !== '' && !currencyCode.test(code))) return null;
  return rows.flatMap((row) => {
    const day = findDates(row[0] ?? '')[0]?.dates['day-first'];
    if (!day) return [];
    return columns.flatMap((at): EuroRate[] => {
      const cell = (row[at] ?? '').trim();
      return /^\d+(\.\d+)?$/.test(cell) && Number(cell) > 0 ? [{ day, currency: codes[at]!, perEuro: cell }] : [];
    });
  });
}

/** Rates against the euro from the XML of the European Central Bank: a cube for each day, in it one for each currency. Null where it is no such file. */
export function euroCubes(xml: string): EuroRate[] | null {
  const found: EuroRate[] = [];
  let day = '';
  const parser = new SaxesParser({ xmlns: false });
  try {
    // What a document type brings in is never followed.
    parser.on('doctype', () => {
      throw new Error('doctype');
    });
    parser.on('opentag', ({ attributes: { time, currency, rate } }) => {
      if (time && isIsoDate(time)) day = time;
      if (day && currencyCode.test(currency ?? '') && /^\d+(\.\d+)?$/.test(rate ?? '') && Number(rate) > 0)
        found.push({ day, currency: currency!, perEuro: rate! });
    });
    parser.write(xml).close();
  } catch {
    return null;
  }
  return found;
}

/** So many digits are kept of a rate that is computed from two. */
const digits = 10;

/**
 * Rates of a company's own currency, from rates against the euro: one unit of a currency is (own per euro) ÷ (its own per euro). Days
 * on which the own currency has no rate are left out.
 */
export function ratesFor(base: string, rates: readonly EuroRate[]): { day: string; currency: string; rate: string }[] {
  const own = new Map(rates.filter((r) => r.currency === base).map((r) => [r.day, r.perEuro]));
  if (base === 'EUR') for (const { day } of rates) own.set(day, '1');
  const days = [...new Set(rates.map((r) => r.day))];
  const found = rates.flatMap(({ day, currency, perEuro }) => {
    const mine = own.get(day);
    return mine === undefined || currency === base
      ? []
      : [{ day, currency, rate: dec(mine).div(dec(perEuro)).toSignificantDigits(digits).toFixed() }];
  });
  const euro = base === 'EUR' ? [] : days.flatMap((day) => (own.has(day) ? [{ day, currency: 'EUR', rate: own.get(day)! }] : []));
  return [...found, ...euro].sort((a, b) => a.day.localeCompare(b.day) || a.currency.localeCompare(b.currency));
}
