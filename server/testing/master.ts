import { companies } from '@ledgerline/documents/companies';
import { suppliers } from '@ledgerline/documents/suppliers';
import { squash } from '@ledgerline/core/reading';
import { hashPassword } from '../auth/passwords.ts';
import type { Executor } from '../db/client.ts';
import {
  bankAccount,
  company,
  costCentre,
  exchangeRate,
  ledgerAccount,
  membership,
  organisation,
  person,
  supplier,
  taxCode,
} from '../db/schema/index.ts';
import { openPeriods } from '../ledger/periods.ts';

/** The one password of everybody in tests. */
export const password = 'a long enough password';
/** Who works where in tests. */
const people: [name: string, roles: Record<string, string[]>][] = [
  ['Ines Okafor', { MBG: ['clerk'], MNT: ['clerk'], JMB: ['clerk'] }],
  ['Tobias Fenn', { MBG: ['clerk'] }],
  ['Marguerite Sable', { MBG: ['approver'], JMB: ['approver'] }],
  ['Rufus Pell', { MNT: ['approver'], MBG: ['approver'] }],
  ['Halina Voss', { MBG: ['controller'], MNT: ['controller'], JMB: ['controller'] }],
  ['Kit Arden', { MBG: ['administrator'], MNT: ['administrator'], JMB: ['administrator'] }],
];
export const mailOf = (name: string): string => `${name.split(' ')[0]!.toLowerCase()}@marrowby.example`;

const accounts: [code: string, name: string, kind: string][] = [
  ['1010', 'Garden buildings', 'asset'],
  ['1200', 'Current account', 'bank'],
  ['1800', 'Recoverable tax on purchases', 'tax'],
  ['2100', 'Trade suppliers', 'payable'],
  ['2200', 'Reverse charge tax owed', 'liability'],
  ['6000', 'Growing media', 'expense'],
  ['6010', 'Fertilisers', 'expense'],
  ['6300', 'Carriage inwards', 'expense'],
];
const centres: [code: string, name: string][] = [
  ['200', 'Arboretum'],
  ['210', 'Palm House'],
];
const codes: [code: string, rate: string, recoverable: string, reverse: boolean][] = [
  ['S20', '20', '100', false],
  ['R5', '5', '100', false],
  ['I10', '10', '100', false],
  ['R55', '5.5', '100', false],
  ['Z0', '0', '100', false],
  ['N20', '20', '0', false],
  ['RC20', '20', '100', true],
];

type CodeRow = typeof taxCode.$inferSelect;
/** A test world's master data: ids by the names that tests use. */
export interface Master {
  company(code: string): OwnCompany;
  supplier(name: string): string;
  person(name: string): string;
}
export interface OwnCompany {
  id: string;
  baseCurrency: string;
  account(code: string): string;
  centre(code: string): string;
  taxCode(code: string): CodeRow;
}
const found = <T>(value: T | undefined, what: string): T => {
  if (value === undefined) throw new Error(`The test world has no ${what}`);
  return value;
};

/** Three companies with people, small lists, open periods of three years, and the document maker's suppliers, bank accounts verified. */
export async function writeMaster(db: Executor, today: string): Promise<Master> {
  const year = Number(today.slice(0, 4));
  await db.insert(organisation).values({ name: 'Marrowby', demo: true });
  const passwordHash = await hashPassword(password);
  const persons = new Map(
    (
      await db
        .insert(person)
        .values(people.map(([name]) => ({ name, email: mailOf(name), passwordHash, demo: true })))
        .returning()
    ).map((p) => [p.name, p.id]),
  );
  const made = new Map<string, OwnCompany>(),
    supplierIds = new Map<string, string>();
  for (const { address: _, ...own } of companies) {
    const [row] = await db.insert(company).values(own).returning();
    const companyId = row!.id;
    await openPeriods(db, companyId, [year - 1, year, year + 1]);
    const mine = suppliers.filter((s) => s.company === own.code);
    const more = [...new Set(mine.map((s) => s.account))].filter((code) => !accounts.some(([c]) => c === code));
    const accountIds = new Map(
      (
        await db
          .insert(ledgerAccount)
          .values(
            [...accounts, ...more.map((code): [string, string, string] => [code, `Costs ${code}`, 'expense'])].map(
              ([code, name, kind]) => ({
                code,
                name,
                kind,
                group: kind,
                needsCostCentre: kind === 'expense',
                companyId,
              }),
            ),
          )
          .returning()
      ).map((a) => [a.code, a.id]),
    );
    const centreIds = new Map(
      (
        await db
          .insert(costCentre)
          .values(centres.map(([code, name]) => ({ code, name, companyId })))
          .returning()
      ).map((c) => [c.code, c.id]),
    );
    const codeRows = new Map(
      (
        await db
          .insert(taxCode)
          .values(
            codes.map(([code, rate, recoverable, reverseCharge]) => ({
              code,
              name: code,
              rate,
              recoverable,
              reverseCharge,
              companyId,
              accountId: accountIds.get('1800')!,
              outputAccountId: accountIds.get('2200')!,
            })),
          )
          .returning()
      ).map((t) => [t.code, t]),
    );
    const rates = own.baseCurrency === 'GBP' ? { EUR: '0.85', USD: '0.8', JPY: '0.005' } : { GBP: '1.2', USD: '0.9' };
    await db
      .insert(exchangeRate)
      .values(Object.entries(rates).map(([currency, rate]) => ({ companyId, currency, day: `${year - 1}-01-01`, rate })));
    const codeAt = (rate: string | null) =>
      found(
        [...codeRows.values()].find((c) => !c.reverseCharge && c.recoverable === '100' && Number(c.rate) === Number(rate ?? '0')),
        `tax code at ${rate}%`,
      );
    const rows = mine.map((s, i) => ({
      companyId,
      code: `S${1001 + i}`,
      name: s.name,
      taxId: s.taxId ? squash(s.taxId) : null,
      email: `accounts@${s.domain}`,
      currency: s.currency,
      terms: s.terms,
      accountId: accountIds.get(s.account)!,
      costCentreId: centreIds.get('200')!,
      taxCodeId: codeAt(s.items[0]!.rate).id,
    }));
    for (const s of await db.insert(supplier).values(rows).returning()) {
      supplierIds.set(s.name, s.id);
      const { iban } = mine.find((m) => m.name === s.name)!;
      if (iban)
        await db.insert(bankAccount).values({ companyId, supplierId: s.id, iban: squash(iban), verifiedAt: new Date(), how: 'Taken over' });
    }
    await db
      .insert(membership)
      .values(
        people.flatMap(([name, roles]) => (roles[own.code] ?? []).map((role) => ({ personId: persons.get(name)!, companyId, role }))),
      );
    made.set(own.code, {
      id: companyId,
      baseCurrency: own.baseCurrency,
      account: (c) => found(accountIds.get(c), `account ${c}`),
      centre: (c) => found(centreIds.get(c), `cost centre ${c}`),
      taxCode: (c) => found(codeRows.get(c), `tax code ${c}`),
    });
  }
  return {
    company: (code) => found(made.get(code), `company ${code}`),
    supplier: (name) => found(supplierIds.get(name), `supplier ${name}`),
    person: (name) => found(persons.get(name), `person ${name}`),
  };
}
