import fc from 'fast-check';
import { expect, it } from 'vitest';
import { addDays, addMonths, endOfMonth } from '../dates/index.ts';
import { dueDate, parseTerms } from './index.ts';

const issued = fc.integer({ min: 0, max: 20_000 }).map((n) => addDays('2000-01-01', n));
const days = fc.integer({ min: 1, max: 180 });

it('terms by days in any of the languages fall due that many days on', () =>
  fc.assert(
    fc.property(
      issued,
      days,
      fc.constantFrom('# days', 'net #', 'n#', 'within # days of invoice', 'binnen # dagen', '# Tage netto', '# jours', '# dias'),
      (day, n, wording) => void expect(dueDate(day, parseTerms(wording.replace('#', String(n)))!)).toBe(addDays(day, n)),
    ),
  ));
it('terms from the end of the month start at its last day, whatever the day of the bill', () =>
  fc.assert(
    fc.property(issued, days, fc.constantFrom('# eom', '# days eom', '# jours fin de mois', '# dagen einde maand'), (day, n, wording) => {
      const due = dueDate(day, parseTerms(wording.replace('#', String(n)))!);
      expect(due).toBe(addDays(endOfMonth(day), n));
      expect(due).toBe(dueDate(`${day.slice(0, 7)}-01`, parseTerms(wording.replace('#', String(n)))!));
    }),
  ));
it('the end of the month following is a last day, and of the month after, from the 31st too', () =>
  fc.assert(
    fc.property(issued, (day) => {
      const due = dueDate(day, parseTerms('End of the month following')!);
      expect(due).toBe(endOfMonth(due));
      expect(due.slice(0, 7)).toBe(addMonths(`${day.slice(0, 7)}-01`, 1).slice(0, 7));
    }),
  ));
it('a day of the next month is that day of it, or its last where it has no such day', () =>
  fc.assert(
    fc.property(
      issued,
      fc.integer({ min: 1, max: 31 }),
      fc.constantFrom(
        '#th of next month',
        'on the # of the month following',
        '#. des Folgemonats',
        'le # du mois suivant',
        '#e van de volgende maand',
      ),
      (day, n, wording) => {
        const due = dueDate(day, parseTerms(wording.replace('#', String(n)))!),
          first = addMonths(`${day.slice(0, 7)}-01`, 1);
        expect(due.slice(0, 7)).toBe(first.slice(0, 7));
        expect(due).toBe(n > Number(endOfMonth(first).slice(8)) ? endOfMonth(first) : `${first.slice(0, 7)}-${String(n).padStart(2, '0')}`);
      },
    ),
  ));
it('a discount never moves the due date', () =>
  fc.assert(
    fc.property(issued, days, fc.integer({ min: 1, max: 9 }), fc.integer({ min: 1, max: 30 }), (day, net, percent, within) => {
      const terms = parseTerms(`${percent}/${within} net ${net}`)!;
      expect(terms.discount).toEqual({ percent: String(percent), days: within });
      expect(dueDate(day, terms)).toBe(addDays(day, net));
    }),
  ));
it('no text brings the reading of terms down, and nothing falls due before its bill', () =>
  fc.assert(
    fc.property(
      issued,
      fc.oneof(fc.string({ unit: 'binary' }), fc.stringMatching(/^[0-9 ]{0,4}(days|eom|net|n)[0-9 ]{0,4}$/)),
      (day, text) => {
        const terms = parseTerms(text);
        if (terms) expect(dueDate(day, terms) >= day, text).toBe(true);
      },
    ),
  ));
