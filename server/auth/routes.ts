import { DemoSignIn, Nothing, Session, SetUp, SignIn } from '@ledgerline/contract';
import type { Api } from '../http/define.ts';
import { setUp } from '../setup/service.ts';
import { demoSignIn, personOf, signIn, signOut } from './service.ts';
import { houseOf } from './store.ts';

export function authRoutes(api: Api): void {
  api.query({ path: '/session', access: 'public', summary: 'Who is signed in', answer: Session }, async ({ c, services }) => ({
    me: await personOf(services, c),
    ...(await houseOf(services.database.db)),
  }));
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
