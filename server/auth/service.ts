import { createHash, randomBytes } from 'node:crypto';
import { hash, verify } from '@node-rs/argon2';
import { and, eq, gt, inArray, type SQL } from 'drizzle-orm';
import type { Context } from 'hono';
import { deleteCookie, getCookie, setCookie } from 'hono/cookie';
import type { Me, ScanSeparator } from '@ledgerline/contract';
import type { Executor } from '../db/client.ts';
import { company, membership, person, session } from '../db/schema/index.ts';
import type { Services } from '../services.ts';
import { Refusal } from '../http/problems.ts';

const cookie = 'ledgerline';
const hours = 14;
const tokenHash = (token: string): string => createHash('sha256').update(token).digest('hex');
export const hashPassword = (password: string): Promise<string> => hash(password);

async function begin(services: Services, c: Context, personId: string): Promise<void> {
  const token = randomBytes(32).toString('base64url');
  await services.database.db
    .insert(session)
    .values({ tokenHash: tokenHash(token), personId, expiresAt: new Date(services.now().getTime() + hours * 3_600_000) });
  setCookie(c, cookie, token, { httpOnly: true, sameSite: 'Strict', path: '/', maxAge: hours * 3600 });
}

// Ten wrong passwords for one address in ten minutes and it has to wait.
const misses = new Map<string, number[]>();

export async function signIn(services: Services, c: Context, email: string, password: string): Promise<void> {
  const key = email.trim().toLowerCase();
  const now = services.now().getTime();
  const recent = (misses.get(key) ?? []).filter((at) => now - at < 600_000);
  if (recent.length >= 10) throw new Refusal(429, 'Too many wrong passwords. Wait ten minutes and try again.');
  const [found] = await services.database.db.select().from(person).where(eq(person.email, key));
  if (!found || !(await verify(found.passwordHash, password).catch(() => false))) {
    misses.set(key, [...recent, now]);
    throw new Refusal(401, 'This address and password do not go together.');
  }
  misses.delete(key);
  await begin(services, c, found.id);
}

/** One click, for the invented people of the demo only. */
export async function demoSignIn(services: Services, c: Context, personId: string): Promise<void> {
  const [found] = await services.database.db
    .select()
    .from(person)
    .where(and(eq(person.id, personId), eq(person.demo, true)));
  if (!found) throw new Refusal(403, 'Only people of the demo can be signed in without a password.');
  await begin(services, c, found.id);
}

export async function signOut(services: Services, c: Context): Promise<void> {
  const token = getCookie(c, cookie);
  if (token) await services.database.db.delete(session).where(eq(session.tokenHash, tokenHash(token)));
  deleteCookie(c, cookie, { path: '/' });
}

/** The person behind the request's cookie with companies and roles, or null. */
export async function personOf(services: Services, c: Context): Promise<Me | null> {
  const token = getCookie(c, cookie);
  if (!token) return null;
  const { db } = services.database;
  const signedIn = db
    .select({ id: session.personId })
    .from(session)
    .where(and(eq(session.tokenHash, tokenHash(token)), gt(session.expiresAt, services.now())));
  return meOf(db, inArray(person.id, signedIn));
}

/** One person with companies and roles; null when nobody is such. */
export async function meOf(db: Executor, such: SQL): Promise<Me | null> {
  const rows = await db
    .select({ person, company, role: membership.role })
    .from(person)
    .leftJoin(membership, eq(membership.personId, person.id))
    .leftJoin(company, eq(company.id, membership.companyId))
    .where(such)
    .orderBy(company.id);
  const first = rows[0];
  if (!first) return null;
  const me: Me = { id: first.person.id, name: first.person.name, email: first.person.email, title: first.person.title, companies: [] };
  for (const row of rows) {
    if (!row.company || !row.role) continue;
    const known = me.companies.find((one) => one.id === row.company!.id);
    if (known) known.roles.push(row.role);
    else
      me.companies.push({
        id: row.company.id,
        code: row.company.code,
        name: row.company.name,
        baseCurrency: row.company.baseCurrency,
        mailAddress: row.company.mailAddress,
        scanSeparator: row.company.scanSeparator as ScanSeparator,
        roles: [row.role],
      });
  }
  return me;
}
