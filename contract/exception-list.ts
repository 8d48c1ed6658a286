import { Type, type Static } from '@sinclair/typebox';
import { Severity } from './exceptions.ts';
import { Id, Nullable } from './shared.ts';

/** What is open on bills under review, by the check that found it, and how often each check was right. */
export const ExceptionCauses = Type.Object({
  currency: Type.String(),
  /** In whose hands bills with something open are, and how much. */
  owners: Type.Array(Type.Object({ id: Id, name: Type.String(), open: Type.Integer() })),
  causes: Type.Array(
    Type.Object({
      code: Type.String(),
      what: Type.String(),
      open: Type.Integer(),
      /** Of them, what keeps its bill back. */
      stops: Type.Integer(),
      bills: Type.Integer(),
      /** The totals of these bills, each once, in the company’s currency at the latest rates; bills without a rate are left out. */
      amount: Type.String(),
      oldest: Nullable(Type.String()),
      /** Findings that ended, and how many of them by a change of the bill or a debit note: there the check was right. */
      ended: Type.Integer(),
      right: Type.Integer(),
    }),
  ),
});
export const ExceptionsQuery = Type.Object({
  code: Type.Optional(Type.String({ maxLength: 60 })),
  q: Type.Optional(Type.String({ maxLength: 100 })),
  /** In whose hands the bills are: the asker’s, nobody’s, or somebody’s. */
  owner: Type.Optional(Type.Union([Type.Literal('me'), Type.Literal('nobody'), Id])),
  sort: Type.Optional(Type.Union([Type.Literal('age'), Type.Literal('stake'), Type.Literal('supplier'), Type.Literal('owner')])),
  order: Type.Optional(Type.Union([Type.Literal('asc'), Type.Literal('desc')])),
  cursor: Type.Optional(Type.String({ maxLength: 400 })),
  limit: Type.Optional(Type.Integer({ minimum: 1, maximum: 200 })),
});
export const OpenException = Type.Object({
  id: Id,
  billId: Id,
  code: Type.String(),
  path: Type.String(),
  key: Type.String(),
  sentence: Type.String(),
  /** What the bill says, and what it was expected to say; null where there is no one value. */
  found: Nullable(Type.String()),
  expected: Nullable(Type.String()),
  severity: Severity,
  openedAt: Type.String(),
  supplier: Nullable(Type.String()),
  invoiceNumber: Nullable(Type.String()),
  gross: Nullable(Type.String()),
  currency: Type.String(),
  stage: Type.String(),
  owner: Nullable(Type.String()),
  /** What settles it in one go with others like it; null where only a change does. */
  settles: Nullable(Type.Union([Type.Literal('confirm'), Type.Literal('overrule')])),
});
export const ExceptionList = Type.Object({ exceptions: Type.Array(OpenException), next: Nullable(Type.String()) });
/** Settles the same doubt on many bills: all of one check, confirmed, or overruled with one reason. */
export const SettleMany = Type.Object({
  code: Type.String({ maxLength: 60 }),
  how: Type.Union([Type.Literal('confirm'), Type.Literal('overrule')]),
  reason: Type.Optional(Type.String({ minLength: 3, maxLength: 500, pattern: '\\S' })),
  exceptions: Type.Array(Id, { minItems: 1, maxItems: 200, uniqueItems: true }),
});
/** How many were settled; the rest had ended meanwhile, or its bill had gone on. */
export const SettledMany = Type.Object({ settled: Type.Integer(), left: Type.Integer() });
export type ExceptionCauses = Static<typeof ExceptionCauses>;
export type OpenException = Static<typeof OpenException>;
export type ExceptionList = Static<typeof ExceptionList>;
export type ExceptionsQuery = Static<typeof ExceptionsQuery>;
export type SettleMany = Static<typeof SettleMany>;
export type SettledMany = Static<typeof SettledMany>;
