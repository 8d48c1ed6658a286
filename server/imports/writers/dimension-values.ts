import { eq, sql } from 'drizzle-orm';
import type { DimensionField } from '@ledgerline/core/bills';
import { keyOf, lists } from '@ledgerline/core/imports';
import { dimension, dimensionValue, ledgerAccount } from '../../db/schema/index.ts';
import { dimensionIds, goingCells, putGoing, tidied, wrongDimensions } from './going.ts';
import { accountIds } from './ids.ts';
import { flag, idOf, text, type Writer } from './types.ts';
import { upsert } from './upsert.ts';

const spec = lists['dimension-values'];

export const dimensionValueWriter: Writer = {
  spec,
  table: dimensionValue,
  subject: 'dimension-value',
  fresh: () => ({
    active: true,
    validFrom: null,
    validTo: null,
    going: null,
    account: null,
    inUseFrom: null,
    serial: null,
    location: null,
  }),
  async current(tx, companyId) {
    const rows = await tx
      .select({ v: dimensionValue, dimension: dimension.name, account: ledgerAccount.code })
      .from(dimensionValue)
      .leftJoin(ledgerAccount, eq(ledgerAccount.id, dimensionValue.accountId))
      .innerJoin(dimension, sql`${dimension.companyId} = ${dimensionValue.companyId} and ${dimension.field} = ${dimensionValue.field}`)
      .where(eq(dimensionValue.companyId, companyId));
    const going = await goingCells(tx, companyId);
    return new Map(
      rows.map(({ v: { id, code, name, active, validFrom, validTo, inUseFrom, serial, location }, dimension: of, account }) => {
        const values = {
          dimension: of,
          code,
          name,
          active,
          validFrom,
          validTo,
          going: going.get(id) ?? null,
          account,
          inUseFrom,
          serial,
          location,
        };
        return [keyOf(spec, values), { id, values }];
      }),
    );
  },
  ids: async (tx, companyId) => ({ ...(await dimensionIds(tx, companyId)), account: await accountIds(tx, companyId) }),
  tidy: (values, _, ids) => ({ ...values, going: tidied(values['going'], 'dimension-value', ids) }),
  doubts: (values, _, _own, ids) => wrongDimensions(null, values['going'], ids),
  async put(tx, companyId, rows, ids) {
    await upsert(
      tx,
      dimensionValue,
      rows.map(({ id, values: v }) => ({
        id,
        companyId,
        field: idOf(ids, 'dimension', v['dimension']) as DimensionField,
        code: text(v['code'])!,
        name: text(v['name'])!,
        active: flag(v['active']),
        validFrom: text(v['validFrom']),
        validTo: text(v['validTo']),
        accountId: idOf(ids, 'account', v['account']),
        inUseFrom: text(v['inUseFrom']),
        serial: text(v['serial']),
        location: text(v['location']),
      })),
      ['id'],
    );
    await putGoing(tx, companyId, 'ofValueId', rows, ids);
  },
};
