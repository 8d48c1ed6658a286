import { eq } from 'drizzle-orm';
import { readTerms } from '@ledgerline/core/terms';
import { PutTerms } from '@ledgerline/contract';
import { rowIn } from '../accounts/row.ts';
import { command } from '../commands/command.ts';
import { paymentTerms } from '../db/schema/index.ts';
import { difference } from '../events/record.ts';
import { Refusal } from '../http/problems.ts';

export const notUnderstood = (): Refusal =>
  new Refusal(422, 'These terms are not understood. Write them as net 30, 30 eom, 2/10 n30, or in parts: 30% on receipt, 70% 30 days.', [
    { path: 'terms', sentence: 'Write terms as net 30, 30 eom or 2/10 n30.' },
  ]);

function columnsOf({ code, name, terms, alsoCalled, active }: PutTerms) {
  if (!readTerms(terms)) throw notUnderstood();
  return { code, name: name.trim(), terms: terms.trim(), alsoCalled: alsoCalled?.trim() || null, active };
}
const termsIn = rowIn(paymentTerms, 'These terms');

export const newTerms = command({ body: PutTerms, may: 'settings:edit' }, async (tx, caller, input, hand) => {
  const put = columnsOf(input);
  const [made] = await tx
    .insert(paymentTerms)
    .values({ ...put, companyId: caller.company.id })
    .returning({ id: paymentTerms.id });
  hand.record({ subject: { type: 'terms', id: made!.id }, verb: 'made', after: put });
  return { id: made!.id };
});

export const changeTerms = command({ body: PutTerms, may: 'settings:edit', subject: termsIn }, async (tx, _, input, hand) => {
  const { id, companyId: _company, ...was } = hand.subject,
    put = columnsOf(input);
  await tx.update(paymentTerms).set(put).where(eq(paymentTerms.id, id));
  const changed = difference(was, put);
  if (changed) hand.record({ subject: { type: 'terms', id }, verb: 'changed', ...changed });
  return { id };
});
