import type { Accrual, Entry, EntryList, PeriodList, TaxLines, TaxSummary, Trail } from '@ledgerline/contract';
import { api, at, list, type Of } from '../app/api';

export const ledgerApi = api.injectEndpoints({
  overrideExisting: 'throw',
  endpoints: (b) => ({
    entries: b.infiniteQuery<EntryList, Of<{ q?: string; account?: string }>, string | null>({
      infiniteQueryOptions: { initialPageParam: null, getNextPageParam: (last) => last.next },
      query: ({ queryArg: { company, ...params }, pageParam }) => ({
        url: at(company, '/entries'),
        params: { ...params, ...(pageParam ? { cursor: pageParam } : {}) },
      }),
      providesTags: [list('entry')],
    }),
    entry: b.query<Entry, Of<{ id: string }>>({
      query: ({ company, id }) => at(company, `/entries/${id}`),
      providesTags: (_, __, { id }) => [{ type: 'entry', id }],
    }),
    trail: b.query<Trail, Of<{ id: string }>>({ query: ({ company, id }) => at(company, `/entry-lines/${id}/trail`) }),
    taxSummary: b.query<TaxSummary, Of<{ from: string; to: string }>>({
      query: ({ company, ...params }) => ({ url: at(company, '/tax-summary'), params }),
      providesTags: [list('entry')],
    }),
    taxLines: b.infiniteQuery<TaxLines, Of<{ from: string; to: string; taxCodeId: string }>, string | null>({
      infiniteQueryOptions: { initialPageParam: null, getNextPageParam: (last) => last.next },
      query: ({ queryArg: { company, ...params }, pageParam }) => ({
        url: at(company, '/tax-summary/lines'),
        params: { ...params, ...(pageParam ? { cursor: pageParam } : {}) },
      }),
      providesTags: [list('entry')],
    }),
    accrual: b.query<Accrual, Of<{ on: string }>>({
      query: ({ company, on }) => ({ url: at(company, '/accruals'), params: { on } }),
      providesTags: ['order', 'bill', list('entry')],
    }),
    postAccrual: b.mutation<{ id: string }, Of<{ on: string; total: string }>>({
      query: ({ company, ...body }) => ({ url: at(company, '/accruals'), method: 'POST', body }),
      invalidatesTags: [list('entry'), 'period', 'order'],
    }),
    periods: b.query<PeriodList, Of>({ query: ({ company }) => at(company, '/periods'), providesTags: ['period'] }),
    setPeriod: b.mutation<void, Of<{ year: number; month: number; open: boolean }>>({
      query: ({ company, ...body }) => ({ url: at(company, '/periods'), method: 'PUT', body }),
      invalidatesTags: ['period'],
    }),
    openYear: b.mutation<void, Of<{ year: number }>>({
      query: ({ company, ...body }) => ({ url: at(company, '/periods/year'), method: 'POST', body }),
      invalidatesTags: ['period'],
    }),
  }),
});
