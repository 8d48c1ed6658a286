import {
  ChangePassword,
  Confirm,
  ConfirmFactor,
  DemoSignIn,
  Nothing,
  SecondFactor,
  Session,
  SessionList,
  SetUp,
  SignIn,
} from '@ledgerline/contract';
import type { Api } from '../http/define.ts';
import { notFound } from '../http/problems.ts';
import { setUp } from '../setup/service.ts';
import { beginFactor, changePassword, confirmFactor, demoSignIn, dropFactor, endElsewhere, endOne, signIn, signOut } from './service.ts';
import { sessionOf, sessionsOf } from './sessions.ts';
import { hasFactor, houseOf } from './store.ts';

export function authRoutes(api: Api): void {
  api.query({ path: '/session', access: 'public', summary: 'Who is signed in', answer: Session }, async ({ c, services }) => ({
    me: (await sessionOf(services, c))?.me ?? null,
    ...(await houseOf(services.database.db)),
  }));
  api.open(
    { method: 'post', path: '/session', access: 'public', summary: 'Sign in', body: SignIn, answer: Nothing },
    async ({ c, services, body }) => {
      await signIn(services, c, body);
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
      await signIn(services, c, body);
      return {};
    },
  );
  ownRoutes(api);
}

/** What people do with their own sign-in. */
function ownRoutes(api: Api): void {
  api.query(
    { path: '/sessions', access: 'signed-in', summary: 'Where you are signed in', answer: SessionList },
    async ({ services, caller }) => ({
      sessions: await sessionsOf(services.database.db, caller.me.id, caller.sessionId, services.now()),
      secondFactor: await hasFactor(services.database.db, caller.me.id),
    }),
  );
  api.open(
    { method: 'delete', path: '/sessions', access: 'signed-in', summary: 'Sign out everywhere else', body: Nothing, answer: Nothing },
    async ({ services, caller }) => {
      await endElsewhere(services, caller);
      return {};
    },
  );
  api.open(
    { method: 'delete', path: '/sessions/:id', access: 'signed-in', summary: 'End one of your sessions', body: Nothing, answer: Nothing },
    async ({ services, caller, params }) => {
      if (!(await endOne(services, caller, params['id']!))) throw notFound('This sign-in');
      return {};
    },
  );
  api.open(
    {
      method: 'put',
      path: '/session/password',
      access: 'signed-in',
      summary: 'Change your password',
      body: ChangePassword,
      answer: Nothing,
    },
    async ({ c, services, caller, body }) => {
      await changePassword(services, c, caller, body.password, body.next);
      return {};
    },
  );
  api.open(
    {
      method: 'post',
      path: '/session/factor',
      access: 'signed-in',
      summary: 'A secret for an authenticator (otpauth)',
      body: Confirm,
      answer: SecondFactor,
    },
    ({ c, services, caller, body }) => beginFactor(services, c, caller, body.password),
  );
  api.open(
    {
      method: 'put',
      path: '/session/factor',
      access: 'signed-in',
      summary: 'Ask for the authenticator’s digits from now on',
      body: ConfirmFactor,
      answer: Nothing,
    },
    async ({ c, services, caller, body }) => {
      await confirmFactor(services, c, caller, body);
      return {};
    },
  );
  api.open(
    {
      method: 'delete',
      path: '/session/factor',
      access: 'signed-in',
      summary: 'Sign in without the second factor again',
      body: Confirm,
      answer: Nothing,
    },
    async ({ c, services, caller, body }) => {
      await dropFactor(services, c, caller, body.password);
      return {};
    },
  );
}
