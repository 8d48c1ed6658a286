import { codingFields, type Coding } from '@ledgerline/core/bills';
import {
  AccountList,
  Changed,
  Choices,
  ChoicesQuery,
  CostCentreList,
  DistributionList,
  Currencies,
  ListQuery,
  Nothing,
  RateList,
  TaxCodeList,
} from '@ledgerline/contract';
import { decodeCursor, nextOf } from '../http/cursor.ts';
import type { Api } from '../http/define.ts';
import { choicesFor, currenciesOf } from './choices.ts';
import { changeDistribution, listDistributions, newDistribution } from './distributions.ts';
import { changeAccount, changeCostCentre, changeTaxCode, newAccount, newCostCentre, newTaxCode, putRate } from './service.ts';
import { listAccounts, listCostCentres, listRates, listTaxCodes } from './store.ts';

/** Stands where a list has no id: rates are told apart by day and currency. */
const noId = '00000000-0000-0000-0000-000000000000';
/** What else the line is coded with, as far as it is said. */
const besideOf = (query: Partial<Coding>): Partial<Coding> =>
  Object.fromEntries(codingFields.flatMap((f) => (query[f] ? [[f, query[f]]] : [])));
const byCode = (last: { code: string; id: string }): [string, string] => [last.code, last.id];

export function accountRoutes(api: Api): void {
  const { db } = api.services.database;
  api.query(
    { path: '/choices', access: 'bills:see', summary: 'What a type-ahead field offers', query: ChoicesQuery, answer: Choices },
    async ({ caller, query, services }) => ({
      choices: await choicesFor(
        db,
        caller,
        query.of,
        query.q ?? '',
        query.day ?? services.now().toISOString().slice(0, 10),
        besideOf(query),
      ),
    }),
  );
  api.query(
    { path: '/currencies', access: 'bills:see', summary: 'The company’s currency and those with rates', answer: Currencies },
    async ({ caller }) => ({ currencies: await currenciesOf(db, caller.company.id, caller.company.baseCurrency) }),
  );
  api.query(
    { path: '/accounts', access: 'settings:see', summary: 'The chart of accounts, by code', query: ListQuery, answer: AccountList },
    async ({ caller, query }) => {
      const limit = query.limit ?? 100;
      const accounts = await listAccounts(db, caller.company.id, query.q ?? '', decodeCursor(query.cursor, 'text'), limit);
      return { accounts, next: nextOf(accounts, limit, byCode) };
    },
  );
  api.command({ method: 'post', path: '/accounts', summary: 'A new ledger account', answer: Changed, tried: true }, newAccount);
  api.command(
    { method: 'put', path: '/accounts/:id', summary: 'Change or close a ledger account', answer: Changed, tried: true },
    changeAccount,
  );
  api.query(
    { path: '/cost-centres', access: 'settings:see', summary: 'Cost centres, by code', query: ListQuery, answer: CostCentreList },
    async ({ caller, query }) => {
      const limit = query.limit ?? 100;
      const costCentres = await listCostCentres(db, caller.company.id, query.q ?? '', decodeCursor(query.cursor, 'text'), limit);
      return { costCentres, next: nextOf(costCentres, limit, byCode) };
    },
  );
  api.command({ method: 'post', path: '/cost-centres', summary: 'A new cost centre', answer: Changed, tried: true }, newCostCentre);
  api.command(
    { method: 'put', path: '/cost-centres/:id', summary: 'Change or close a cost centre', answer: Changed, tried: true },
    changeCostCentre,
  );
  api.query({ path: '/tax-codes', access: 'settings:see', summary: 'Tax codes, by code', answer: TaxCodeList }, async ({ caller }) => ({
    taxCodes: await listTaxCodes(db, caller.company.id),
  }));
  api.command({ method: 'post', path: '/tax-codes', summary: 'A new tax code', answer: Changed, tried: true }, newTaxCode);
  api.command(
    { method: 'put', path: '/tax-codes/:id', summary: 'Change or close a tax code', answer: Changed, tried: true },
    changeTaxCode,
  );
  api.query(
    { path: '/distributions', access: 'bills:see', summary: 'Distribution keys, by name', answer: DistributionList },
    async ({ caller }) => ({ distributions: await listDistributions(db, caller.company.id) }),
  );
  api.command({ method: 'post', path: '/distributions', summary: 'A new distribution key', answer: Changed }, newDistribution);
  api.command(
    { method: 'put', path: '/distributions/:id', summary: 'Change or close a distribution key', answer: Changed },
    changeDistribution,
  );
  api.query(
    { path: '/rates', access: 'settings:see', summary: 'Exchange rates, newest first', query: ListQuery, answer: RateList },
    async ({ caller, query }) => {
      const limit = query.limit ?? 100,
        at = decodeCursor(query.cursor, 'text');
      const rates = await listRates(db, caller.company.id, at && { day: at[0].slice(0, 10), currency: at[0].slice(10) }, limit);
      return { rates, next: nextOf(rates, limit, (last) => [last.day + last.currency, noId]) };
    },
  );
  api.command({ method: 'put', path: '/rates', summary: 'Set the rate of a currency on a day', answer: Nothing, tried: true }, putRate);
}
