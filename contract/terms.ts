import { Type, type Static } from '@sinclair/typebox';
import { Code, Id, Name, Nullable } from './shared.ts';

/** Payment terms that a company names itself. */
export const PutTerms = Type.Object({
  code: Code,
  name: Name,
  /** As the trade writes them: net 30, 30 eom, 2/10 n30, 30% on receipt and 70% 30 days. */
  terms: Type.String({ minLength: 1, maxLength: 200 }),
  /** What suppliers write for it; several with commas between. */
  alsoCalled: Nullable(Type.String({ maxLength: 200 })),
  active: Type.Boolean(),
});
export const TermsRow = Type.Composite([PutTerms, Type.Object({ id: Id })]);
export const TermsList = Type.Object({ terms: Type.Array(TermsRow) });
export type PutTerms = Static<typeof PutTerms>;
export type TermsRow = Static<typeof TermsRow>;
export type TermsList = Static<typeof TermsList>;
