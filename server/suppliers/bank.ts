import { and, eq } from 'drizzle-orm';
import { NewBankAccount, Nothing, VerifyBankAccount } from '@ledgerline/contract';
import { recheckBills } from '../bills/checking.ts';
import { command, type Caller, type Hand, type Params } from '../commands/command.ts';
import { mayWith } from '../commands/may.ts';
import type { Executor } from '../db/client.ts';
import { bankAccount } from '../db/schema/index.ts';
import { notFound, Refusal } from '../http/problems.ts';
import { asksIfShared, ibanOf, liveAccounts, supplierIn } from './service.ts';

type AccountRecord = typeof bankAccount.$inferSelect;

/** New bank details of a supplier: they wait until a second person has verified them. */
export const proposeAccount = command(
  { body: NewBankAccount, may: 'suppliers:edit', subject: supplierIn },
  async (tx, caller, input, hand) => {
    const iban = ibanOf(input.iban),
      supplierId = hand.subject.id;
    if ((await liveAccounts(tx, supplierId)).some((a) => a.iban === iban))
      throw new Refusal(409, 'This supplier has this bank account already.', [{ path: 'iban', sentence: 'Already there.' }]);
    await asksIfShared(tx, caller.company.id, { id: supplierId, iban }, input.evenSo ?? false);
    const [made] = await tx
      .insert(bankAccount)
      .values({
        companyId: caller.company.id,
        supplierId,
        iban,
        note: input.note.trim(),
        proposedBy: caller.me.id,
        proposedAt: hand.now,
      })
      .returning();
    await told(tx, caller, made!, hand, 'bank account entered', input.note.trim());
    return { id: made!.id };
  },
);

async function accountIn(tx: Executor, caller: Caller, params: Params): Promise<AccountRecord> {
  const [row] = await tx
    .select()
    .from(bankAccount)
    .where(and(eq(bankAccount.companyId, caller.company.id), eq(bankAccount.id, params['id']!)))
    .for('update');
  if (!row) throw notFound('This bank account');
  if (row.retiredAt) throw new Refusal(409, 'This bank account has been retired.');
  return row;
}

async function told(
  tx: Executor,
  caller: Caller,
  row: AccountRecord,
  hand: Hand<unknown>,
  verb: string,
  note: string | null,
): Promise<void> {
  hand.record({ subject: { type: 'supplier', id: row.supplierId }, verb, note, after: { iban: row.iban, account: row.id } });
  await recheckBills(tx, caller.company, { supplierId: row.supplierId }, { personId: caller.me.id, now: hand.now });
}

/** A second person says how the details were checked; from then on they count. */
export const verifyAccount = command(
  { body: VerifyBankAccount, may: 'suppliers:verify', subject: accountIn },
  async (tx, caller, input, hand) => {
    const row = hand.subject;
    if (row.verifiedAt) throw new Refusal(409, 'This bank account has been verified already.');
    mayWith(caller, 'suppliers:verify', row);
    await tx
      .update(bankAccount)
      .set({ verifiedBy: caller.me.id, verifiedAt: hand.now, how: input.how.trim() })
      .where(eq(bankAccount.id, row.id));
    await told(tx, caller, row, hand, 'bank account verified', input.how.trim());
    return {};
  },
);

/** A bank account that does not count any more, or that turned out to be wrong. */
export const retireAccount = command({ body: Nothing, may: 'suppliers:verify', subject: accountIn }, async (tx, caller, _, hand) => {
  await tx.update(bankAccount).set({ retiredAt: hand.now }).where(eq(bankAccount.id, hand.subject.id));
  await told(tx, caller, hand.subject, hand, 'bank account retired', null);
  return {};
});
