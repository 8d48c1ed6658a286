import { eq } from 'drizzle-orm';
import { keyOf, lists } from '@ledgerline/core/imports';
import { exchangeRate } from '../../db/schema/index.ts';
import { text, type Writer } from './types.ts';
import { upsert } from './upsert.ts';

const spec = lists.rates;

export const rateWriter: Writer = {
  spec,
  table: exchangeRate,
  subject: 'rate',
  noted: (v) => `${text(v['currency'])} ${text(v['day'])}`,
  fresh: () => ({}),
  async current(tx, companyId) {
    const rows = await tx.select().from(exchangeRate).where(eq(exchangeRate.companyId, companyId));
    return new Map(
      rows.map(({ day, currency, rate }) => {
        const values = { day, currency, rate: rate.includes('.') ? rate.replace(/\.?0+$/, '') : rate };
        return [keyOf(spec, values), { id: '', values }];
      }),
    );
  },
  ids: () => Promise.resolve({}),
  async put(tx, companyId, rows) {
    await upsert(
      tx,
      exchangeRate,
      rows.map(({ values: v }) => ({ companyId, currency: text(v['currency'])!, day: text(v['day'])!, rate: text(v['rate'])! })),
      ['currency', 'day', 'companyId'],
    );
  },
};
