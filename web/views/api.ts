import type { PersonView, SaveView, ViewList } from '@ledgerline/contract';
import { api, at, type Of } from '../app/api';

export const viewsApi = api.injectEndpoints({
  overrideExisting: 'throw',
  endpoints: (b) => ({
    views: b.query<ViewList, Of>({ query: ({ company }) => at(company, '/views'), providesTags: ['views'] }),
    newView: b.mutation<{ id: string }, Of<{ body: SaveView }>>({
      query: ({ company, body }) => ({ url: at(company, '/views'), method: 'POST', body }),
      invalidatesTags: ['views'],
    }),
    changeView: b.mutation<void, Of<{ id: string; body: SaveView }>>({
      query: ({ company, id, body }) => ({ url: at(company, `/views/${id}`), method: 'PUT', body }),
      invalidatesTags: ['views'],
    }),
    removeView: b.mutation<void, Of<{ id: string }>>({
      query: ({ company, id }) => ({ url: at(company, `/views/${id}`), method: 'DELETE', body: {} }),
      invalidatesTags: ['views'],
    }),
    /** How this person looks at the desk and at lists. */
    ownViews: b.query<PersonView, void>({ query: () => '/you/views' }),
    keepViews: b.mutation<void, PersonView>({ query: (body) => ({ url: '/you/views', method: 'PUT', body, keepalive: true }) }),
  }),
});
