import type { Random } from './content.ts';
import type { Language } from './labels.ts';

/** Firms of a country: its currencies, tax rates, places, legal forms and tax number. */
export const countries: Record<
  Language,
  { currency: string[]; rates: string[]; towns: string[]; streets: string[]; forms: string[]; prefix: string; tax: (r: Random) => string }
> = {
  en: {
    currency: ['GBP', 'GBP', 'GBP', 'EUR', 'USD', 'JPY'],
    rates: ['20', '5', '0'],
    towns: ['Thornwick TW4 8QJ', 'Ashmere AM12 3PL', 'Long Pellow LP7 9DD'],
    streets: ['14 Tannery Lane', 'Unit 6, Weir Park', 'Old Maltings, Bridge Street'],
    forms: ['Ltd', 'Limited', 'LLP', '& Sons', 'plc'],
    prefix: 'GB',
    tax: (r) => `GB${r.int(100000000, 999999999)}`,
  },
  de: {
    currency: ['EUR', 'EUR', 'CHF'],
    rates: ['19', '7', '0'],
    towns: ['48219 Birkenau-Süd', '73912 Talheimweiler'],
    streets: ['Mühlgasse 12', 'Am Steinbruch 4'],
    forms: ['GmbH', 'AG', 'GmbH & Co. KG', 'e.K.'],
    prefix: 'DE',
    tax: (r) => `DE${r.int(100000000, 999999999)}`,
  },
  fr: {
    currency: ['EUR'],
    rates: ['20', '5.5', '10'],
    towns: ['29912 Kerbrual', '35977 Saint-Oulven'],
    streets: ['8 rue du Moulin', '27 chemin des Alouettes'],
    forms: ['SARL', 'SAS', 'SA'],
    prefix: 'FR',
    tax: (r) => `FR${r.int(10, 99)}${r.int(100000000, 999999999)}`,
  },
  nl: {
    currency: ['EUR'],
    rates: ['21', '9', '0'],
    towns: ['2199 KD Zandwoude', '7741 BX Oosterveld'],
    streets: ['Kanaaldijk 18', 'Bollenlaan 3'],
    forms: ['B.V.', 'VOF', 'BV'],
    prefix: 'NL',
    tax: (r) => `NL${r.int(100000000, 999999999)}B0${r.int(1, 9)}`,
  },
  es: {
    currency: ['EUR'],
    rates: ['21', '10', '4'],
    towns: ['46972 Valdeolmo', '28999 Fuentearena'],
    streets: ['Calle del Olivo 9', 'Avenida del Puerto 41'],
    forms: ['S.L.', 'S.A.', 'SL'],
    prefix: 'ES',
    tax: (r) => `ESB${r.int(10000000, 99999999)}`,
  },
  it: {
    currency: ['EUR'],
    rates: ['22', '10', '4'],
    towns: ['38199 Montefiorito', '20999 Borgalto'],
    streets: ['Via dei Gelsi 7', 'Corso Mercato 22'],
    forms: ['S.r.l.', 'S.p.A.', 'SRL'],
    prefix: 'IT',
    tax: (r) => `IT${r.int(10000000000, 99999999999)}`,
  },
  sv: {
    currency: ['SEK', 'SEK', 'EUR'],
    rates: ['25', '12', '6'],
    towns: ['741 99 Björkheden', '262 98 Ängsvik'],
    streets: ['Storgatan 11', 'Kvarnvägen 5'],
    forms: ['AB', 'HB'],
    prefix: 'SE',
    tax: (r) => `SE${r.int(1000000000, 9999999999)}01`,
  },
};
export const firsts = [
  'Thistledew',
  'Oxbow',
  'Copperpot',
  'Larchmere',
  'Fernhollow',
  'Quillback',
  'Mossgate',
  'Rookwell',
  'Silverbirk',
  'Tealbrook',
  'Wattlefen',
  'Gorsehill',
];
export const seconds = ['Garden Supplies', 'Engineering', 'Horticulture', 'Print & Sign', 'Services', 'Glassworks', 'Trading', 'Timber'];
export const buyers = [
  { name: 'Marrowby Botanic Gardens', street: 'The Walled Garden', town: 'Marrowby MB3 6XX' },
  { name: 'Marrowby Nursery Trading Ltd', street: 'Glasshouse Yard', town: 'Marrowby MB3 6XY' },
  { name: 'Jardin Marrowby SARL', street: '3 allée des Camélias', town: '29998 Plougarden' },
];
