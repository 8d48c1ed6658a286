import type { Guide, NewCompany, SetStep } from '@ledgerline/contract';
import { api, at, list, type Of } from '../app/api';

export const setupApi = api.injectEndpoints({
  overrideExisting: 'throw',
  endpoints: (b) => ({
    guide: b.query<Guide, Of>({
      query: ({ company }) => at(company, '/guide'),
      providesTags: ['settings', list('bill'), list('supplier'), list('arrival')],
    }),
    setStep: b.mutation<void, Of<{ step: string; body: SetStep }>>({
      query: ({ company, step, body }) => ({ url: at(company, `/guide/${step}`), method: 'PUT', body }),
      invalidatesTags: ['settings'],
    }),
    newCompany: b.mutation<{ id: string }, Of<{ body: NewCompany }>>({
      query: ({ company, body }) => ({ url: at(company, '/companies'), method: 'POST', body }),
      invalidatesTags: ['session'],
    }),
  }),
});
