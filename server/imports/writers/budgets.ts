import { eq, sql } from 'drizzle-orm';
import { keyOf, lists, type ImportValues } from '@ledgerline/core/imports';
import { budget, costCentre, ledgerAccount } from '../../db/schema/index.ts';
import { accountIds, centreIds } from './ids.ts';
import { idOf, text, type Writer } from './types.ts';

const spec = lists.budgets;
const months = spec.fields.filter((f) => f.kind === 'decimal').map((f) => f.key);

/** A row is a year of an account: its months are written together. */
export const budgetWriter: Writer = {
  spec,
  table: budget,
  subject: 'budget',
  noted: (v) => [v['account'], v['costCentre'], v['year']].filter(Boolean).join(' '),
  fresh: () => Object.fromEntries(months.map((key) => [key, null])),
  async current(tx, companyId) {
    const rows = await tx
      .select({ b: budget, account: ledgerAccount.code, costCentre: costCentre.code })
      .from(budget)
      .innerJoin(ledgerAccount, eq(ledgerAccount.id, budget.accountId))
      .leftJoin(costCentre, eq(costCentre.id, budget.costCentreId))
      .where(eq(budget.companyId, companyId));
    const years = new Map<string, { id: string; values: ImportValues }>();
    for (const { b, ...named } of rows) {
      const values: ImportValues = { ...named, year: String(b.year) },
        key = keyOf(spec, values);
      const year = years.get(key) ?? { id: '', values: { ...values, ...Object.fromEntries(months.map((m) => [m, null])) } };
      year.values[months[b.month - 1]!] = b.amount;
      years.set(key, year);
    }
    return years;
  },
  ids: async (tx, companyId) => ({ account: await accountIds(tx, companyId), 'cost-centre': await centreIds(tx, companyId) }),
  async put(tx, companyId, rows, ids) {
    const years = rows.map(({ values: v }) => ({
      companyId,
      accountId: idOf(ids, 'account', v['account'])!,
      costCentreId: idOf(ids, 'cost-centre', v['costCentre']),
      year: Number(text(v['year'])),
      values: v,
    }));
    await tx.execute(sql`delete from budget b using unnest(${sql.param(years.map((y) => y.accountId))}::uuid[],
        ${sql.param(years.map((y) => y.costCentreId))}::uuid[], ${sql.param(years.map((y) => y.year))}::int[]) as y(account, centre, year)
      where b.company_id = ${companyId} and b.account_id = y.account and b.cost_centre_id is not distinct from y.centre and b.year = y.year`);
    const all = years.flatMap(({ values, ...year }) =>
      months.flatMap((key, i) => (text(values[key]) === null ? [] : [{ ...year, month: i + 1, amount: text(values[key])! }])),
    );
    // A statement has 65,535 values at most.
    for (let i = 0; i < all.length; i += 5000) await tx.insert(budget).values(all.slice(i, i + 5000));
  },
};
