import type { Bill, BillOrders, MatchingRules } from '@ledgerline/contract';
import { api, at, list, type Of } from '../app/api';

export type MatchStep = 'match' | 'without-order' | 'await-receipt' | 'debit-note' | 'share-charge';

export const matchingApi = api.injectEndpoints({
  overrideExisting: 'throw',
  endpoints: (b) => ({
    /** `version`: of the bill that it is asked for; another one is asked for anew. */
    billOrders: b.query<BillOrders, Of<{ id: string; version: number }>>({
      query: ({ company, id }) => at(company, `/bills/${id}/orders`),
      providesTags: (_, __, { id }) => [{ type: 'bill', id }, 'order'],
    }),
    matchStep: b.mutation<Bill, Of<{ id: string; step: MatchStep; body: object }>>({
      query: ({ company, id, step, body }) => ({ url: at(company, `/bills/${id}/${step}`), method: 'POST', body }),
      invalidatesTags: (_, __, { id }) => [{ type: 'bill', id }, list('bill'), 'order', 'today'],
    }),
    matchingRules: b.query<MatchingRules, Of>({ query: ({ company }) => at(company, '/matching'), providesTags: ['settings'] }),
    setMatchingRules: b.mutation<void, Of<{ body: MatchingRules }>>({
      query: ({ company, body }) => ({ url: at(company, '/matching'), method: 'PUT', body }),
      invalidatesTags: ['settings', 'bill'],
    }),
  }),
});
