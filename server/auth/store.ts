import { asc, eq } from 'drizzle-orm';
import type { Session } from '@ledgerline/contract';
import type { Executor } from '../db/client.ts';
import { membership, organisation, person } from '../db/schema/index.ts';

/** The organisation's name, null before it is set up, and the people of the demo who may be signed in with one click. */
export async function houseOf(db: Executor): Promise<Pick<Session, 'organisation' | 'demo'>> {
  const [org] = await db.select().from(organisation);
  return { organisation: org?.name ?? null, demo: org?.demo ? await demoPeople(db) : [] };
}

async function demoPeople(db: Executor): Promise<Session['demo']> {
  const rows = await db
    .select({ id: person.id, name: person.name, title: person.title, role: membership.role })
    .from(person)
    .leftJoin(membership, eq(membership.personId, person.id))
    .where(eq(person.demo, true))
    .orderBy(asc(person.id));
  const people = new Map<string, { id: string; name: string; title: string | null; roles: Set<string> }>();
  for (const { role, ...one } of rows) {
    const known = people.get(one.id) ?? { ...one, roles: new Set<string>() };
    if (role) known.roles.add(role);
    people.set(one.id, known);
  }
  return [...people.values()].map((p) => ({ ...p, roles: [...p.roles].join(', ') }));
}

export async function hasFactor(db: Executor, personId: string): Promise<boolean> {
  const [own] = await db.select({ secret: person.totpSecret }).from(person).where(eq(person.id, personId));
  return Boolean(own?.secret);
}
