import type { ChangeRepeat, NewRepeat, RepeatList } from '@ledgerline/contract';
import { api, at, list, type Of } from '../app/api';

export const repeatsApi = api.injectEndpoints({
  overrideExisting: 'throw',
  endpoints: (b) => ({
    repeats: b.query<RepeatList, Of>({ query: ({ company }) => at(company, '/repeats'), providesTags: [list('repeat'), list('bill')] }),
    newRepeat: b.mutation<{ id: string }, Of<{ body: NewRepeat }>>({
      query: ({ company, body }) => ({ url: at(company, '/repeats'), method: 'POST', body }),
      invalidatesTags: [list('repeat')],
    }),
    changeRepeat: b.mutation<void, Of<{ id: string; body: ChangeRepeat }>>({
      query: ({ company, id, body }) => ({ url: at(company, `/repeats/${id}`), method: 'PUT', body }),
      invalidatesTags: [list('repeat')],
    }),
  }),
});
