import type {
  Bill,
  BillDocuments,
  BillList,
  BillsQuery,
  ChangeBill,
  Choices,
  ChoiceKind,
  Colleagues,
  JoinDocument,
  JournalPreview,
  MovedTo,
  NewBill,
  NextBill,
  PostBills,
  Posted,
  Presence,
  SettleException,
  VerifyBill,
  TakeNext,
} from '@ledgerline/contract';
import type { Coding } from '@ledgerline/core/bills';
import { api, at, list, type Of } from '../app/api';

export type MoveKind = 'send' | 'take-back' | 'approve' | 'return' | 'set-aside' | 'discard' | 'restore';
/** What changes beside the bill itself when a bill moves. */
const moved = [list('bill'), list('arrival'), 'today'] as const;
/** All that is fetched again when a bill has moved. */
/** What of a question is said. */
const said = (of: Record<string, string | null | undefined>): Record<string, string> =>
  Object.fromEntries(Object.entries(of).flatMap(([name, value]) => (value ? [[name, value]] : [])));

export const movedTags = (id: string) => [{ type: 'bill' as const, id }, ...moved];

export const billsApi = api.injectEndpoints({
  overrideExisting: 'throw',
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
    verifyBill: b.mutation<Bill, Of<{ id: string; body: VerifyBill }>>({
      query: ({ company, id, body }) => ({ url: at(company, `/bills/${id}/verify`), method: 'POST', body }),
      invalidatesTags: [list('bill'), 'supplier'],
    }),
    /** `later`: who moves it goes on to another bill at once, and tells what changed (`movedTags`) when that one is there. */
    moveBill: b.mutation<
      Bill,
      Of<{ id: string; move: MoveKind; rowVersion: number; note?: string; until?: string | null; later?: boolean }>
    >({
      query: ({ company, id, move, later: _later, ...body }) => ({ url: at(company, `/bills/${id}/${move}`), method: 'POST', body }),
      invalidatesTags: (_, __, { id, later }) => (later ? [] : movedTags(id)),
    }),
    takeNext: b.mutation<NextBill, Of<{ body: TakeNext }>>({
      query: ({ company, body }) => ({ url: at(company, '/bills/take'), method: 'POST', body }),
    }),
    assignBill: b.mutation<Bill, Of<{ id: string; rowVersion: number; personId: string | null }>>({
      query: ({ company, id, ...body }) => ({ url: at(company, `/bills/${id}/assign`), method: 'POST', body }),
      invalidatesTags: (_, __, { id }) => movedTags(id),
    }),
    moveToCompany: b.mutation<MovedTo, Of<{ id: string; rowVersion: number; companyId: string }>>({
      query: ({ company, id, ...body }) => ({ url: at(company, `/bills/${id}/move`), method: 'POST', body }),
      invalidatesTags: (_, __, { id }) => movedTags(id),
    }),
    /** Tells that one is at a bill, and asks who else is. */
    atBill: b.query<Presence, Of<{ id: string }>>({
      query: ({ company, id }) => ({ url: at(company, `/bills/${id}/here`), method: 'POST', body: {} }),
      providesTags: (_, __, { id }) => [{ type: 'presence', id }],
    }),
    leftBill: b.mutation<void, Of<{ id: string }>>({
      query: ({ company, id }) => ({ url: at(company, `/bills/${id}/here`), method: 'DELETE', body: {} }),
    }),
    newBill: b.mutation<{ id: string }, Of<{ body: NewBill }>>({
      query: ({ company, body }) => ({ url: at(company, '/bills'), method: 'POST', body }),
      invalidatesTags: [...moved],
    }),
    documents: b.query<BillDocuments, Of<{ id: string }>>({
      query: ({ company, id }) => at(company, `/bills/${id}/documents`),
      providesTags: [list('arrival')],
    }),
    joinDocument: b.mutation<Bill, Of<{ id: string; body: JoinDocument }>>({
      query: ({ company, id, body }) => ({ url: at(company, `/bills/${id}/documents`), method: 'POST', body }),
      invalidatesTags: (_, __, { id }) => movedTags(id),
    }),
    colleagues: b.query<Colleagues, Of>({ query: ({ company }) => at(company, '/colleagues'), providesTags: ['settings'] }),
    journal: b.query<JournalPreview, Of<{ id: string }>>({
      query: ({ company, id }) => at(company, `/bills/${id}/journal`),
      providesTags: (_, __, { id }) => [{ type: 'bill', id }],
    }),
    post: b.mutation<Posted, Of<{ body: PostBills }>>({
      query: ({ company, body }) => ({ url: at(company, '/postings'), method: 'POST', body }),
      invalidatesTags: [...moved, list('entry'), list('supplier')],
    }),
    choices: b.query<Choices, Of<{ of: ChoiceKind; q: string; day?: string; beside?: Partial<Coding> }>>({
      query: ({ company, of, q, day, beside }) => ({
        url: at(company, '/choices'),
        params: { of, ...said({ q, day, ...beside }) },
      }),
      providesTags: ['choices'],
    }),
    currencies: b.query<{ currencies: string[] }, Of>({
      query: ({ company }) => at(company, '/currencies'),
      providesTags: ['choices'],
    }),
  }),
});
