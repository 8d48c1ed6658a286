import type { Country } from '@ledgerline/contract';

/** Countries whose tax codes come with Ledgerline, with the currency of the books. */
export const countryNames: Record<Country, string> = {
  GB: 'United Kingdom (GBP)',
  FR: 'France (EUR)',
  NL: 'Netherlands (EUR)',
  DE: 'Germany (EUR)',
  BE: 'Belgium (EUR)',
  IE: 'Ireland (EUR)',
};
