import { asc, eq } from 'drizzle-orm';
import type { Choices } from '@ledgerline/contract';
import { costCentre, exchangeRate, ledgerAccount, supplier, taxCode } from '../db/schema/index.ts';
import type { Api } from '../http/define.ts';

export function accountRoutes(api: Api): void {
  api.define(
    {
      method: 'get',
      path: '/choices',
      access: 'bills:see',
      summary: 'Accounts, cost centres, tax codes and suppliers for type-ahead fields',
    },
    async ({ services, caller }): Promise<Choices> => {
      const { db } = services.database;
      const id = caller.company.id;
      const [accounts, centres, codes, suppliers, rates] = await Promise.all([
        db.select().from(ledgerAccount).where(eq(ledgerAccount.companyId, id)).orderBy(asc(ledgerAccount.code)),
        db.select().from(costCentre).where(eq(costCentre.companyId, id)).orderBy(asc(costCentre.code)),
        db.select().from(taxCode).where(eq(taxCode.companyId, id)).orderBy(asc(taxCode.code)),
        db.select().from(supplier).where(eq(supplier.companyId, id)).orderBy(asc(supplier.name)),
        db.selectDistinct({ currency: exchangeRate.currency }).from(exchangeRate).where(eq(exchangeRate.companyId, id)),
      ]);
      return {
        accounts: accounts
          .filter((a) => a.kind === 'expense' || a.kind === 'asset')
          .map((a) => ({ id: a.id, code: a.code, name: a.name, detail: a.group, kind: a.kind, needsCostCentre: a.kind === 'expense' })),
        costCentres: centres.map((c) => ({ id: c.id, code: c.code, name: c.name, detail: null })),
        taxCodes: codes.map((c) => ({
          id: c.id,
          code: c.code,
          name: c.name,
          detail: null,
          rate: c.rate,
          recoverable: c.recoverable,
          reverseCharge: c.reverseCharge,
        })),
        suppliers: suppliers.map((s) => ({ id: s.id, code: s.code, name: s.name, detail: s.taxId, currency: s.currency, terms: s.terms })),
        currencies: [caller.company.baseCurrency, ...rates.map((r) => r.currency).sort()],
      };
    },
  );
}
