import { eq } from 'drizzle-orm';
import { keyOf, lists } from '@ledgerline/core/imports';
import { paymentTerms } from '../../db/schema/index.ts';
import { flag, text, type Writer } from './types.ts';
import { upsert } from './upsert.ts';

const spec = lists.terms;

export const termsWriter: Writer = {
  spec,
  table: paymentTerms,
  subject: 'terms',
  fresh: () => ({ alsoCalled: null, active: true }),
  async current(tx, companyId) {
    const rows = await tx.select().from(paymentTerms).where(eq(paymentTerms.companyId, companyId));
    return new Map(
      rows.map(({ id, code, name, terms, alsoCalled, active }) => {
        const values = { code, name, terms, alsoCalled, active };
        return [keyOf(spec, values), { id, values }];
      }),
    );
  },
  ids: async () => ({}),
  async put(tx, companyId, rows) {
    await upsert(
      tx,
      paymentTerms,
      rows.map(({ id, values: v }) => ({
        id,
        companyId,
        code: text(v['code'])!,
        name: text(v['name'])!,
        terms: text(v['terms'])!,
        alsoCalled: text(v['alsoCalled']),
        active: flag(v['active']),
      })),
      ['id'],
    );
  },
};
