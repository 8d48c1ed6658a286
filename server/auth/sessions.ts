import { createHash, randomBytes } from 'node:crypto';
import { and, desc, eq, gt, lt, ne, or, type SQL } from 'drizzle-orm';
import type { Context } from 'hono';
import { deleteCookie, getCookie, setCookie } from 'hono/cookie';
import type { Me, SessionRow } from '@ledgerline/contract';
import type { Executor } from '../db/client.ts';
import { device, person, session } from '../db/schema/index.ts';
import { cleaned } from '../db/text.ts';
import { addressOf } from '../http/door.ts';
import type { Services } from '../services.ts';
import { meFrom, meOf, membersBy } from './people.ts';

/** A session ends this long after its beginning, and this long after the person last did something. */
export const sessionLimits = { hours: 14, idleMinutes: 120 };
const deviceDays = 400;
const minute = 60_000;

const hashOf = (token: string): string => createHash('sha256').update(token).digest('hex');
const newToken = (): string => randomBytes(32).toString('base64url');

/** Under TLS the browser itself holds a cookie to this host, path and connection by its name (RFC 6265bis, 4.1.3.2). */
const named = (services: Services, name: string): string => (services.door.secure ? `__Host-${name}` : name);
const keepCookie = (services: Services, c: Context, name: string, value: string, seconds: number): void =>
  setCookie(c, named(services, name), value, {
    httpOnly: true,
    sameSite: 'Strict',
    path: '/',
    maxAge: seconds,
    secure: services.door.secure,
  });

const alive = (now: Date): SQL =>
  and(gt(session.expiresAt, now), gt(session.seenAt, new Date(now.getTime() - sessionLimits.idleMinutes * minute)))!;

/** Begins a session in this browser; the one that it had ends, and so does whatever is over. */
export async function beginSession(services: Services, c: Context, personId: string): Promise<void> {
  const { db } = services.database,
    now = services.now(),
    token = newToken(),
    before = getCookie(c, named(services, 'ledgerline'));
  await sweepSessions(db, now);
  if (before) await db.delete(session).where(eq(session.tokenHash, hashOf(before)));
  await db.insert(session).values({
    tokenHash: hashOf(token),
    personId,
    startedAt: now,
    seenAt: now,
    expiresAt: new Date(now.getTime() + sessionLimits.hours * 60 * minute),
    agent: cleaned(c.req.header('user-agent') ?? '').slice(0, 300) || null,
    address: addressOf(c, services.door),
  });
  keepCookie(services, c, 'ledgerline', token, sessionLimits.hours * 3600);
}

/** Remembers that this person has signed in in this browser. */
export async function rememberDevice(services: Services, c: Context, personId: string): Promise<void> {
  const token = newToken(),
    now = services.now();
  const before = getCookie(c, named(services, 'ledgerline-device'));
  if (before) await services.database.db.delete(device).where(and(eq(device.tokenHash, hashOf(before)), eq(device.personId, personId)));
  await services.database.db.insert(device).values({ tokenHash: hashOf(token), personId, usedAt: now });
  keepCookie(services, c, 'ledgerline-device', token, deviceDays * 86_400);
}

/** The browser's own mark where whoever has this mail address has signed in with it before; null where nobody has. */
export async function deviceFor(services: Services, c: Context, email: string): Promise<string | null> {
  const token = getCookie(c, named(services, 'ledgerline-device'));
  if (!token) return null;
  const [known] = await services.database.db
    .select({ hash: device.tokenHash })
    .from(device)
    .innerJoin(person, eq(person.id, device.personId))
    .where(and(eq(device.tokenHash, hashOf(token)), eq(person.email, email)));
  return known?.hash ?? null;
}

/** The request's session with its person, companies and roles; null where there is none or it is over. Being used, it lives on. */
export async function sessionOf(services: Services, c: Context): Promise<{ id: string; me: Me } | null> {
  const token = getCookie(c, named(services, 'ledgerline'));
  if (!token) return null;
  const { db } = services.database,
    now = services.now();
  const rows = await membersBy(db)
    .innerJoin(session, eq(session.personId, person.id))
    .where(and(eq(session.tokenHash, hashOf(token)), alive(now)));
  const found = rows[0]?.session,
    me = meFrom(rows);
  if (!found || !me) return null;
  // What a screen fetches by itself while nobody is there is no use of it.
  if (now.getTime() - found.seenAt.getTime() > minute && c.req.header('ledgerline-idle') === undefined)
    await db.update(session).set({ seenAt: now }).where(eq(session.id, found.id));
  return { id: found.id, me };
}

/** Whether a session still lives: for streams, which began with it. */
export async function isAlive(services: Services, id: string): Promise<Me | null> {
  const { db } = services.database;
  const [found] = await db
    .select({ personId: session.personId })
    .from(session)
    .where(and(eq(session.id, id), alive(services.now())));
  return found ? meOf(db, eq(person.id, found.personId)) : null;
}

export async function endSession(services: Services, c: Context): Promise<void> {
  const token = getCookie(c, named(services, 'ledgerline'));
  if (token) await services.database.db.delete(session).where(eq(session.tokenHash, hashOf(token)));
  deleteCookie(c, named(services, 'ledgerline'), { path: '/', secure: services.door.secure });
}

/** Ends a person's sessions, but for the one that is kept; `one` ends only that. Gives how many ended. */
export async function endSessionsOf(db: Executor, personId: string, { keep, one }: { keep?: string; one?: string }): Promise<number> {
  const ended = await db
    .delete(session)
    .where(and(eq(session.personId, personId), keep ? ne(session.id, keep) : undefined, one ? eq(session.id, one) : undefined))
    .returning({ id: session.id });
  return ended.length;
}

/** Where a person is signed in, the latest first. */
export async function sessionsOf(db: Executor, personId: string, here: string, now: Date): Promise<SessionRow[]> {
  const rows = await db
    .select()
    .from(session)
    .where(and(eq(session.personId, personId), alive(now)))
    .orderBy(desc(session.seenAt), desc(session.id));
  return rows.map(({ id, startedAt, seenAt, agent, address }) => ({
    id,
    here: id === here,
    startedAt: startedAt.toISOString(),
    seenAt: seenAt.toISOString(),
    agent,
    address,
  }));
}

/** Sessions that are over go, and browsers that nobody came back with. */
export async function sweepSessions(db: Executor, now: Date): Promise<void> {
  await db
    .delete(session)
    .where(or(lt(session.expiresAt, now), lt(session.seenAt, new Date(now.getTime() - sessionLimits.idleMinutes * minute))));
  await db.delete(device).where(lt(device.usedAt, new Date(now.getTime() - deviceDays * 86_400_000)));
}
