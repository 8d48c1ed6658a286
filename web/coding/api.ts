import type {
  AlikeRows,
  CodeAlike,
  CodedAlike,
  CodingRuleList,
  CodingTrial,
  CodingTrialQuery,
  Learned,
  PutCodingRule,
} from '@ledgerline/contract';
import { api, at, list, type Of } from '../app/api';

export const codingApi = api.injectEndpoints({
  overrideExisting: 'throw',
  endpoints: (b) => ({
    codingRules: b.query<CodingRuleList, Of<{ supplierId?: string }>>({
      query: ({ company, ...params }) => ({ url: at(company, '/coding-rules'), params }),
      providesTags: ['coding'],
    }),
    codingTrial: b.query<CodingTrial, Of<{ asked: CodingTrialQuery }>>({
      query: ({ company, asked }) => ({ url: at(company, '/coding-rules/trial'), params: asked }),
      providesTags: ['coding', list('bill')],
    }),
    putCodingRule: b.mutation<void, Of<{ id: string | null; body: PutCodingRule }>>({
      query: ({ company, id, body }) =>
        id ? { url: at(company, `/coding-rules/${id}`), method: 'PUT', body } : { url: at(company, '/coding-rules'), method: 'POST', body },
      invalidatesTags: ['coding'],
    }),
    learned: b.query<Learned, Of<{ supplierId: string }>>({
      query: ({ company, supplierId }) => at(company, `/suppliers/${supplierId}/learned`),
      providesTags: ['coding', list('bill')],
    }),
    forgetLines: b.mutation<void, Of<{ supplierId: string; words: string }>>({
      query: ({ company, supplierId, words }) => ({
        url: at(company, `/suppliers/${supplierId}/learned/forget`),
        method: 'POST',
        body: { words },
      }),
      invalidatesTags: ['coding'],
    }),
    alike: b.query<AlikeRows, Of>({ query: ({ company }) => at(company, '/alike'), providesTags: [list('bill')] }),
    codeAlike: b.mutation<CodedAlike, Of<{ body: CodeAlike }>>({
      query: ({ company, body }) => ({ url: at(company, '/alike'), method: 'POST', body }),
      invalidatesTags: ['bill', list('bill')],
    }),
  }),
});
