import type { NewReceipt, NotBilled, Order, OrderList, PutOrder } from '@ledgerline/contract';
import { api, at, list, type Of } from '../app/api';

export const ordersApi = api.injectEndpoints({
  overrideExisting: 'throw',
  endpoints: (b) => ({
    orders: b.infiniteQuery<OrderList, Of<{ q?: string; open?: '1' }>, string | null>({
      infiniteQueryOptions: { initialPageParam: null, getNextPageParam: (last) => last.next },
      query: ({ queryArg: { company, ...params }, pageParam }) => ({
        url: at(company, '/orders'),
        params: { ...params, ...(pageParam ? { cursor: pageParam } : {}) },
      }),
      providesTags: [list('order')],
    }),
    order: b.query<Order, Of<{ id: string }>>({
      query: ({ company, id }) => at(company, `/orders/${id}`),
      providesTags: (_, __, { id }) => [{ type: 'order', id }],
    }),
    notBilled: b.query<NotBilled, Of<{ on: string }>>({
      query: ({ company, on }) => ({ url: at(company, '/received-not-billed'), params: { on } }),
      providesTags: ['order', 'bill'],
    }),
    receive: b.mutation<{ id: string }, Of<{ body: NewReceipt }>>({
      query: ({ company, body }) => ({ url: at(company, '/receipts'), method: 'POST', body }),
      invalidatesTags: ['order', 'bill', 'today'],
    }),
    putOrder: b.mutation<{ id: string }, Of<{ id: string | null; body: PutOrder }>>({
      query: ({ company, id, body }) =>
        id ? { url: at(company, `/orders/${id}`), method: 'PUT', body } : { url: at(company, '/orders'), method: 'POST', body },
      invalidatesTags: ['order', 'bill'],
    }),
  }),
});
