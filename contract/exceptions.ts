import { Type, type Static } from '@sinclair/typebox';
import { overrulers } from '@ledgerline/core/checks';
import { Operation } from './operations.ts';
import { DecimalText, Id, Nullable } from './shared.ts';

export const Severity = Type.Union([Type.Literal('stops'), Type.Literal('asks')]);
export const CheckSetting = Type.Union([Type.Literal('stops'), Type.Literal('asks'), Type.Literal('off')]);
/** Who may overrule what a check finds: controllers alone where a company has said nothing. */
export const OverruledBy = Type.Union(overrulers.map((by) => Type.Literal(by)));
const Take = Type.Union([Type.Literal('data'), Type.Literal('page')]);
const ByClerk = [Type.Literal('choose'), Type.Literal('confirm'), Type.Literal('overrule')] as const;
const Settling = Type.Union([...ByClerk, Type.Literal('verify')]);

/** A change that would settle it, by operations; or these lines, and of one line an amount, carry tax under one code, the rest is free of it under another. */
const TaxParts = Type.Object({
  kind: Type.Literal('tax-parts'),
  label: Type.String(),
  taxCodeId: Id,
  freeCodeId: Id,
  lines: Type.Array(Id),
  parted: Nullable(Type.Object({ line: Id, amount: DecimalText })),
});
const Operations = Type.Object({ kind: Type.Literal('operations'), label: Type.String(), operations: Type.Array(Operation) });
const Change = Type.Union([TaxParts, Operations]);
/** Something to settle on a bill. `settledBy`: what settles it besides changing the bill. */
export const Exception = Type.Object({
  code: Type.String(),
  path: Type.String(),
  key: Type.String(),
  sentence: Type.String(),
  /** What is said of several rows of which it is so. */
  many: Nullable(Type.String()),
  severity: Severity,
  settledBy: Type.Array(Settling),
  choices: Type.Array(Type.Object({ take: Take, label: Type.String(), value: Type.String() })),
  changes: Type.Array(Change),
  /** Another bill of this company that it is about. */
  other: Nullable(Id),
  /** Amounts that it is compared with, the oldest first. */
  earlier: Type.Array(Type.String()),
  /** What the bill says, and what it was expected to say; null where there is no one value. */
  found: Nullable(Type.String()),
  expected: Nullable(Type.String()),
});
/** An exception that a person settled, and how. */
export const SettledException = Type.Object({
  code: Type.String(),
  sentence: Type.String(),
  how: Type.String(),
  person: Nullable(Type.String()),
  reason: Nullable(Type.String()),
  /** Whom somebody asked who verified it. */ asked: Nullable(Type.String()),
  at: Type.String(),
});
const Reason = Type.String({ minLength: 3, maxLength: 500, pattern: '\\S' });
/** Settles an exception: takes the data or the page, confirms, or overrules with a reason. */
export const SettleException = Type.Object({
  rowVersion: Type.Integer({ minimum: 1 }),
  code: Type.String({ maxLength: 60 }),
  path: Type.String({ maxLength: 80 }),
  key: Type.String({ maxLength: 200 }),
  how: Type.Union([...ByClerk]),
  take: Type.Optional(Take),
  reason: Type.Optional(Reason),
});
/** A second person asked the supplier: whom, and how and with what answer. */
export const VerifyBill = Type.Object({
  code: Type.String({ maxLength: 60 }),
  path: Type.String({ maxLength: 80 }),
  key: Type.String({ maxLength: 300 }),
  asked: Type.String({ minLength: 3, maxLength: 120, pattern: '\\S' }),
  how: Reason,
});
export const CheckRow = Type.Object({
  code: Type.String(),
  what: Type.String(),
  scope: Type.String(),
  severity: CheckSetting,
  usual: CheckSetting,
  adjustable: Type.Boolean(),
  /** Null: it is settled otherwise. */ overruledBy: Nullable(OverruledBy),
  open: Type.Integer(),
});
export const CheckList = Type.Object({ checks: Type.Array(CheckRow) });
export const SetCheck = Type.Object(
  { severity: Type.Optional(CheckSetting), overruledBy: Type.Optional(OverruledBy) },
  { minProperties: 1 },
);
export type Exception = Static<typeof Exception>;
export type SettleException = Static<typeof SettleException>;
export type SettledException = Static<typeof SettledException>;
export type VerifyBill = Static<typeof VerifyBill>;
export type CheckList = Static<typeof CheckList>;
export type CheckSetting = Static<typeof CheckSetting>;
export type OverruledBy = Static<typeof OverruledBy>;
export type SetCheck = Static<typeof SetCheck>;
