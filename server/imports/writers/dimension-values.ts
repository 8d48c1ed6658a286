import { eq, sql } from 'drizzle-orm';
import type { DimensionField } from '@ledgerline/core/bills';
import { keyOf, lists } from '@ledgerline/core/imports';
import { dimension, dimensionValue } from '../../db/schema/index.ts';
import { flag, idOf, text, type Writer } from './types.ts';
import { upsert } from './upsert.ts';

const spec = lists['dimension-values'];

export const dimensionValueWriter: Writer = {
  spec,
  table: dimensionValue,
  subject: 'dimension-value',
  fresh: () => ({ active: true, validFrom: null, validTo: null }),
  async current(tx, companyId) {
    const rows = await tx
      .select({ v: dimensionValue, dimension: dimension.name })
      .from(dimensionValue)
      .innerJoin(dimension, sql`${dimension.companyId} = ${dimensionValue.companyId} and ${dimension.field} = ${dimensionValue.field}`)
      .where(eq(dimensionValue.companyId, companyId));
    return new Map(
      rows.map(({ v: { id, code, name, active, validFrom, validTo }, dimension: of }) => {
        const values = { dimension: of, code, name, active, validFrom, validTo };
        return [keyOf(spec, values), { id, values }];
      }),
    );
  },
  /** Dimensions by name: lines know them by their field. */
  async ids(tx, companyId) {
    const rows = await tx
      .select({ name: dimension.name, field: dimension.field })
      .from(dimension)
      .where(eq(dimension.companyId, companyId));
    return { dimension: new Map(rows.map((d) => [d.name.toLowerCase(), d.field])) };
  },
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
      })),
      ['id'],
    );
  },
};
