import type { AddNote, Bill } from '@ledgerline/contract';
import { api, at, type Of } from '../app/api';

export const notesApi = api.injectEndpoints({
  overrideExisting: 'throw',
  endpoints: (b) => ({
    addNote: b.mutation<Bill, Of<{ id: string; body: AddNote }>>({
      query: ({ company, id, body }) => ({ url: at(company, `/bills/${id}/notes`), method: 'POST', body }),
      invalidatesTags: (_, __, { id }) => [{ type: 'bill', id }],
    }),
    sawNotes: b.mutation<void, Of<{ id: string }>>({
      query: ({ company, id }) => ({ url: at(company, `/bills/${id}/notes/seen`), method: 'POST', body: {} }),
      invalidatesTags: ['today'],
    }),
  }),
});
