import type { Today } from '@ledgerline/contract';
import { api, at, type Of } from '../app/api';

export const todayApi = api.injectEndpoints({
  overrideExisting: 'throw',
  endpoints: (b) => ({
    today: b.query<Today, Of>({ query: ({ company }) => at(company, '/today'), providesTags: ['today'] }),
  }),
});
