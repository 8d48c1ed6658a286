import type { Country } from '@ledgerline/contract';

const expense = (code: string, name: string, group: string) => ({ code, name, group, kind: 'expense' });

/** A small chart of accounts to begin with; more are added as needed. */
export const startingAccounts = [
  { code: '1200', name: 'Bank', group: 'Current assets', kind: 'bank' },
  { code: '1400', name: 'Equipment', group: 'Fixed assets', kind: 'asset' },
  { code: '1800', name: 'Recoverable tax', group: 'Current assets', kind: 'tax' },
  { code: '2100', name: 'Suppliers', group: 'Liabilities', kind: 'payable' },
  { code: '2200', name: 'Tax owed', group: 'Liabilities', kind: 'liability' },
  expense('5000', 'Goods for resale', 'Cost of sales'),
  expense('6100', 'Repairs and maintenance', 'Premises'),
  expense('6200', 'Energy and water', 'Premises'),
  expense('6300', 'Carriage and postage', 'Office'),
  expense('6400', 'Telephone and internet', 'Office'),
  expense('6500', 'Printing and stationery', 'Office'),
  expense('6600', 'Professional fees', 'Services'),
  expense('6700', 'Cleaning', 'Premises'),
  expense('6800', 'Equipment hire', 'Services'),
  expense('6900', 'Other costs', 'Office'),
];

const code = (code: string, name: string, rate: string, recoverable = '100', reverseCharge = false) => ({
  code,
  name,
  rate,
  recoverable,
  reverseCharge,
});

/** Payment terms to begin with. */
export const startingTerms = [
  { code: 'N30', name: '30 days', terms: 'net 30' },
  { code: 'MONTH', name: 'Monthly account', terms: '30 eom', alsoCalled: 'monthly, strictly monthly' },
  { code: 'NOW', name: 'On receipt', terms: 'due on receipt', alsoCalled: 'cash, payable at once' },
];

/** The currency that a country's companies keep their books in. */
export const currencyOf = (country: Country): string => (country === 'GB' ? 'GBP' : 'EUR');

/**
 * Purchase tax codes by country: UK VAT (VATA 1994), French TVA (CGI art. 278 to 281), Dutch btw (Wet OB 1968, art. 9), German
 * Umsatzsteuer (UStG § 12, § 13b), Belgian btw/TVA (arrêté royal n° 20), Irish VAT (VATCA 2010, s. 46).
 */
export const startingTaxCodes: Record<Country, ReturnType<typeof code>[]> = {
  GB: [
    code('S20', 'Standard rate 20%', '20'),
    code('R5', 'Reduced rate 5%', '5'),
    code('Z0', 'Zero rate', '0'),
    code('EX', 'Exempt or no tax', '0'),
    code('N20', 'Standard rate 20%, not recoverable', '20', '0'),
    code('RC20', 'Reverse charge 20%', '20', '100', true),
  ],
  FR: [
    code('N20', 'Taux normal 20%', '20'),
    code('I10', 'Taux intermédiaire 10%', '10'),
    code('R55', 'Taux réduit 5,5%', '5.5'),
    code('P21', 'Taux particulier 2,1%', '2.1'),
    code('EX', 'Exonéré', '0'),
    code('AL20', 'Autoliquidation 20%', '20', '100', true),
  ],
  NL: [
    code('H21', 'Hoog tarief 21%', '21'),
    code('L9', 'Laag tarief 9%', '9'),
    code('N0', 'Nultarief', '0'),
    code('V21', 'Verlegd 21%', '21', '100', true),
  ],
  DE: [
    code('V19', 'Vorsteuer 19%', '19'),
    code('V7', 'Vorsteuer 7%', '7'),
    code('V0', 'Steuerfrei', '0'),
    code('R19', 'Reverse Charge 19%', '19', '100', true),
  ],
  BE: [
    code('B21', 'Standard rate 21%', '21'),
    code('B12', 'Intermediate rate 12%', '12'),
    code('B6', 'Reduced rate 6%', '6'),
    code('B0', 'Zero rate or exempt', '0'),
    code('M21', 'Reverse charge 21%', '21', '100', true),
  ],
  IE: [
    code('S23', 'Standard rate 23%', '23'),
    code('R13', 'Reduced rate 13.5%', '13.5'),
    code('R9', 'Second reduced rate 9%', '9'),
    code('Z0', 'Zero rate or exempt', '0'),
    code('RC23', 'Reverse charge 23%', '23', '100', true),
  ],
};
