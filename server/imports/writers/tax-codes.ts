import { eq } from 'drizzle-orm';
import { alias } from 'drizzle-orm/pg-core';
import { isIsoDate } from '@ledgerline/core/dates';
import { dec } from '@ledgerline/core/money';
import { keyOf, lists } from '@ledgerline/core/imports';
import { ledgerAccount, taxCode } from '../../db/schema/index.ts';
import { accountIds } from './ids.ts';
import { flag, idOf, text, type Writer } from './types.ts';
import { upsert } from './upsert.ts';

const spec = lists['tax-codes'];

/** "2027-01-01 21; 2028-07-01 22": each rate from its day on, in percent, the earliest first. Null where that cannot be read. */
function ratesIn(cell: unknown): { from: string; rate: string }[] | null {
  const pieces = (text(cell) ?? '').split(';').map((p) => p.trim()).filter((p) => p !== ''); // prettier-ignore
  const rates = pieces.map((piece) => {
    const [, from, rate] = /^(\d{4}-\d\d-\d\d)\s+(\d{1,3}(?:[.,]\d{1,4})?)\s*%?$/.exec(piece) ?? [];
    const percent = rate?.replace(',', '.');
    return from && percent && isIsoDate(from) && dec(percent).lte(100) ? { from, rate: percent } : null;
  });
  return rates.some((r) => r === null) ? null : rates.flatMap((r) => r ?? []).sort((a, b) => (a.from < b.from ? -1 : 1));
}
const cellOf = (rates: readonly { from: string; rate: string }[] | null): string | null =>
  rates?.map((r) => `${r.from} ${r.rate}`).join('; ') || null;

export const taxCodeWriter: Writer = {
  spec,
  table: taxCode,
  subject: 'tax-code',
  fresh: () => ({
    recoverable: '100',
    reverseCharge: false,
    owedAccount: null,
    withheld: '0',
    withheldAccount: null,
    laterRates: null,
    active: true,
    validFrom: null,
    validTo: null,
  }),
  tidy: (values) => ({
    ...values,
    withheld: values['withheld'] ?? '0',
    laterRates: cellOf(ratesIn(values['laterRates'])) ?? text(values['laterRates']),
  }),
  async current(tx, companyId) {
    const owed = alias(ledgerAccount, 'owed'),
      held = alias(ledgerAccount, 'held');
    const rows = await tx
      .select({ t: taxCode, account: ledgerAccount.code, owedAccount: owed.code, withheldAccount: held.code })
      .from(taxCode)
      .innerJoin(ledgerAccount, eq(ledgerAccount.id, taxCode.accountId))
      .leftJoin(owed, eq(owed.id, taxCode.outputAccountId))
      .leftJoin(held, eq(held.id, taxCode.withheldAccountId))
      .where(eq(taxCode.companyId, companyId));
    return new Map(
      rows.map(
        ({ t: { id, code, name, rate, recoverable, reverseCharge, withheld, laterRates, active, validFrom, validTo }, ...named }) => {
          const more = { withheld, laterRates: cellOf(laterRates) };
          const values = { code, name, rate, recoverable, reverseCharge, ...named, ...more, active, validFrom, validTo };
          return [keyOf(spec, values), { id, values }];
        },
      ),
    );
  },
  ids: async (tx, companyId) => ({ account: await accountIds(tx, companyId) }),
  doubts(v) {
    const said = (sentence: string) => ({ severity: 'error' as const, sentence });
    const rates = ratesIn(v['laterRates']);
    return [
      ...(v['reverseCharge'] === true && !v['owedAccount'] ? [said('Reverse charge needs an account for the tax that is owed.')] : []),
      ...(dec(text(v['withheld']) ?? '0').gt(0) && !v['withheldAccount']
        ? [said('What is withheld needs an account that it is owed on.')]
        : []),
      ...(rates === null ? [said('Later rates are not understood. Write them as 2027-01-01 21; 2028-07-01 22.')] : []),
      ...(rates && new Set(rates.map((r) => r.from)).size < rates.length ? [said('Two rates begin on the same day.')] : []),
    ];
  },
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
        withheld: text(v['withheld']) ?? '0',
        withheldAccountId: idOf(ids, 'account', v['withheldAccount']),
        laterRates: ratesIn(v['laterRates']) ?? [],
        active: flag(v['active']),
        validFrom: text(v['validFrom']),
        validTo: text(v['validTo']),
      })),
      ['id'],
    );
  },
};
