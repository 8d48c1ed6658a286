import { describe, expect, it } from 'vitest';
import { dueDate, parseTerms } from './index.ts';

describe('payment terms', () => {
  it.each([
    ['30 days', '2026-12-03'],
    ['net 15', '2026-11-18'],
    ['n30', '2026-12-03'],
    ['30 eom', '2026-12-30'],
    ['plus 15', '2026-11-18'],
    ['15th of next month', '2026-12-15'],
    ['payable on the 31st of the month following', '2026-12-31'],
    ['zahlbar bis zum 10. des Folgemonats', '2026-12-10'],
    ['2/10 n30', '2026-12-03'],
    ['end of the month following the month of invoice', '2026-12-31'],
    ['Please pay within 14 days', '2026-11-17'],
    ['due on receipt', '2026-11-03'],
    ['Betaling binnen 30 dagen', '2026-12-03'],
    ['zahlbar innerhalb 14 Tagen', '2026-11-17'],
    ['45 jours fin de mois', '2027-01-14'],
    ['Thirty days net', '2026-12-03'],
    ['your remittance within fourteen days', '2026-11-17'],
    ['vierzehn Tage netto', '2026-11-17'],
    ['te voldoen binnen veertien dagen', '2026-11-17'],
    ['à quarante-cinq jours fin de mois', '2027-01-14'],
    ['Transferencia a 60 días de la fecha de factura', '2027-01-02'],
    ['payment by the end of the month following the date of invoice', '2026-12-31'],
    ['14 dager netto', '2026-11-17'],
    ['Twenty-one days', '2026-11-24'],
    ['Pagamento a trinta dias', '2026-12-03'],
    ['termin płatności: trzydzieści dni', '2026-12-03'],
    ['maksuaika neljätoista päivää', '2026-11-17'],
    ['splatnost čtrnáct dnů', '2026-11-17'],
    ['tredive dage netto', '2026-12-03'],
  ])('%s from 3 November 2026 fall due on %s', (text, due) => expect(dueDate('2026-11-03', parseTerms(text)!)).toBe(due));
  it('keeps a cash discount', () => expect(parseTerms('2/10 n30')?.discount).toEqual({ percent: '2', days: 10 }));
  it.each(['', 'as agreed', '5 boxes', 'Total net 3,550 kg'])('%s is no terms', (text) => expect(parseTerms(text)).toBeNull());
});
