import type { Arrange, Arrangement, ArrivalDetail, ArrivalList, DocumentPages, ScanSeparator, Spot, SpotText } from '@ledgerline/contract';
import { api, at, list, type Of } from '../app/api';

export const arrivalsApi = api.injectEndpoints({
  overrideExisting: 'throw',
  endpoints: (b) => ({
    arrivals: b.infiniteQuery<ArrivalList, Of, string | null>({
      infiniteQueryOptions: { initialPageParam: null, getNextPageParam: (last) => last.next },
      query: ({ queryArg: { company }, pageParam }) => ({ url: at(company, '/arrivals'), params: pageParam ? { cursor: pageParam } : {} }),
      providesTags: [list('arrival'), list('bill')],
    }),
    arrival: b.query<ArrivalDetail, Of<{ id: string }>>({
      query: ({ company, id }) => at(company, `/arrivals/${id}`),
      providesTags: (_, __, { id }) => [{ type: 'arrival', id }],
    }),
    retry: b.mutation<void, Of<{ id: string }>>({
      query: ({ company, id }) => ({ url: at(company, `/documents/${id}/retry`), method: 'POST' }),
      invalidatesTags: [list('arrival')],
    }),
    openAgain: b.mutation<void, Of<{ id: string }>>({
      query: ({ company, id }) => ({ url: at(company, `/arrivals/${id}/retry`), method: 'POST' }),
      invalidatesTags: [list('arrival')],
    }),
    setScanning: b.mutation<void, Of<{ separator: ScanSeparator }>>({
      query: ({ company, separator }) => ({ url: at(company, '/scanning'), method: 'PUT', body: { separator } }),
      invalidatesTags: ['session'],
    }),
    readSpot: b.mutation<SpotText, Of<{ id: string; body: Spot }>>({
      query: ({ company, id, body }) => ({ url: at(company, `/documents/${id}/spot`), method: 'POST', body }),
    }),
    arrangement: b.query<Arrangement, Of<{ id: string }>>({
      query: ({ company, id }) => at(company, `/arrivals/${id}/pages`),
      providesTags: (_, __, { id }) => [{ type: 'arrival', id }, list('arrival'), list('bill')],
    }),
    arrange: b.mutation<Arrangement, Of<{ id: string; body: Arrange }>>({
      query: ({ company, id, body }) => ({ url: at(company, `/arrivals/${id}/pages`), method: 'PUT', body }),
      invalidatesTags: [list('arrival'), list('bill'), 'today'],
    }),
    pages: b.query<DocumentPages, Of<{ id: string }>>({
      query: ({ company, id }) => at(company, `/documents/${id}/pages`),
      providesTags: (_, __, { id }) => [{ type: 'document', id }],
    }),
  }),
});
