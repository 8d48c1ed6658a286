import { eq } from 'drizzle-orm';
import { keyOf, lists } from '@ledgerline/core/imports';
import { item, ledgerAccount, taxCode } from '../../db/schema/index.ts';
import { accountIds, taxCodeIds } from './ids.ts';
import { flag, idOf, text, type Writer } from './types.ts';
import { upsert } from './upsert.ts';

const spec = lists.items;

export const itemWriter: Writer = {
  spec,
  table: item,
  subject: 'item',
  fresh: () => ({ alsoCalled: null, unit: null, price: null, currency: null, account: null, taxCode: null, stocked: false, active: true }),
  async current(tx, companyId) {
    const rows = await tx
      .select({ i: item, account: ledgerAccount.code, taxCode: taxCode.code })
      .from(item)
      .leftJoin(ledgerAccount, eq(ledgerAccount.id, item.accountId))
      .leftJoin(taxCode, eq(taxCode.id, item.taxCodeId))
      .where(eq(item.companyId, companyId));
    return new Map(
      rows.map(({ i: { id, code, name, alsoCalled, unit, price, currency, stocked, active }, ...named }) => {
        const values = { code, name, alsoCalled, unit, price, currency, ...named, stocked, active };
        return [keyOf(spec, values), { id, values }];
      }),
    );
  },
  ids: async (tx, companyId) => ({ account: await accountIds(tx, companyId), 'tax-code': await taxCodeIds(tx, companyId) }),
  doubts: (v) =>
    (v['price'] === null) !== (v['currency'] === null)
      ? [{ severity: 'error', sentence: 'A price needs its currency, and a currency its price.' }]
      : [],
  async put(tx, companyId, rows, ids) {
    await upsert(
      tx,
      item,
      rows.map(({ id, values: v }) => ({
        id,
        companyId,
        code: text(v['code'])!,
        name: text(v['name'])!,
        alsoCalled: text(v['alsoCalled']),
        unit: text(v['unit']),
        price: text(v['price']),
        currency: text(v['currency']),
        accountId: idOf(ids, 'account', v['account']),
        taxCodeId: idOf(ids, 'tax-code', v['taxCode']),
        stocked: flag(v['stocked']),
        active: flag(v['active']),
      })),
      ['id'],
    );
  },
};
