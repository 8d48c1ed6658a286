import { randomBytes } from 'node:crypto';
import { eq } from 'drizzle-orm';
import type { Db } from '../db/client.ts';
import { device, person } from '../db/schema/index.ts';
import { record, transaction } from '../events/record.ts';
import { hashPassword } from './passwords.ts';
import { endSessionsOf } from './sessions.ts';

/**
 * Lets somebody in again who has lost a password or a second factor: gives a new password, takes the second factor off, ends what they were
 * signed in to. For whoever runs the machine, never for anybody who is signed in: an administrator of one company would get at the others.
 * Throws where nobody has this mail address.
 */
export async function readmit(db: Db, email: string, now: Date): Promise<{ name: string; password: string }> {
  const password = randomBytes(12).toString('base64url');
  const passwordHash = await hashPassword(password);
  return transaction(db, async (tx) => {
    const [one] = await tx
      .update(person)
      .set({ passwordHash, totpSecret: null, totpStep: null })
      .where(eq(person.email, email.trim().toLowerCase()))
      .returning({ id: person.id, name: person.name });
    if (!one) throw new Error(`Nobody here has the address ${email}.`);
    await endSessionsOf(tx, one.id, {});
    await tx.delete(device).where(eq(device.personId, one.id));
    record(tx, {
      companyId: null,
      subject: { type: 'sign-in', id: one.id },
      verb: 'let in again',
      by: { personId: null, source: 'operator' },
      at: now,
      note: `${one.name}: new password, no second factor`,
    });
    return { name: one.name, password };
  });
}
