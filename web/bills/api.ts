import type {
  Bill,
  BillList,
  BillsQuery,
  ChangeBill,
  Choices,
  ChoiceKind,
  JournalPreview,
  NextBill,
  PostBills,
  Posted,
  SettleException,
} from '@ledgerline/contract';
import { api, at, list, type Of } from '../app/api';

export type MoveKind = 'send' | 'take-back' | 'approve' | 'return' | 'set-aside' | 'discard' | 'restore';
/** What changes beside the bill itself when a bill moves. */
const moved = [list('bill'), list('arrival'), 'today'] as const;

export const billsApi = api.injectEndpoints({
  endpoints: (b) => ({
    bills: b.infiniteQuery<BillList, Of<Omit<BillsQuery, 'cursor'>>, string | null>({
      infiniteQueryOptions: { initialPageParam: null, getNextPageParam: (last) => last.next },
      query: ({ queryArg: { company, ...params }, pageParam }) => ({
        url: at(company, '/bills'),
        params: { ...params, ...(pageParam ? { cursor: pageParam } : {}) },
      }),
      providesTags: [list('bill')],
    }),
    bill: b.query<Bill, Of<{ id: string }>>({
      query: ({ company, id }) => at(company, `/bills/${id}`),
      providesTags: (_, __, { id }) => [{ type: 'bill', id }],
    }),
    nextBill: b.query<NextBill, Of<{ after?: string; queue?: 'review' | 'approve' }>>({
      query: ({ company, ...params }) => ({ url: at(company, '/bills/next'), params }),
      providesTags: [list('bill')],
    }),
    sameSupplier: b.query<BillList, Of<{ id: string }>>({
      query: ({ company, id }) => at(company, `/bills/${id}/with-supplier`),
      providesTags: [list('bill')],
    }),
    changeBill: b.mutation<Bill, Of<{ id: string; body: ChangeBill }>>({
      query: ({ company, id, body }) => ({ url: at(company, `/bills/${id}`), method: 'PATCH', body }),
    }),
    settleException: b.mutation<Bill, Of<{ id: string; body: SettleException }>>({
      query: ({ company, id, body }) => ({ url: at(company, `/bills/${id}/exceptions`), method: 'POST', body }),
      invalidatesTags: [list('bill')],
    }),
    moveBill: b.mutation<Bill, Of<{ id: string; move: MoveKind; rowVersion: number; note?: string }>>({
      query: ({ company, id, move, ...body }) => ({ url: at(company, `/bills/${id}/${move}`), method: 'POST', body }),
      invalidatesTags: (_, __, { id }) => [{ type: 'bill', id }, ...moved],
    }),
    journal: b.query<JournalPreview, Of<{ id: string }>>({
      query: ({ company, id }) => at(company, `/bills/${id}/journal`),
      providesTags: (_, __, { id }) => [{ type: 'bill', id }],
    }),
    post: b.mutation<Posted, Of<{ body: PostBills }>>({
      query: ({ company, body }) => ({ url: at(company, '/postings'), method: 'POST', body }),
      invalidatesTags: [...moved, list('entry'), list('supplier')],
    }),
    choices: b.query<Choices, Of<{ of: ChoiceKind; q: string }>>({
      query: ({ company, of, q }) => ({ url: at(company, '/choices'), params: { of, ...(q ? { q } : {}) } }),
      providesTags: ['choices'],
    }),
    currencies: b.query<{ currencies: string[] }, Of>({
      query: ({ company }) => at(company, '/currencies'),
      providesTags: ['choices'],
    }),
  }),
});
