import type { ChargeShares, GoodsList, GoodsQuery } from '@ledgerline/contract';
import { api, at, type Of } from '../app/api';

export const chargesApi = api.injectEndpoints({
  overrideExisting: 'throw',
  endpoints: (b) => ({
    /** `version`: of the bill that it is asked for. */
    chargeShares: b.query<ChargeShares, Of<{ id: string; row: string; version: number }>>({
      query: ({ company, id, row }) => at(company, `/bills/${id}/rows/${row}/shares`),
      providesTags: (_, __, { id }) => [{ type: 'bill', id }, 'order'],
    }),
    goods: b.query<GoodsList, Of<{ asked: GoodsQuery }>>({
      query: ({ company, asked }) => ({ url: at(company, '/goods'), params: asked }),
      providesTags: ['order'],
    }),
  }),
});
