import { eq } from 'drizzle-orm';
import { dec } from '@ledgerline/core/money';
import { PutItem } from '@ledgerline/contract';
import { rowIn } from '../accounts/row.ts';
import { command } from '../commands/command.ts';
import { item } from '../db/schema/index.ts';
import { difference } from '../events/record.ts';
import { Refusal } from '../http/problems.ts';

function columnsOf({ code, name, alsoCalled, unit, price, currency, accountId, taxCodeId, stocked, active }: PutItem) {
  if (price !== null && dec(price).lt(0))
    throw new Refusal(422, 'A price is zero or more.', [{ path: 'price', sentence: 'Zero or more.' }]);
  if ((price === null) !== (currency === null))
    throw new Refusal(422, 'A price needs its currency, and a currency its price.', [
      price === null ? { path: 'price', sentence: 'Which price?' } : { path: 'currency', sentence: 'In which currency?' },
    ]);
  const text = (value: string | null) => value?.trim() || null;
  return {
    code,
    name: name.trim(),
    alsoCalled: text(alsoCalled),
    unit: text(unit),
    price,
    currency,
    accountId,
    taxCodeId,
    stocked,
    active,
  };
}
const itemIn = rowIn(item, 'This item');

export const newItem = command({ body: PutItem, may: 'settings:edit' }, async (tx, caller, input, hand) => {
  const put = columnsOf(input);
  const [made] = await tx
    .insert(item)
    .values({ ...put, companyId: caller.company.id })
    .returning({ id: item.id });
  hand.record({ subject: { type: 'item', id: made!.id }, verb: 'made', after: put });
  return { id: made!.id };
});

export const changeItem = command({ body: PutItem, may: 'settings:edit', subject: itemIn }, async (tx, _, input, hand) => {
  const { id, companyId: _company, ...was } = hand.subject,
    put = columnsOf(input);
  await tx.update(item).set(put).where(eq(item.id, id));
  const changed = difference(was, put);
  if (changed) hand.record({ subject: { type: 'item', id }, verb: 'changed', ...changed });
  return { id };
});
