import { BudgetList, BudgetQuery, Nothing } from '@ledgerline/contract';
import { decodeCursor, nextOf } from '../http/cursor.ts';
import type { Api } from '../http/define.ts';
import { putBudget } from './service.ts';
import { budgetAt, listBudgets } from './store.ts';

export function budgetRoutes(api: Api): void {
  api.query(
    {
      path: '/budgets',
      access: 'settings:see',
      summary: 'A year’s budgets, by account and cost centre',
      query: BudgetQuery,
      answer: BudgetList,
    },
    async ({ services, caller, query }) => {
      const limit = query.limit ?? 100;
      const budgets = await listBudgets(
        services.database.db,
        caller.company.id,
        query.year,
        query.q ?? '',
        decodeCursor(query.cursor, 'text')?.[0] ?? null,
        limit,
      );
      return { budgets, next: nextOf(budgets, limit, (last) => [budgetAt(last), last.accountId]) };
    },
  );
  api.command({ method: 'put', path: '/budgets', summary: 'Set a year’s budget of an account', answer: Nothing }, putBudget);
}
