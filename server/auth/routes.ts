import { asc, eq } from 'drizzle-orm';
import type { Static } from '@sinclair/typebox';
import { DemoSignIn, Nothing, Session, SetUp, SignIn } from '@ledgerline/contract';
import { membership, organisation, person } from '../db/schema/index.ts';
import type { Api } from '../http/define.ts';
import type { Services } from '../services.ts';
import { setUp } from '../setup/service.ts';
import { demoSignIn, personOf, signIn, signOut } from './service.ts';

async function demoPeople({ database: { db } }: Services): Promise<Static<typeof Session>['demo']> {
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

export function authRoutes(api: Api): void {
  api.query({ path: '/session', access: 'public', summary: 'Who is signed in', answer: Session }, async ({ c, services }) => {
    const [org] = await services.database.db.select().from(organisation);
    return { me: await personOf(services, c), organisation: org?.name ?? null, demo: org?.demo ? await demoPeople(services) : [] };
  });
  api.open(
    { method: 'post', path: '/session', access: 'public', summary: 'Sign in', body: SignIn, answer: Nothing },
    async ({ c, services, body }) => {
      await signIn(services, c, body.email, body.password);
      return {};
    },
  );
  api.open(
    {
      method: 'post',
      path: '/session/demo',
      access: 'public',
      summary: 'Sign in as a person of the demo',
      body: DemoSignIn,
      answer: Nothing,
    },
    async ({ c, services, body }) => {
      await demoSignIn(services, c, body.personId);
      return {};
    },
  );
  api.open(
    { method: 'delete', path: '/session', access: 'public', summary: 'Sign out', body: Nothing, answer: Nothing },
    async ({ c, services }) => {
      await signOut(services, c);
      return {};
    },
  );
  api.open(
    { method: 'post', path: '/setup', access: 'public', summary: 'Set up an empty organisation', body: SetUp, answer: Nothing },
    async ({ c, services, body }) => {
      await setUp(services, body);
      await signIn(services, c, body.email, body.password);
      return {};
    },
  );
}
