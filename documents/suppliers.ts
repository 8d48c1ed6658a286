import { isIban } from '@ledgerline/core/reading';
import { rows, type Item } from './supplier-list.ts';

export type { Item };
export interface DemoSupplier {
  name: string;
  company: string;
  street: string;
  town: string;
  country: string;
  currency: string;
  domain: string;
  taxId: string;
  iban: string;
  terms: string;
  phone: string;
  layout: number;
  account: string;
  centre: string;
  items: Item[];
  every: number;
}

/** A valid IBAN (modulo 97) of a bank that does not exist. */
export function iban(country: string, seed: number): string {
  const digits = (n: number) => String((seed * 7919 + 104729) % 10 ** n).padStart(n, '0');
  const body = { GB: `XQZB00${digits(6)}${digits(6)}`, NL: `XQZB0${digits(9)}`, FR: `00099${'00011'}${digits(11)}${digits(2)}` }[country];
  if (!body) return '';
  for (let check = 2; check < 99; check++) {
    const whole = country + String(check).padStart(2, '0') + body;
    if (isIban(whole)) return whole;
  }
  return '';
}

export const suppliers: DemoSupplier[] = rows.map(([name, company, street, town, country, terms, centre, every, items], i) => {
  const domain = `${name
    .toLowerCase()
    .normalize('NFD')
    .replace(/[^a-z]+/g, '')
    .slice(0, 12)}.example`;
  const number = String(300000000 + (((i + 3) * 27182818) % 599999999)).slice(0, 9);
  const taxId =
    { GB: `GB${number}`, NL: `NL${number}B0${(i % 8) + 1}`, FR: `FR${10 + i}${number}`, US: `00-5${number.slice(0, 6)}`, JP: '' }[
      country
    ] ?? '';
  return {
    name,
    company,
    street,
    town,
    country,
    currency: { GB: 'GBP', NL: 'EUR', FR: 'EUR', US: 'USD', JP: 'JPY' }[country]!,
    domain,
    taxId,
    iban: iban(country, i + 11),
    terms,
    phone: `01632 96${String(1000 + i * 37).slice(0, 4)}`,
    layout: i % 6,
    account: items[0]!.account,
    centre,
    items,
    every,
  };
});
