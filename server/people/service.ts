import { and, eq } from 'drizzle-orm';
import { NewPerson, SetRoles } from '@ledgerline/contract';
import { hashPassword } from '../auth/passwords.ts';
import { command, type Caller, type Params } from '../commands/command.ts';
import type { Executor } from '../db/client.ts';
import { membership, person } from '../db/schema/index.ts';
import { everything, rangeSaid, setRange } from './ranges.ts';
import { difference } from '../events/record.ts';
import { notFound, Refusal } from '../http/problems.ts';

async function rolesIn(tx: Executor, companyId: string, personId: string): Promise<string[]> {
  const rows = await tx
    .select({ role: membership.role })
    .from(membership)
    .where(and(eq(membership.companyId, companyId), eq(membership.personId, personId)))
    .orderBy(membership.role);
  return rows.map((r) => r.role);
}

/** A new person with a first password and roles in this company. Somebody who is in another company is added here by the address alone. */
export const newPerson = command({ body: NewPerson, may: 'people:edit' }, async (tx, caller, input, hand) => {
  const email = input.email.trim().toLowerCase();
  const [known] = await tx.select().from(person).where(eq(person.email, email));
  if (known && (await rolesIn(tx, caller.company.id, known.id)).length > 0)
    throw new Refusal(409, `${known.name} is here already. Change their roles instead.`, [{ path: 'email', sentence: 'Here already.' }]);
  if (input.roles.length === 0) throw new Refusal(422, 'Choose at least one role.', [{ path: 'roles', sentence: 'Choose at least one.' }]);
  const one =
    known ??
    (
      await tx
        .insert(person)
        .values({ name: input.name.trim(), email, title: input.title?.trim() || null, passwordHash: await hashPassword(input.password) })
        .returning()
    )[0]!;
  await tx.insert(membership).values(input.roles.map((role) => ({ personId: one.id, companyId: caller.company.id, role })));
  hand.record({
    subject: { type: 'person', id: one.id },
    verb: known ? 'added' : 'made',
    after: { name: one.name, email, roles: [...input.roles].sort() },
  });
  return { id: one.id };
});

const memberIn = async (tx: Executor, caller: Caller, params: Params) => {
  const roles = await rolesIn(tx, caller.company.id, params['id']!);
  if (roles.length === 0) throw notFound('This person');
  return { id: params['id']!, roles };
};

/** A person's roles in this company, and what they code and approve; none takes them out of it. The last administrator stays one. */
export const setRoles = command({ body: SetRoles, may: 'people:edit', subject: memberIn }, async (tx, caller, input, hand) => {
  const { id, roles } = hand.subject,
    companyId = caller.company.id;
  // Two administrators who each take the other's role at once: the second waits here and is refused.
  const administrators = await tx
    .select()
    .from(membership)
    .where(and(eq(membership.companyId, companyId), eq(membership.role, 'administrator')))
    .for('update');
  if (roles.includes('administrator') && !input.roles.includes('administrator') && administrators.length === 1)
    throw new Refusal(422, 'This is the only administrator. Make somebody else one first.');
  await tx.delete(membership).where(and(eq(membership.companyId, companyId), eq(membership.personId, id)));
  if (input.roles.length) await tx.insert(membership).values(input.roles.map((role) => ({ personId: id, companyId, role })));
  const range = input.roles.length === 0 ? everything : input.range,
    was = await rangeSaid(tx, companyId, id);
  if (range) await setRange(tx, companyId, id, range);
  const changed = difference({ roles: roles.join(', '), ...was }, { roles: [...input.roles].sort().join(', '), ...(range ?? was) });
  if (changed) hand.record({ subject: { type: 'person', id }, verb: 'roles set', ...changed });
  return {};
});
