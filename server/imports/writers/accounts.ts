import { eq } from 'drizzle-orm';
import { alias } from 'drizzle-orm/pg-core';
import { keyOf, lists } from '@ledgerline/core/imports';
import { ledgerAccount, taxCode } from '../../db/schema/index.ts';
import { listDimensions } from '../../dimensions/store.ts';
import { dimensionIds, fieldsIn, goingCells, needsCell, putGoing, tidied, wrongDimensions } from './going.ts';
import { accountIds, taxCodeIds } from './ids.ts';
import { joinParents } from './parents.ts';
import { flag, idOf, text, type Writer } from './types.ts';
import { upsert } from './upsert.ts';

const spec = lists.accounts;

export const accountWriter: Writer = {
  spec,
  table: ledgerAccount,
  subject: 'account',
  fresh: ({ kind }) => ({
    group: typeof kind === 'string' ? `${kind[0]!.toUpperCase()}${kind.slice(1)}` : 'Accounts',
    parent: null,
    taxCode: null,
    needsCostCentre: false,
    postable: true,
    needsDimensions: null,
    going: null,
    active: true,
    validFrom: null,
    validTo: null,
  }),
  async current(tx, companyId) {
    const parent = alias(ledgerAccount, 'parent');
    const rows = await tx
      .select({ a: ledgerAccount, parent: parent.code, taxCode: taxCode.code })
      .from(ledgerAccount)
      .leftJoin(parent, eq(parent.id, ledgerAccount.parentId))
      .leftJoin(taxCode, eq(taxCode.id, ledgerAccount.taxCodeId))
      .where(eq(ledgerAccount.companyId, companyId));
    const going = await goingCells(tx, companyId),
      called = new Map((await listDimensions(tx, companyId)).map((d) => [d.field, d.name]));
    return new Map(
      rows.map(({ a, ...named }) => {
        const { code, name, group, kind, needsCostCentre, postable, active, validFrom, validTo } = a;
        const more = { needsDimensions: needsCell(a.needsDimensions, called), going: going.get(a.id) ?? null };
        const values = { code, name, group, kind, ...named, needsCostCentre, postable, ...more, active, validFrom, validTo };
        return [keyOf(spec, values), { id: a.id, values }];
      }),
    );
  },
  ids: async (tx, companyId) => ({
    account: await accountIds(tx, companyId),
    'tax-code': await taxCodeIds(tx, companyId),
    ...(await dimensionIds(tx, companyId)),
  }),
  tidy: (values, _, ids) => ({
    ...values,
    needsDimensions: tidied(values['needsDimensions'], 'dimension', ids),
    going: tidied(values['going'], 'dimension-value', ids),
  }),
  doubts: (values, _, _own, ids) => wrongDimensions(values['needsDimensions'], values['going'], ids),
  async put(tx, companyId, rows, ids) {
    await upsert(
      tx,
      ledgerAccount,
      rows.map(({ id, values: v }) => ({
        id,
        companyId,
        code: text(v['code'])!,
        name: text(v['name'])!,
        group: text(v['group']) ?? 'Accounts',
        kind: text(v['kind'])!,
        needsCostCentre: flag(v['needsCostCentre']),
        postable: flag(v['postable']),
        taxCodeId: idOf(ids, 'tax-code', v['taxCode']),
        needsDimensions: fieldsIn(v['needsDimensions'], ids),
        active: flag(v['active']),
        validFrom: text(v['validFrom']),
        validTo: text(v['validTo']),
      })),
      ['id'],
    );
    await putGoing(tx, companyId, 'accountId', rows, ids);
  },
  join: joinParents(ledgerAccount, 'account'),
};
