import { asc, eq } from 'drizzle-orm';
import { may, type Colleagues, type PersonList, type PersonRow } from '@ledgerline/contract';
import type { Executor } from '../db/client.ts';
import { everything, rangesIn } from './ranges.ts';
import { membership, person } from '../db/schema/index.ts';

/** The company's people with their roles, by name; and whether nobody could approve what another sends on. */
export async function listPeople(db: Executor, companyId: string): Promise<PersonList> {
  const rows = await db
    .select({ id: person.id, name: person.name, email: person.email, title: person.title, role: membership.role })
    .from(membership)
    .innerJoin(person, eq(person.id, membership.personId))
    .where(eq(membership.companyId, companyId))
    .orderBy(asc(person.name), asc(membership.role));
  const ranges = await rangesIn(db, companyId);
  const people = new Map<string, PersonRow>();
  for (const { role, ...one } of rows) {
    const known = people.get(one.id);
    if (known) known.roles.push(role);
    else people.set(one.id, { ...one, roles: [role], range: ranges.get(one.id) ?? everything });
  }
  const all = [...people.values()];
  const coders = all.filter((p) => may(p.roles, 'bills:edit')),
    approvers = all.filter((p) => may(p.roles, 'bills:approve'));
  return { people: all, lonely: !coders.some((c) => approvers.some((a) => a.id !== c.id)) };
}

/** The company's people by name, as everybody in it may know of each other. */
export async function colleaguesOf(db: Executor, companyId: string): Promise<Colleagues> {
  const { people } = await listPeople(db, companyId);
  return { people: people.map(({ id, name, roles }) => ({ id, name, codes: may(roles, 'bills:edit') })) };
}
