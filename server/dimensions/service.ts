import { and, eq } from 'drizzle-orm';
import { dimensionFields, type DimensionField } from '@ledgerline/core/bills';
import { PutDimension, PutDimensionValue, type Asset } from '@ledgerline/contract';
import { rowIn } from '../accounts/row.ts';
import { recheckBills } from '../bills/checking.ts';
import { command, type Caller, type Params } from '../commands/command.ts';
import type { Executor } from '../db/client.ts';
import { dimension, dimensionValue } from '../db/schema/index.ts';
import { difference } from '../events/record.ts';
import { notFound, Refusal } from '../http/problems.ts';
import { setGoing } from './going.ts';

type Row = typeof dimension.$inferSelect;

async function dimensionIn(tx: Executor, caller: Caller, params: Params): Promise<Row> {
  const [row] = await tx
    .select()
    .from(dimension)
    .where(and(eq(dimension.companyId, caller.company.id), eq(dimension.field, params['field'] as DimensionField)))
    .for('update');
  if (!row) throw notFound('This dimension');
  return row;
}
const columns = ({ name, always, active, assets }: PutDimension) => ({
  name: name.trim(),
  always,
  active,
  ...(assets === undefined ? {} : { assets }),
});

/** A dimension more. There is room for six. */
export const newDimension = command({ body: PutDimension, may: 'settings:edit' }, async (tx, caller, input, hand) => {
  const companyId = caller.company.id,
    put = columns(input);
  const there = await tx.select({ field: dimension.field }).from(dimension).where(eq(dimension.companyId, companyId)).for('update');
  const field = dimensionFields.find((f) => !there.some((d) => d.field === f));
  if (!field)
    throw new Refusal(422, `There are ${dimensionFields.length} dimensions already, and no room for more. Rename one that is closed.`);
  const made = await tx
    .insert(dimension)
    .values({ companyId, field, ...put })
    .onConflictDoNothing({ target: [dimension.companyId, dimension.field] })
    .returning();
  if (made.length === 0) throw new Refusal(409, 'Somebody else made a dimension at this moment. Please try again.');
  hand.record({ subject: { type: 'dimension', id: null }, verb: 'made', note: put.name, after: put });
  if (put.always) await recheckBills(tx, caller.company, 'all', { personId: caller.me.id, now: hand.now });
  return { field };
});

export const changeDimension = command(
  { body: PutDimension, may: 'settings:edit', subject: dimensionIn },
  async (tx, caller, input, hand) => {
    const { companyId, field, ...was } = hand.subject,
      put = columns(input);
    await tx
      .update(dimension)
      .set(put)
      .where(and(eq(dimension.companyId, companyId), eq(dimension.field, field)));
    const changed = difference(was, put);
    if (changed) {
      hand.record({ subject: { type: 'dimension', id: null }, verb: 'changed', note: put.name, ...changed });
      await recheckBills(tx, caller.company, 'all', { personId: caller.me.id, now: hand.now });
    }
    return { field };
  },
);

/** What is known of an asset, as columns; only where the dimension is the one of assets. */
function assetColumns(of: Row, asset: Asset | undefined) {
  if (asset === undefined) return {};
  if (!of.assets && Object.values(asset).some((value) => value !== null))
    throw new Refusal(422, `${of.name} is not the dimension of fixed assets.`);
  const text = (value: string | null) => value?.trim() || null;
  return { accountId: asset.accountId, inUseFrom: asset.inUseFrom, serial: text(asset.serial), location: text(asset.location) };
}

const valueIn = rowIn(dimensionValue, 'This value');
const valueColumns = ({ code, name, active, validFrom, validTo }: PutDimensionValue) => ({
  code,
  name: name.trim(),
  active,
  validFrom,
  validTo,
});

export const newDimensionValue = command({ body: PutDimensionValue, may: 'settings:edit' }, async (tx, caller, input, hand) => {
  const companyId = caller.company.id,
    { field } = input,
    of = await dimensionIn(tx, caller, { field }),
    put = { ...valueColumns(input), ...assetColumns(of, input.asset) };
  const [made] = await tx
    .insert(dimensionValue)
    .values({ companyId, field, ...put })
    .returning({ id: dimensionValue.id });
  const { is: going } = await setGoing(tx, companyId, 'ofValueId', made!.id, input.going, field);
  hand.record({ subject: { type: 'dimension-value', id: made!.id }, verb: 'made', after: { ...put, going } });
  return { id: made!.id };
});

export const changeDimensionValue = command(
  { body: PutDimensionValue, may: 'settings:edit', subject: valueIn },
  async (tx, caller, input, hand) => {
    const { id, companyId, field, ...was } = hand.subject;
    if (input.field !== field)
      throw new Refusal(422, 'A value stays in its dimension.', [{ path: 'field', sentence: 'A value stays in its dimension.' }]);
    const put = { ...valueColumns(input), ...assetColumns(await dimensionIn(tx, caller, { field }), input.asset) };
    await tx.update(dimensionValue).set(put).where(eq(dimensionValue.id, id));
    const going = await setGoing(tx, companyId, 'ofValueId', id, input.going, field);
    const changed = difference({ ...was, going: going.was }, { ...put, going: going.is });
    if (changed) {
      hand.record({ subject: { type: 'dimension-value', id }, verb: 'changed', ...changed });
      await recheckBills(tx, caller.company, { coding: field, id }, { personId: caller.me.id, now: hand.now });
    }
    return { id };
  },
);
