import type { ExceptionCauses, ExceptionList, SettledMany, SettleMany } from '@ledgerline/contract';
import { api, at, list, type Of } from '../app/api';

export const exceptionsApi = api.injectEndpoints({
  overrideExisting: 'throw',
  endpoints: (b) => ({
    causes: b.query<ExceptionCauses, Of>({ query: ({ company }) => at(company, '/exceptions/causes'), providesTags: [list('bill')] }),
    openExceptions: b.infiniteQuery<
      ExceptionList,
      Of<{ code?: string; q?: string; owner?: string; sort?: string; order?: 'asc' | 'desc' }>,
      string | null
    >({
      infiniteQueryOptions: { initialPageParam: null, getNextPageParam: (last) => last.next },
      query: ({ queryArg: { company, ...params }, pageParam }) => ({
        url: at(company, '/exceptions'),
        params: { ...params, ...(pageParam ? { cursor: pageParam } : {}) },
      }),
      providesTags: [list('bill')],
    }),
    settleMany: b.mutation<SettledMany, Of<{ body: SettleMany }>>({
      query: ({ company, body }) => ({ url: at(company, '/exceptions/settle'), method: 'POST', body }),
      invalidatesTags: ['bill', 'today'],
    }),
  }),
});
