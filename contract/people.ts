import { Type, type Static } from '@sinclair/typebox';
import { dueOns } from '@ledgerline/core/dates';
import { DecimalText, Id, Nullable } from './shared.ts';

export const roles = ['clerk', 'approver', 'controller', 'administrator'] as const;
export type Role = (typeof roles)[number];

/** What a person may do in a company, by role. Each route and each use case names one; the subject in hand decides further. */
export const permissions = {
  'arrivals:see': ['clerk', 'controller', 'administrator'],
  'arrivals:add': ['clerk', 'administrator'],
  'bills:see': ['clerk', 'approver', 'controller', 'administrator'],
  'bills:edit': ['clerk'],
  'bills:approve': ['approver'],
  'bills:return': ['approver', 'controller'],
  'bills:post': ['controller'],
  'ledger:see': ['clerk', 'approver', 'controller', 'administrator'],
  'periods:set': ['controller'],
  'suppliers:see': ['clerk', 'approver', 'controller', 'administrator'],
  'suppliers:edit': ['clerk', 'controller', 'administrator'],
  'orders:see': ['clerk', 'approver', 'controller', 'administrator'],
  'orders:edit': ['clerk', 'controller', 'administrator'],
  'rules:edit': ['clerk', 'controller', 'administrator'],
  'suppliers:verify': ['controller', 'administrator'],
  'settings:see': ['controller', 'administrator'],
  'settings:edit': ['controller', 'administrator'],
  'people:edit': ['administrator'],
  'events:see': ['controller', 'administrator'],
} as const satisfies Record<string, readonly Role[]>;
export type Permission = keyof typeof permissions;

export const may = (held: readonly string[], permission: Permission): boolean =>
  permissions[permission].some((role) => held.includes(role));

/** What parts the documents of one scan: nothing but what the pages say, a blank page, or a separator sheet. */
export const ScanSeparator = Type.Union([Type.Literal('none'), Type.Literal('blank'), Type.Literal('sheet')]);
export const SetScanning = Type.Object({ separator: ScanSeparator });
export type ScanSeparator = Static<typeof ScanSeparator>;
const DueOn = Type.Union(dueOns.map((on) => Type.Literal(on)));
/** Which rate a bill in another currency takes: the last one until its day, or until the first day of its month. */
const RateBy = Type.Union([Type.Literal('day'), Type.Literal('month')]);
export const Company = Type.Object({
  id: Id,
  code: Type.String(),
  name: Type.String(),
  baseCurrency: Type.String(),
  mailAddress: Type.String(),
  scanSeparator: ScanSeparator,
  country: Type.String(),
  /** Where a due day goes that is no working day in its country. */
  dueOn: DueOn,
  roles: Type.Array(Type.String()),
});
export const Me = Type.Object({
  id: Id,
  name: Type.String(),
  email: Type.String(),
  title: Nullable(Type.String()),
  companies: Type.Array(Company),
});
const Roles = Type.Array(Type.Union(roles.map((role) => Type.Literal(role))), { maxItems: 4, uniqueItems: true });
const PersonName = Type.String({ minLength: 2, maxLength: 120, pattern: '\\S' });
const Codes = Nullable(Type.String({ maxLength: 300, pattern: '\\S' }));
/** What of the company's lists a person codes and approves ("6100 to 6199, 63*"), and bills up to which amount they approve; null: all. */
export const PersonRange = Type.Object({ accounts: Codes, costCentres: Codes, most: Nullable(DecimalText) });
export const PersonRow = Type.Object({
  id: Id,
  name: Type.String(),
  email: Type.String(),
  title: Nullable(Type.String()),
  roles: Type.Array(Type.String()),
  range: PersonRange,
});
/** `lonely`: only one person may code and approve here, so that no bill gets through. */
export const PersonList = Type.Object({ people: Type.Array(PersonRow), lonely: Type.Boolean() });
/** People of the company, for whom a bill can be meant: `codes` may work on it. */
export const Colleagues = Type.Object({ people: Type.Array(Type.Object({ id: Id, name: Type.String(), codes: Type.Boolean() })) });
export const NewPerson = Type.Object({
  name: PersonName,
  email: Type.String({ format: 'email', maxLength: 200 }),
  title: Nullable(Type.String({ maxLength: 120 })),
  /** The first password; the person is told it by whoever made the account. */
  password: Type.String({ minLength: 10, maxLength: 200 }),
  roles: Roles,
});
/** Without a range it stays as it is. */
export const SetRoles = Type.Object({ roles: Roles, range: Type.Optional(PersonRange) });
/** What is taken first from the queue: what earns a discount soonest, falls due first, is largest, came first. */
export const QueueOrder = Type.Union([Type.Literal('discount'), Type.Literal('due'), Type.Literal('amount'), Type.Literal('age')]);
export const SetCompany = Type.Object({
  name: Type.String({ minLength: 2, maxLength: 120, pattern: '\\S' }),
  taxId: Nullable(Type.String({ maxLength: 30 })),
  mailAddress: Type.String({ format: 'email', maxLength: 200 }),
  queueOrder: QueueOrder,
  /** Whether posted lines say how new ones are coded; as it is where it is not said. */
  suggests: Type.Optional(Type.Boolean()),
  /** Whether a supplier without usual coding takes that of the first bill that is posted; as it is where it is not said. */
  firstCodingUsual: Type.Optional(Type.Boolean()),
  /** How far a bill's tax may be from its rates beyond rounding, in its currency; null: no farther. As it is where it is not said. */
  taxTolerance: Type.Optional(Nullable(DecimalText)),
  /** Other names under which invoices reach it, the rate that foreign bills take, and where due days go that are no working days; as they are where they are not said. */
  billToNames: Type.Optional(Type.Array(Type.String({ minLength: 3, maxLength: 120, pattern: '\\S' }), { maxItems: 20 })),
  rateBy: Type.Optional(RateBy),
  dueOn: Type.Optional(DueOn),
});
export const CompanySettings = Type.Composite([
  Type.Omit(SetCompany, ['suggests', 'firstCodingUsual', 'taxTolerance', 'billToNames', 'rateBy', 'dueOn']),
  Type.Object({
    suggests: Type.Boolean(),
    firstCodingUsual: Type.Boolean(),
    taxTolerance: Nullable(DecimalText),
    billToNames: Type.Array(Type.String()),
    rateBy: RateBy,
    dueOn: DueOn,
    baseCurrency: Type.String(),
    country: Type.String(),
  }),
]);
export type Colleagues = Static<typeof Colleagues>;
export type QueueOrder = Static<typeof QueueOrder>;
export type PersonList = Static<typeof PersonList>;
export type PersonRange = Static<typeof PersonRange>;
export type SetRoles = Static<typeof SetRoles>;
export type PersonRow = Static<typeof PersonRow>;
export type NewPerson = Static<typeof NewPerson>;
export type SetCompany = Static<typeof SetCompany>;
export type CompanySettings = Static<typeof CompanySettings>;
export type Me = Static<typeof Me>;
export type Company = Static<typeof Company>;
