import { Type, type Static } from '@sinclair/typebox';
import { Id, Nullable } from './shared.ts';

export const roles = ['clerk', 'approver', 'controller', 'administrator'] as const;
export type Role = (typeof roles)[number];

/** What a person may do in a company. Each API route names one. */
export const permissions = {
  'arrivals:see': ['clerk', 'controller', 'administrator'],
  'arrivals:add': ['clerk', 'administrator'],
  'bills:see': ['clerk', 'approver', 'controller', 'administrator'],
  'bills:edit': ['clerk'],
  'bills:approve': ['approver'],
  'bills:post': ['controller'],
  'ledger:see': ['clerk', 'approver', 'controller', 'administrator'],
  'periods:set': ['controller'],
  'suppliers:see': ['clerk', 'approver', 'controller', 'administrator'],
  'suppliers:edit': ['clerk', 'controller', 'administrator'],
} as const satisfies Record<string, readonly Role[]>;
export type Permission = keyof typeof permissions;

export const may = (held: readonly string[], permission: Permission): boolean =>
  permissions[permission].some((role) => held.includes(role));

export const SignIn = Type.Object({
  email: Type.String({ minLength: 3, maxLength: 200 }),
  password: Type.String({ minLength: 1, maxLength: 200 }),
});
export const DemoSignIn = Type.Object({ personId: Id });
export const SetUp = Type.Object({
  organisation: Type.String({ minLength: 2, maxLength: 120 }),
  company: Type.String({ minLength: 2, maxLength: 120 }),
  country: Type.Union([Type.Literal('GB'), Type.Literal('FR'), Type.Literal('NL')]),
  name: Type.String({ minLength: 2, maxLength: 120 }),
  email: Type.String({ format: 'email', maxLength: 200 }),
  password: Type.String({ minLength: 10, maxLength: 200 }),
});
export type SetUp = Static<typeof SetUp>;

/** What parts the documents of one scan: nothing but what the pages say, a blank page, or a separator sheet. */
export const ScanSeparator = Type.Union([Type.Literal('none'), Type.Literal('blank'), Type.Literal('sheet')]);
export const SetScanning = Type.Object({ separator: ScanSeparator });
export type ScanSeparator = Static<typeof ScanSeparator>;
export const Company = Type.Object({
  id: Id,
  code: Type.String(),
  name: Type.String(),
  baseCurrency: Type.String(),
  mailAddress: Type.String(),
  scanSeparator: ScanSeparator,
  roles: Type.Array(Type.String()),
});
export const Me = Type.Object({
  id: Id,
  name: Type.String(),
  email: Type.String(),
  title: Nullable(Type.String()),
  companies: Type.Array(Company),
});
export const DemoPerson = Type.Object({ id: Id, name: Type.String(), title: Nullable(Type.String()), roles: Type.String() });
/** Who is signed in; for a stranger, whether the organisation is set up and which demo people there are. */
export const Session = Type.Object({ me: Nullable(Me), organisation: Nullable(Type.String()), demo: Type.Array(DemoPerson) });
export type Session = Static<typeof Session>;
export type Me = Static<typeof Me>;
export type Company = Static<typeof Company>;
