import { and, eq } from 'drizzle-orm';
import type { Context } from 'hono';
import type { ConfirmFactor, Me, SecondFactor, SignIn } from '@ledgerline/contract';
import { person } from '../db/schema/index.ts';
import { record, transaction } from '../events/record.ts';
import { addressOf } from '../http/door.ts';
import { Refusal } from '../http/problems.ts';
import type { Services } from '../services.ts';
import { countsOf, countTry, forgiveTry, stretchMinutes, sweepTries } from './attempts.ts';
import { factorOf, newSecret, stepOf, takeStep } from './factor.ts';
import { fitsHash, hashPassword } from './passwords.ts';
import { beginSession, deviceFor, endSession, endSessionsOf, rememberDevice, sessionOf } from './sessions.ts';

/** Who is signed in and in which session: what people do with their own sign-in is about themselves alone. */
export interface SignedIn {
  me: Me;
  sessionId: string;
}

/** Writes into the organisation's part of the event log what somebody did with a sign-in. */
export async function noteSignIn(services: Services, verb: string, personId: string | null, note: string | null, by = personId) {
  await transaction(services.database.db, async (tx) =>
    record(tx, {
      companyId: null,
      subject: { type: 'sign-in', id: personId },
      verb,
      by: { personId: by, source: 'web' },
      at: services.now(),
      note,
    }),
  );
}

const tooMany = `Too many tries. Wait ${stretchMinutes} minutes and try again; a browser in which you have signed in before may go on.`;
const wrong = 'This address and password do not go together.';

/**
 * Signs somebody in. The try is counted before anything is compared, and every way takes the same work: neither the answer nor its time
 * tells whether there is such a person. With a second factor, the code is asked for once the password is right.
 */
export async function signIn(services: Services, c: Context, { email, password, code }: SignIn): Promise<void> {
  const { db } = services.database,
    now = services.now(),
    address = addressOf(c, services.door),
    key = email.trim().toLowerCase();
  const [found] = await db.select().from(person).where(eq(person.email, key));
  const counted = countsOf(key, address, await deviceFor(services, c, key));
  const over = await countTry(db, counted, now);
  if (over === 1) await noteSignIn(services, 'sign-in held', found?.id ?? null, `from ${address}`, null);
  if (over > 0) throw new Refusal(429, tooMany);
  if (!(await fitsHash(found?.passwordHash ?? null, password)) || !found) {
    await noteSignIn(services, 'sign-in refused', found?.id ?? null, `from ${address}`, null);
    throw new Refusal(401, wrong);
  }
  if (found.totpSecret) {
    if (!code) throw new Refusal(401, 'Enter the six digits that your authenticator shows now.', [], 'code');
    const step = stepOf(found.totpSecret, code, now);
    if (step === null || !(await takeStep(db, found.id, step))) {
      await noteSignIn(services, 'code refused', found.id, `from ${address}`, null);
      throw new Refusal(401, 'These digits are not right, or were used already. Wait for the next ones.', [], 'code');
    }
  }
  await forgiveTry(db, counted);
  await sweepTries(db, now);
  await beginSession(services, c, found.id);
  await rememberDevice(services, c, found.id);
  await noteSignIn(services, 'signed in', found.id, `from ${address}`);
}

/** One click, for the invented people of the demo only. */
export async function demoSignIn(services: Services, c: Context, personId: string): Promise<void> {
  const [found] = await services.database.db
    .select()
    .from(person)
    .where(and(eq(person.id, personId), eq(person.demo, true)));
  if (!found) throw new Refusal(403, 'Only people of the demo can be signed in without a password.');
  await beginSession(services, c, found.id);
  await noteSignIn(services, 'signed in', found.id, 'demo');
}

export async function signOut(services: Services, c: Context): Promise<void> {
  const was = await sessionOf(services, c);
  await endSession(services, c);
  if (was) await noteSignIn(services, 'signed out', was.me.id, null);
}

/** The person's row, once their password has been given again, counted like a sign-in. */
async function proven(services: Services, c: Context, { me }: SignedIn, password: string) {
  const { db } = services.database;
  const [own] = await db.select().from(person).where(eq(person.id, me.id));
  const counted = countsOf(`own ${me.id}`, addressOf(c, services.door), null);
  if ((await countTry(db, counted, services.now())) > 0) throw new Refusal(429, tooMany);
  if (!own || !(await fitsHash(own.passwordHash, password)))
    throw new Refusal(422, 'This is not your password.', [{ path: 'password', sentence: 'This is not your password.' }]);
  await forgiveTry(db, counted);
  return own;
}

/** Changes the password; everywhere else the person is signed out. */
export async function changePassword(services: Services, c: Context, as: SignedIn, password: string, next: string): Promise<void> {
  const own = await proven(services, c, as, password);
  if (password === next) throw new Refusal(422, 'Choose another one.', [{ path: 'next', sentence: 'This is the password that you have.' }]);
  await services.database.db
    .update(person)
    .set({ passwordHash: await hashPassword(next) })
    .where(eq(person.id, own.id));
  await endSessionsOf(services.database.db, own.id, { keep: as.sessionId });
  await noteSignIn(services, 'password changed', own.id, null);
}

/** A secret for an authenticator. It counts once a code of it has been entered, and is kept nowhere until then. */
export async function beginFactor(services: Services, c: Context, as: SignedIn, password: string): Promise<SecondFactor> {
  const own = await proven(services, c, as, password);
  if (own.totpSecret) throw new Refusal(409, 'You have a second factor already. Take it off first.');
  return factorOf(newSecret(), own.email);
}

export async function confirmFactor(
  services: Services,
  c: Context,
  as: SignedIn,
  { password, secret, code }: ConfirmFactor,
): Promise<void> {
  const own = await proven(services, c, as, password);
  if (own.totpSecret) throw new Refusal(409, 'You have a second factor already. Take it off first.');
  const step = stepOf(secret, code, services.now());
  if (step === null) {
    const sentence = 'These are not the digits of now. Enter those that stand there now.';
    throw new Refusal(422, sentence, [{ path: 'code', sentence }]);
  }
  await services.database.db.update(person).set({ totpSecret: secret, totpStep: step }).where(eq(person.id, own.id));
  await noteSignIn(services, 'second factor on', own.id, null);
}

export async function dropFactor(services: Services, c: Context, as: SignedIn, password: string): Promise<void> {
  const own = await proven(services, c, as, password);
  await services.database.db.update(person).set({ totpSecret: null, totpStep: null }).where(eq(person.id, own.id));
  await noteSignIn(services, 'second factor off', own.id, null);
}

/** Signs the person out everywhere but here. */
export async function endElsewhere(services: Services, { me, sessionId }: SignedIn): Promise<void> {
  const ended = await endSessionsOf(services.database.db, me.id, { keep: sessionId });
  await noteSignIn(services, 'signed out everywhere else', me.id, `${ended} ended`);
}

/** Ends one of the person's own sessions; false where it is none of theirs. */
export async function endOne(services: Services, { me }: SignedIn, id: string): Promise<boolean> {
  const ended = await endSessionsOf(services.database.db, me.id, { one: id });
  if (ended > 0) await noteSignIn(services, 'signed out elsewhere', me.id, null);
  return ended > 0;
}
