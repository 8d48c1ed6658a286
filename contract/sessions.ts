import { Type, type Static } from '@sinclair/typebox';
import { Id, Nullable } from './shared.ts';
import { Me } from './people.ts';

const Password = Type.String({ minLength: 1, maxLength: 200 });
/** A password that somebody chooses. */
export const NewPassword = Type.String({ minLength: 10, maxLength: 200 });
/** The six digits of an authenticator (RFC 6238). */
const Code = Type.String({ pattern: '^\\s*\\d{3}\\s?\\d{3}\\s*$', maxLength: 20 });

export const SignIn = Type.Object({
  email: Type.String({ minLength: 3, maxLength: 200 }),
  password: Password,
  code: Type.Optional(Code),
});
export const DemoSignIn = Type.Object({ personId: Id });
/** Countries whose tax codes come with Ledgerline. */
export const countries = ['GB', 'FR', 'NL', 'DE', 'BE', 'IE'] as const;
export const Country = Type.Union(countries.map((country) => Type.Literal(country)));
export type Country = Static<typeof Country>;
export const SetUp = Type.Object({
  organisation: Type.String({ minLength: 2, maxLength: 120 }),
  company: Type.String({ minLength: 2, maxLength: 120 }),
  country: Country,
  name: Type.String({ minLength: 2, maxLength: 120 }),
  email: Type.String({ format: 'email', maxLength: 200 }),
  password: NewPassword,
});

export const DemoPerson = Type.Object({ id: Id, name: Type.String(), title: Nullable(Type.String()), roles: Type.String() });
/** Who is signed in; for a stranger, whether the organisation is set up and which demo people there are. */
export const Session = Type.Object({ me: Nullable(Me), organisation: Nullable(Type.String()), demo: Type.Array(DemoPerson) });

/** One place where this person is signed in. */
export const SessionRow = Type.Object({
  id: Id,
  /** The one that asks. */ here: Type.Boolean(),
  startedAt: Type.String(),
  seenAt: Type.String(),
  agent: Nullable(Type.String()),
  address: Nullable(Type.String()),
});
export const SessionList = Type.Object({ sessions: Type.Array(SessionRow), secondFactor: Type.Boolean() });
export const ChangePassword = Type.Object({ password: Password, next: NewPassword });
export const Confirm = Type.Object({ password: Password });
/** What an authenticator is set up with, as text and as a picture to photograph. */
export const SecondFactor = Type.Object({ secret: Type.String(), uri: Type.String(), picture: Type.String() });
export const ConfirmFactor = Type.Object({ password: Password, secret: Type.String({ pattern: '^[A-Z2-7]{32}$' }), code: Code });

export type SignIn = Static<typeof SignIn>;
export type SetUp = Static<typeof SetUp>;
export type Session = Static<typeof Session>;
export type SessionRow = Static<typeof SessionRow>;
export type SessionList = Static<typeof SessionList>;
export type SecondFactor = Static<typeof SecondFactor>;
export type ConfirmFactor = Static<typeof ConfirmFactor>;
