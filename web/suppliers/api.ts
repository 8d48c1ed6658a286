import type {
  ChangeSupplier,
  Choice,
  NewBankAccount,
  NewSupplier,
  SupplierAccount,
  SupplierItems,
  SupplierList,
} from '@ledgerline/contract';
import { api, at, list, type Of } from '../app/api';

export const suppliersApi = api.injectEndpoints({
  overrideExisting: 'throw',
  endpoints: (b) => ({
    suppliers: b.infiniteQuery<SupplierList, Of<{ q?: string }>, string | null>({
      infiniteQueryOptions: { initialPageParam: null, getNextPageParam: (last) => last.next },
      query: ({ queryArg: { company, ...params }, pageParam }) => ({
        url: at(company, '/suppliers'),
        params: { ...params, ...(pageParam ? { cursor: pageParam } : {}) },
      }),
      providesTags: [list('supplier')],
    }),
    supplier: b.query<SupplierAccount, Of<{ id: string }>>({
      query: ({ company, id }) => at(company, `/suppliers/${id}`),
      providesTags: (_, __, { id }) => [{ type: 'supplier', id }],
    }),
    items: b.infiniteQuery<SupplierItems, Of<{ id: string; show: 'open' | 'settled' | 'all' }>, string | null>({
      infiniteQueryOptions: { initialPageParam: null, getNextPageParam: (last) => last.next },
      query: ({ queryArg: { company, id, show }, pageParam }) => ({
        url: at(company, `/suppliers/${id}/items`),
        params: { show, ...(pageParam ? { cursor: pageParam } : {}) },
      }),
      providesTags: [list('supplier'), list('entry')],
    }),
    newSupplier: b.mutation<Choice, Of<{ body: NewSupplier }>>({
      query: ({ company, body }) => ({ url: at(company, '/suppliers'), method: 'POST', body }),
      invalidatesTags: [list('supplier'), 'choices'],
    }),
    changeSupplier: b.mutation<void, Of<{ id: string; body: ChangeSupplier }>>({
      query: ({ company, id, body }) => ({ url: at(company, `/suppliers/${id}`), method: 'PUT', body }),
      invalidatesTags: (_, __, { id }) => [{ type: 'supplier', id }, list('supplier'), 'choices', 'bill'],
    }),
    newBankAccount: b.mutation<void, Of<{ id: string; body: NewBankAccount }>>({
      query: ({ company, id, body }) => ({ url: at(company, `/suppliers/${id}/bank-accounts`), method: 'POST', body }),
      invalidatesTags: (_, __, { id }) => [{ type: 'supplier', id }, 'bill'],
    }),
    verifyBankAccount: b.mutation<void, Of<{ id: string; supplier: string; how: string }>>({
      query: ({ company, id, how }) => ({ url: at(company, `/bank-accounts/${id}/verify`), method: 'POST', body: { how } }),
      invalidatesTags: (_, __, { supplier }) => [{ type: 'supplier', id: supplier }, 'bill'],
    }),
    retireBankAccount: b.mutation<void, Of<{ id: string; supplier: string }>>({
      query: ({ company, id }) => ({ url: at(company, `/bank-accounts/${id}/retire`), method: 'POST', body: {} }),
      invalidatesTags: (_, __, { supplier }) => [{ type: 'supplier', id: supplier }, 'bill'],
    }),
  }),
});
