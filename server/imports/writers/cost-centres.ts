import { eq } from 'drizzle-orm';
import { alias } from 'drizzle-orm/pg-core';
import { keyOf, lists } from '@ledgerline/core/imports';
import { costCentre, person } from '../../db/schema/index.ts';
import { dimensionIds, goingCells, putGoing, tidied, wrongDimensions } from './going.ts';
import { centreIds, personIds } from './ids.ts';
import { joinParents } from './parents.ts';
import { flag, idOf, text, type Writer } from './types.ts';
import { upsert } from './upsert.ts';

const spec = lists['cost-centres'];

export const costCentreWriter: Writer = {
  spec,
  table: costCentre,
  subject: 'cost-centre',
  fresh: () => ({ parent: null, owner: null, going: null, active: true, validFrom: null, validTo: null }),
  async current(tx, companyId) {
    const parent = alias(costCentre, 'parent');
    const rows = await tx
      .select({ c: costCentre, parent: parent.code, owner: person.email })
      .from(costCentre)
      .leftJoin(parent, eq(parent.id, costCentre.parentId))
      .leftJoin(person, eq(person.id, costCentre.ownerId))
      .where(eq(costCentre.companyId, companyId));
    const going = await goingCells(tx, companyId);
    return new Map(
      rows.map(({ c: { id, code, name, active, validFrom, validTo }, ...named }) => {
        const values = { code, name, ...named, going: going.get(id) ?? null, active, validFrom, validTo };
        return [keyOf(spec, values), { id, values }];
      }),
    );
  },
  ids: async (tx, companyId) => ({
    'cost-centre': await centreIds(tx, companyId),
    person: await personIds(tx, companyId),
    ...(await dimensionIds(tx, companyId)),
  }),
  tidy: (values, _, ids) => ({ ...values, going: tidied(values['going'], 'dimension-value', ids) }),
  doubts: (values, _, _own, ids) => wrongDimensions(null, values['going'], ids),
  async put(tx, companyId, rows, ids) {
    await upsert(
      tx,
      costCentre,
      rows.map(({ id, values: v }) => ({
        id,
        companyId,
        code: text(v['code'])!,
        name: text(v['name'])!,
        ownerId: idOf(ids, 'person', v['owner']),
        active: flag(v['active']),
        validFrom: text(v['validFrom']),
        validTo: text(v['validTo']),
      })),
      ['id'],
    );
    await putGoing(tx, companyId, 'costCentreId', rows, ids);
  },
  join: joinParents(costCentre, 'cost-centre'),
};
