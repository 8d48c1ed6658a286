import type { FindingList, FindingsQuery, ImportListName, ImportRun } from '@ledgerline/contract';
import { api, at, type Of } from '../app/api';

type Asked = Of<{ id: string } & Pick<FindingsQuery, 'q' | 'severity' | 'sort' | 'order'>>;

export const importsApi = api.injectEndpoints({
  overrideExisting: 'throw',
  endpoints: (b) => ({
    takeFile: b.mutation<{ id: string }, Of<{ list: ImportListName; file: File }>>({
      query({ company, list, file }) {
        const body = new FormData();
        body.append('file', file);
        return { url: at(company, `/imports/${list}`), method: 'POST', body };
      },
    }),
    importRun: b.query<ImportRun, Of<{ id: string }>>({
      query: ({ company, id }) => at(company, `/imports/${id}`),
      providesTags: ['import'],
    }),
    findings: b.infiniteQuery<FindingList, Asked, string | null>({
      infiniteQueryOptions: { initialPageParam: null, getNextPageParam: (last) => last.next },
      query: ({ queryArg: { company, id, ...params }, pageParam }) => ({
        url: at(company, `/imports/${id}/findings`),
        params: { ...params, ...(pageParam ? { cursor: pageParam } : {}) },
      }),
      providesTags: ['import'],
    }),
    setMapping: b.mutation<void, Of<{ id: string; mapping: (string | null)[] }>>({
      query: ({ company, id, mapping }) => ({ url: at(company, `/imports/${id}/mapping`), method: 'PUT', body: { mapping } }),
      invalidatesTags: ['import'],
    }),
    bringIn: b.mutation<void, Of<{ id: string; goodOnly: boolean }>>({
      query: ({ company, id, goodOnly }) => ({ url: at(company, `/imports/${id}/run`), method: 'POST', body: { goodOnly } }),
      invalidatesTags: ['import'],
    }),
  }),
});
