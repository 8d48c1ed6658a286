import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { languageOf, languages, likelyLanguage } from './language.ts';

describe('the language of a page', () => {
  it.each([
    ['eng', 'Invoice date 4 March Terms of payment 30 days from the date of the invoice'],
    ['deu', 'Rechnungsnummer 4711 Kundennummer 20 Zahlbar in 30 Tagen ohne Abzug der Betrag'],
    ['fra', 'Facture du 4 mars Échéance le 3 avril Montant de la commande'],
    ['nld', 'Factuurnummer 88 Vervaldatum 3 april Betaling binnen 30 dagen'],
    ['spa', 'Fecha de factura 4 de marzo Vencimiento Número de pedido'],
    ['ita', 'Fattura del 4 marzo Scadenza Termini di pagamento'],
    ['swe', 'Fakturanr 12 Förfallodatum Oss tillhanda senast att betala'],
  ] as const)('%s', (language, text) => expect(languageOf(text.split(' '))).toBe(language));
  it('is not told by one small word on every line of a table', () => {
    const rows = Array.from({ length: 30 }, () => 'Etiqueta de cobre');
    expect(languageOf([...rows, 'Fecha', 'pedido', 'Importe'].join(' ').split(' '))).toBe('spa');
  });
  it('letters of a number are no words', () => expect(languageOf(['DE70', 'DE71', 'DE72', 'DE73', 'DE74'])).toBeNull());
  it('a few words or the country of an account make one likely, nothing makes none', () => {
    expect(likelyLanguage(['Rechnung'])).toBe('deu');
    expect(likelyLanguage(['IBAN', 'SE8451238492459234088484'])).toBe('swe');
    expect(likelyLanguage(['Marrowby', 'Nursery', 'CH9300762011623852957'])).toBeNull();
  });
  it('any words give a language of the list or none', () => {
    fc.assert(
      fc.property(fc.array(fc.string(), { maxLength: 20 }), (words) => {
        expect([null, ...languages]).toContain(languageOf(words));
        expect([null, ...languages]).toContain(likelyLanguage(words));
      }),
    );
  });
});
