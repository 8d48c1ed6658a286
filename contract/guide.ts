import { Type, type Static } from '@sinclair/typebox';
import { Country } from './sessions.ts';
import { Nullable } from './shared.ts';

/** What has to be there before the first bill can be posted, in the order in which it is best done. */
export const guideSteps = ['company', 'chart', 'tax', 'people', 'mailbox', 'suppliers', 'document'] as const;
const Step = Type.Union(guideSteps.map((step) => Type.Literal(step)));
/** `done`: it tells by itself; `fine`: somebody said so; `skipped`: left out; `open`: to be done. `fact`: how it stands, in words. */
export const GuideRow = Type.Object({
  step: Step,
  state: Type.Union((['done', 'fine', 'skipped', 'open'] as const).map((state) => Type.Literal(state))),
  fact: Type.String(),
});
/** `over`: all is done, or something is posted already. */
export const Guide = Type.Object({ steps: Type.Array(GuideRow), over: Type.Boolean() });
/** `open`: takes the step up again. */
export const SetStep = Type.Object({ state: Type.Union((['fine', 'skipped', 'open'] as const).map((state) => Type.Literal(state))) });

/** One company more. `chart`: a copy of this company's accounts and cost centres, or the small one to begin with. */
export const NewCompany = Type.Object({
  name: Type.String({ minLength: 2, maxLength: 120, pattern: '\\S' }),
  country: Country,
  taxId: Nullable(Type.String({ maxLength: 30 })),
  mailAddress: Type.String({ format: 'email', maxLength: 200 }),
  chart: Type.Union([Type.Literal('copy'), Type.Literal('small')]),
});
export type Guide = Static<typeof Guide>;
export type GuideRow = Static<typeof GuideRow>;
export type GuideStep = (typeof guideSteps)[number];
export type SetStep = Static<typeof SetStep>;
export type NewCompany = Static<typeof NewCompany>;
