import { Secret, TOTP } from 'otpauth';
import QRCode from 'qrcode';
import { and, eq, isNull, lt, or } from 'drizzle-orm';
import type { SecondFactor } from '@ledgerline/contract';
import type { Executor } from '../db/client.ts';
import { person } from '../db/schema/index.ts';

/** Six digits every thirty seconds (RFC 6238), as every authenticator has them. */
const seconds = 30;
const totp = (secret: string, label: string) =>
  new TOTP({ issuer: 'Ledgerline', label, algorithm: 'SHA1', digits: 6, period: seconds, secret: Secret.fromBase32(secret) });

export const newSecret = (): string => new Secret({ size: 20 }).base32;

/** What an authenticator is set up with. */
export async function factorOf(secret: string, email: string): Promise<SecondFactor> {
  const uri = totp(secret, email).toString();
  return { secret, uri, picture: await QRCode.toDataURL(uri, { margin: 1, width: 220 }) };
}

/** The time step for which a code is right, one before and after allowed for clocks that differ; null where it is wrong. */
export function stepOf(secret: string, code: string, now: Date): number | null {
  const delta = totp(secret, '').validate({ token: code.replace(/\s/g, ''), timestamp: now.getTime(), window: 1 });
  return delta === null ? null : Math.floor(now.getTime() / 1000 / seconds) + delta;
}

/** Takes a code once: the same one, or an earlier one, is not taken again. */
export async function takeStep(db: Executor, personId: string, step: number): Promise<boolean> {
  const taken = await db
    .update(person)
    .set({ totpStep: step })
    .where(and(eq(person.id, personId), or(isNull(person.totpStep), lt(person.totpStep, step))))
    .returning({ id: person.id });
  return taken.length === 1;
}
