import { eq, inArray } from 'drizzle-orm';
import type { DimensionField } from '@ledgerline/core/bills';
import { addDays } from '@ledgerline/core/dates';
import { squash } from '@ledgerline/core/reading';
import { hashPassword } from '@ledgerline/server/auth/passwords';
import { meOf } from '@ledgerline/server/auth/people';
import type { Executor } from '@ledgerline/server/db/client';
import {
  bankAccount,
  company,
  costCentre,
  distributionKey,
  distributionPart,
  exchangeRate,
  ledgerAccount,
  membership,
  organisation,
  person,
  supplier,
  taxCode,
  usualCoding,
} from '@ledgerline/server/db/schema/index';
import type { Services } from '@ledgerline/server/services';
import { transaction } from '@ledgerline/server/events/record';
import { openPeriods } from '@ledgerline/server/ledger/periods';
import { startingTaxCodes } from '@ledgerline/server/setup/starting';
import { firstDocuments, moveAlong, type Doors } from './arrivals.ts';
import { writeBudgets } from './budgets.ts';
import { writeItems } from './items.ts';
import { writeTerms } from './terms.ts';
import { besideTheBills } from './beside.ts';
import { writeDimensions } from './dimensions.ts';
import { writeHistory } from './history.ts';
import { writeOrders } from './orders.ts';
import { companies } from '@ledgerline/documents/companies';
import { accounts, centreOwners, centreParts, costCentres, distributionKeys, rates, untaxedAccounts } from './master.ts';
import { demoPassword, people } from './people.ts';
import { suppliers } from '@ledgerline/documents/suppliers';

type CodeRow = typeof taxCode.$inferSelect;
/** The master data's ids by the names that the scenario uses. */
export interface Master {
  company(code: string): {
    id: string;
    baseCurrency: string;
    account(code: string): string;
    centre(code: string): string;
    codeAt(rate: string | null): CodeRow;
    /** What lines of a cost centre have of the company's own dimensions. */
    dimensions(centre: string): Partial<Record<DimensionField, string>>;
  };
  supplier(name: string): string;
  person(name: string): string;
}

export async function isEmpty(services: Services): Promise<boolean> {
  return (await services.database.db.select().from(organisation).limit(1)).length === 0;
}

/** Whether a demo was begun and broken off before all of it was in. */
export async function demoUnfinished(services: Services): Promise<boolean> {
  return (await services.database.db.select().from(organisation).where(eq(organisation.ready, false))).length > 0;
}

const found = <T>(value: T | undefined, what: string): T => {
  if (value === undefined) throw new Error(`The demo has no ${what}`);
  return value;
};

/** Companies, people, accounts, cost centres, tax codes, suppliers, rates and open periods. */
export async function writeMaster(db: Executor, today: string): Promise<Master> {
  const year = Number(today.slice(0, 4));
  await db.insert(organisation).values({ name: 'Marrowby', demo: true, ready: false });
  const passwordHash = await hashPassword(demoPassword);
  const persons = new Map(
    (
      await db
        .insert(person)
        .values(people.map(({ name, email, title }) => ({ name, email, title, passwordHash, demo: true })))
        .returning()
    ).map((p) => [p.name, p.id]),
  );
  const made = new Map<string, ReturnType<Master['company']>>();
  const supplierIds = new Map<string, string>();
  for (const { address: _, ...own } of companies) {
    const [row] = await db.insert(company).values(own).returning();
    const companyId = row!.id;
    await openPeriods(db, companyId, [year - 3, year - 2, year - 1, year, year + 1]);
    const accountIds = new Map(
      (
        await db
          .insert(ledgerAccount)
          .values(accounts.map((a) => ({ ...a, needsCostCentre: a.kind === 'expense', companyId })))
          .returning()
      ).map((a) => [a.code, a.id]),
    );
    // Goods that came without a bill are owed among the accruals.
    await db.insert(usualCoding).values({ companyId, accrualAccountId: accountIds.get('2230')! });
    const centreIds = new Map(
      (
        await db
          .insert(costCentre)
          .values(costCentres.map((c) => ({ ...c, companyId })))
          .returning()
      ).map((c) => [c.code, c.id]),
    );
    const codes = await db
      .insert(taxCode)
      .values(
        startingTaxCodes[own.country].map((t) => ({
          ...t,
          companyId,
          accountId: accountIds.get('1800')!,
          outputAccountId: accountIds.get('2200')!,
        })),
      )
      .returning();
    const untaxed = codes.find((c) => c.code === 'EX') ?? codes.find((c) => Number(c.rate) === 0);
    if (untaxed)
      await db
        .update(ledgerAccount)
        .set({ taxCodeId: untaxed.id })
        .where(
          inArray(
            ledgerAccount.id,
            untaxedAccounts.flatMap((code) => accountIds.get(code) ?? []),
          ),
        );
    for (const { name, parts } of distributionKeys) {
      const [key] = await db.insert(distributionKey).values({ companyId, name }).returning();
      const shares = parts.map(([code, weight], position) => ({
        keyId: key!.id,
        companyId,
        position,
        costCentreId: centreIds.get(code)!,
        weight,
      }));
      await db.insert(distributionPart).values(shares);
    }
    for (const [parent, parts] of Object.entries(centreParts))
      await db
        .update(costCentre)
        .set({ parentId: centreIds.get(parent)! })
        .where(
          inArray(
            costCentre.id,
            parts.map((code) => centreIds.get(code)!),
          ),
        );
    for (const [code, owner] of Object.entries(centreOwners))
      await db
        .update(costCentre)
        .set({ ownerId: persons.get(owner)! })
        .where(eq(costCentre.id, centreIds.get(code)!));
    const codeAt = (rate: string | null) =>
      found(
        codes.find((c) => !c.reverseCharge && Number(c.rate) === Number(rate ?? '0')),
        `tax code at ${rate}%`,
      );
    made.set(own.code, {
      id: companyId,
      baseCurrency: own.baseCurrency,
      account: (c) => found(accountIds.get(c), `account ${c}`),
      centre: (c) => found(centreIds.get(c), `cost centre ${c}`),
      codeAt,
      dimensions: own.code === 'MBG' ? await writeDimensions(db, companyId, centreIds, accountIds) : () => ({}),
    });
    await writeBudgets(db, companyId, year, accountIds, centreIds);
    await writeItems(db, companyId, own.baseCurrency, accountIds, codes);
    await writeTerms(db, companyId);
    const own_rates = Object.entries(rates[own.baseCurrency]!).flatMap(([currency, rate]) =>
      Array.from({ length: 37 }, (_, i) => ({
        companyId,
        currency,
        day: addDays(today, -30 * (36 - i)),
        rate: (rate * (1 + (((i * 7) % 5) - 2) * 0.004)).toFixed(6),
      })),
    );
    await db.insert(exchangeRate).values(own_rates);
    const mine = suppliers.filter((s) => s.company === own.code);
    const rows = mine.map((s, i) => ({
      companyId,
      code: `S${1001 + i}`,
      name: s.name,
      taxId: s.taxId ? squash(s.taxId) : null,
      email: `accounts@${s.domain}`,
      phone: s.phone,
      address: `${s.street}, ${s.town}`,
      country: s.country,
      currency: s.currency,
      terms: s.terms,
      accountId: accountIds.get(s.account)!,
      costCentreId: centreIds.get(s.centre)!,
      taxCodeId: codeAt(s.items[0]!.rate).id,
    }));
    for (const s of await db.insert(supplier).values(rows).returning()) supplierIds.set(s.name, s.id);
    const banked = mine.filter((s) => s.iban);
    await db.insert(bankAccount).values(
      banked.map((s) => ({
        companyId,
        supplierId: supplierIds.get(s.name)!,
        iban: squash(s.iban),
        note: 'Taken over with the supplier list',
        verifiedAt: new Date(`${addDays(today, -700)}T09:00:00Z`),
        how: 'Taken over with the supplier list',
      })),
    );
    await db
      .insert(membership)
      .values(people.flatMap((p) => (p.roles[own.code] ?? []).map((role) => ({ personId: persons.get(p.name)!, companyId, role }))));
  }
  return {
    company: (code) => found(made.get(code), `company ${code}`),
    supplier: (name) => found(supplierIds.get(name), `supplier ${name}`),
    person: (name) => found(persons.get(name), `person ${name}`),
  };
}

/**
 * The whole demo on an empty database: master data and history in one transaction, then documents through the real doors. One that was
 * broken off goes on where it was.
 */
export async function loadDemo(services: Services, doors: Doors): Promise<void> {
  const { db } = services.database;
  const today = services.now().toISOString().slice(0, 10);
  if (await isEmpty(services))
    await transaction(db, async (tx) => {
      const master = await writeMaster(tx, today);
      await writeHistory(tx, master, today);
      await writeOrders(tx, master, today);
    });
  await besideTheBills(services);
  await moveAlong(services, await firstDocuments(services, doors, today));
  await db.update(organisation).set({ ready: true });
}

/** The demo's people as callers, for moving bills along as they would. */
export async function callerOf(services: Services, name: string, companyId: string) {
  const me = found((await meOf(services.database.db, eq(person.name, name))) ?? undefined, `person ${name}`);
  const company = found(
    me.companies.find((c) => c.id === companyId),
    `role of ${name} there`,
  );
  return { me, company, source: 'demo' };
}
