import { eq } from 'drizzle-orm';
import { alias } from 'drizzle-orm/pg-core';
import { keyOf, lists } from '@ledgerline/core/imports';
import { ledgerAccount, taxCode } from '../../db/schema/index.ts';
import { accountIds } from './ids.ts';
import { flag, idOf, text, type Writer } from './types.ts';
import { upsert } from './upsert.ts';

const spec = lists['tax-codes'];

export const taxCodeWriter: Writer = {
  spec,
  table: taxCode,
  subject: 'tax-code',
  fresh: () => ({ recoverable: '100', reverseCharge: false, owedAccount: null, active: true, validFrom: null, validTo: null }),
  async current(tx, companyId) {
    const owed = alias(ledgerAccount, 'owed');
    const rows = await tx
      .select({ t: taxCode, account: ledgerAccount.code, owedAccount: owed.code })
      .from(taxCode)
      .innerJoin(ledgerAccount, eq(ledgerAccount.id, taxCode.accountId))
      .leftJoin(owed, eq(owed.id, taxCode.outputAccountId))
      .where(eq(taxCode.companyId, companyId));
    return new Map(
      rows.map(({ t: { id, code, name, rate, recoverable, reverseCharge, active, validFrom, validTo }, ...named }) => {
        const values = { code, name, rate, recoverable, reverseCharge, ...named, active, validFrom, validTo };
        return [keyOf(spec, values), { id, values }];
      }),
    );
  },
  ids: async (tx, companyId) => ({ account: await accountIds(tx, companyId) }),
  doubts: (v) =>
    v['reverseCharge'] === true && !v['owedAccount']
      ? [{ severity: 'error', sentence: 'Reverse charge needs an account for the tax that is owed.' }]
      : [],
  async put(tx, companyId, rows, ids) {
    await upsert(
      tx,
      taxCode,
      rows.map(({ id, values: v }) => ({
        id,
        companyId,
        code: text(v['code'])!,
        name: text(v['name'])!,
        rate: text(v['rate'])!,
        recoverable: text(v['recoverable']) ?? '100',
        reverseCharge: flag(v['reverseCharge']),
        accountId: idOf(ids, 'account', v['account'])!,
        outputAccountId: idOf(ids, 'account', v['owedAccount']),
        active: flag(v['active']),
        validFrom: text(v['validFrom']),
        validTo: text(v['validTo']),
      })),
      ['id'],
    );
  },
};
