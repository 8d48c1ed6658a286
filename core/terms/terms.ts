import { addDays, addMonths, addWorkingDays, endOfMonth, onWorkingDay, type DueOn, type IsoDate } from '../dates/index.ts';

/** When a bill falls due, counted from its date. */
export interface PaymentTerms {
  /** Days after the base date. */
  days: number;
  /** Where counting starts: the bill's date, or the end of its month; or it falls due on that day of a month. */
  from: 'date' | 'end-of-month' | 'day-of-month';
  /** Whole months added before the end or the day of the month is taken ("end of the month following" and "15th of next month" are 1). */
  months: number;
  /** Cash discount: percent and days, as in 2/10. */
  discount: { percent: string; days: number } | null;
  /** Days from the bill's date are working days. */
  working?: true;
}

/** In which country, and what becomes of a due day that is no working day there. */
export interface WorkingCalendar {
  country: string;
  dueOn: DueOn;
}

const plain = (days: number, from: PaymentTerms['from'] = 'date', months = 0): PaymentTerms => ({ days, from, months, discount: null });
const fold = (text: string) => text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase().replace(/\s+/g, ' ').trim();
/** Numbers of days as words in thirteen languages, without accents. */
const words: Record<string, number> = {
  seven: 7,
  eight: 8,
  ten: 10,
  fourteen: 14,
  fifteen: 15,
  twenty: 20,
  'twenty-one': 21,
  'twenty-eight': 28,
  thirty: 30,
  'forty-five': 45,
  sixty: 60,
  ninety: 90,
  sieben: 7,
  acht: 8,
  zehn: 10,
  vierzehn: 14,
  dreissig: 30,
  sechzig: 60,
  zeven: 7,
  tien: 10,
  veertien: 14,
  dertig: 30,
  zestig: 60,
  huit: 8,
  dix: 10,
  quinze: 15,
  trente: 30,
  'quarante-cinq': 45,
  soixante: 60,
  quindici: 15,
  trenta: 30,
  sessanta: 60,
  quince: 15,
  treinta: 30,
  sesenta: 60,
  trettio: 30,
  fjorton: 14,
  fjorten: 14,
  tretti: 30,
  tredive: 30,
  otte: 8,
  oito: 8,
  catorze: 14,
  trinta: 30,
  sessenta: 60,
  czternascie: 14,
  trzydziesci: 30,
  neljatoista: 14,
  kolmekymmenta: 30,
  ctrnact: 14,
  tricet: 30,
};
const word = new RegExp(
  `\\b(?:${Object.keys(words)
    .sort((a, b) => b.length - a.length)
    .join('|')})\\b`,
  'g',
);
const dayWord =
  '(?:calendar |working |business |kalender|werk)?(?:days?|tage?n?|jours?(?: nets?| calendaires)?|dagen|dagar|dager|dage|dias?|giorni|gg\\.?|dni|paivaa|pv\\.?|dnu|dni|dnů)';
const toMonthEnd = new RegExp(
  `\\b(\\d{1,3})\\s?(?:${dayWord})?\\s?(?:,?\\s?(?:from |after )?(?:eom|end of (?:the )?month|fin de mois|einde maand|fine mese|fin de mes|zum monatsende|month end|monatsende|lopende maand|lobende maned|lopende maned))`,
);
/** "15th of next month", "on the 20th of the month following", "le 10 du mois suivant", "15. des Folgemonats", "15e van de volgende maand". */
const dayOfNext =
  /\b(\d{1,2})(?:st|nd|rd|th|er|e|\.)?(?: day)? (?:of |du |des |van )?(?:the |de )?(?:next month|following month|month following|mois suivant|folgemonats|nachsten monats|volgende maand)/;
const inDays = new RegExp(`\\b(\\d{1,3})\\s?(?:${dayWord})\\b`);

const nothingElse = new RegExp(`^\\W*(?:nett?o?\\W+)?\\d{1,3}\\s?${dayWord}(?:\\W+nett?o?)?\\W*$`);

/** Whether a text is a number of days and nothing else, but perhaps that they are net: "14 days", "netto 30 dagen". */
export const onlyDays = (text: string): boolean => nothingElse.test(fold(text));

/**
 * Payment terms in the trade's words: "30 days", "net 15", "plus 15", "30 eom", "2/10 n30", "within 14 days",
 * "end of the month following", "15th of next month", "due on receipt", and their equivalents in twelve other languages. Null when none is found.
 */
export function parseTerms(text: string): PaymentTerms | null {
  const t = fold(text).replace(word, (name) => String(words[name]));
  const discount = /\b(\d{1,2}(?:[.,]\d+)?)\s?%?\s?\/\s?(\d{1,3})\b[,;]?\s*(?:net|n)\s?\/?\s?(\d{1,3})\b/.exec(t);
  if (discount) return { ...plain(Number(discount[3])), discount: { percent: discount[1]!.replace(',', '.'), days: Number(discount[2]) } };
  if (
    /end of (?:the )?month following|end of (?:the )?following month|end of next month|month end following|einde volgende maand|fin du mois suivant/.test(
      t,
    )
  )
    return plain(0, 'end-of-month', 1);
  const day = dayOfNext.exec(t);
  if (day && Number(day[1]) >= 1 && Number(day[1]) <= 31) return plain(Number(day[1]), 'day-of-month', 1);
  const eom = toMonthEnd.exec(t);
  if (eom) return plain(Number(eom[1]), 'end-of-month');
  if (/^(?:eom|end of (?:the )?month)$/.test(t)) return plain(0, 'end-of-month');
  if (
    /\b(?:due|payable|payment) (?:up)?on receipt\b|\bimmediate(?:ly)? (?:payment|due)|\bsofort (?:zahlbar|fallig)|\ba reception\b/.test(t)
  )
    return plain(0);
  const net = /\bnet\s?(\d{1,3})\b(?![.,]\d)/.exec(t) ?? /^(?:n|plus|\+)\s?(\d{1,3})$/.exec(t);
  if (net) return plain(Number(net[1]));
  const days = inDays.exec(t);
  if (days && Number(days[1]) <= 180)
    return {
      ...plain(Number(days[1])),
      ...(/\b\d{1,3}\s?(?:working|business|werk)[ -]?da(?:ys?|gen)\b/.test(t) ? { working: true as const } : {}),
    };
  return null;
}

/** The day on which a bill of that date falls due under these terms. */
export const dueDate = (issued: IsoDate, terms: PaymentTerms, { country, dueOn }: WorkingCalendar = anywhere): IsoDate =>
  onWorkingDay(dayMeant(issued, terms, country), country, dueOn);

/** Where no country is known: only weekends are no working days. */
const anywhere: WorkingCalendar = { country: '', dueOn: 'stays' };

function dayMeant(issued: IsoDate, terms: PaymentTerms, country: string): IsoDate {
  if (terms.from === 'date') return terms.working ? addWorkingDays(issued, terms.days, country) : addDays(issued, terms.days);
  const first = addMonths(`${issued.slice(0, 7)}-01`, terms.months),
    last = endOfMonth(first);
  if (terms.from === 'end-of-month') return addDays(last, terms.days);
  // A month that has no such day ends before it.
  const day = addDays(first, terms.days - 1);
  return day > last ? last : day;
}

/** The last day on which a bill of that date earns its cash discount; null where the terms offer none. */
export const discountDate = (issued: IsoDate, terms: PaymentTerms): IsoDate | null =>
  terms.discount ? addDays(issued, terms.discount.days) : null;
