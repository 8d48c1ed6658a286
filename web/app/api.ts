import { createApi, fetchBaseQuery } from '@reduxjs/toolkit/query/react';
import type {
  ArrivalDetail,
  ArrivalList,
  Arrange,
  Arrangement,
  Bill,
  BillList,
  BillsQuery,
  Choices,
  DocumentPages,
  Entry,
  EntryList,
  JournalPreview,
  NewSupplier,
  NextBill,
  PeriodList,
  PostBills,
  Posted,
  Problem,
  SaveBill,
  ScanSeparator,
  Session,
  Spot,
  SpotText,
  SetUp,
  SupplierAccount,
  SupplierList,
  Today,
  Trail,
} from '@ledgerline/contract';

type Of<T = object> = { company: string } & T;
const at = (company: string, path: string) => `/companies/${company}${path}`;

/** Every call to the server, by area. Changes told by the server's event stream invalidate by tag. */
export const api = createApi({
  baseQuery: fetchBaseQuery({ baseUrl: '/api' }),
  tagTypes: ['session', 'arrivals', 'bills', 'ledger', 'suppliers', 'choices'],
  endpoints: (b) => ({
    session: b.query<Session, void>({ query: () => '/session', providesTags: ['session'] }),
    signIn: b.mutation<void, { email: string; password: string }>({
      query: (body) => ({ url: '/session', method: 'POST', body }),
      invalidatesTags: ['session'],
    }),
    demoSignIn: b.mutation<void, { personId: string }>({
      query: (body) => ({ url: '/session/demo', method: 'POST', body }),
      invalidatesTags: ['session'],
    }),
    signOut: b.mutation<void, void>({ query: () => ({ url: '/session', method: 'DELETE' }), invalidatesTags: ['session'] }),
    setUp: b.mutation<void, SetUp>({ query: (body) => ({ url: '/setup', method: 'POST', body }), invalidatesTags: ['session'] }),
    today: b.query<Today, Of>({ query: ({ company }) => at(company, '/today'), providesTags: ['bills', 'arrivals'] }),
    arrivals: b.query<ArrivalList, Of<{ cursor?: string }>>({
      query: ({ company, cursor }) => ({ url: at(company, '/arrivals'), params: cursor ? { cursor } : {} }),
      providesTags: ['arrivals', 'bills'],
    }),
    arrival: b.query<ArrivalDetail, Of<{ id: string }>>({
      query: ({ company, id }) => at(company, `/arrivals/${id}`),
      providesTags: ['arrivals'],
    }),
    retry: b.mutation<void, Of<{ id: string }>>({
      query: ({ company, id }) => ({ url: at(company, `/documents/${id}/retry`), method: 'POST' }),
      invalidatesTags: ['arrivals'],
    }),
    setScanning: b.mutation<void, Of<{ separator: ScanSeparator }>>({
      query: ({ company, separator }) => ({ url: at(company, '/scanning'), method: 'PUT', body: { separator } }),
      invalidatesTags: ['session'],
    }),
    readSpot: b.mutation<SpotText, Of<{ id: string; body: Spot }>>({
      query: ({ company, id, body }) => ({ url: at(company, `/documents/${id}/spot`), method: 'POST', body }),
    }),
    arrangement: b.query<Arrangement, Of<{ id: string }>>({
      query: ({ company, id }) => at(company, `/arrivals/${id}/pages`),
      providesTags: ['arrivals', 'bills'],
    }),
    arrange: b.mutation<Arrangement, Of<{ id: string; body: Arrange }>>({
      query: ({ company, id, body }) => ({ url: at(company, `/arrivals/${id}/pages`), method: 'PUT', body }),
      invalidatesTags: ['arrivals', 'bills'],
    }),
    pages: b.query<DocumentPages, Of<{ id: string }>>({
      query: ({ company, id }) => at(company, `/documents/${id}/pages`),
      providesTags: ['arrivals'],
    }),
    choices: b.query<Choices, Of>({ query: ({ company }) => at(company, '/choices'), providesTags: ['choices', 'suppliers'] }),
    bills: b.query<BillList, Of<BillsQuery>>({
      query: ({ company, ...params }) => ({ url: at(company, '/bills'), params }),
      providesTags: ['bills'],
    }),
    bill: b.query<Bill, Of<{ id: string }>>({ query: ({ company, id }) => at(company, `/bills/${id}`), providesTags: ['bills'] }),
    nextBill: b.query<NextBill, Of<{ after?: string; queue?: 'review' | 'approve' }>>({
      query: ({ company, ...params }) => ({ url: at(company, '/bills/next'), params }),
      providesTags: ['bills'],
    }),
    sameSupplier: b.query<BillList, Of<{ id: string }>>({
      query: ({ company, id }) => at(company, `/bills/${id}/with-supplier`),
      providesTags: ['bills'],
    }),
    saveBill: b.mutation<Bill, Of<{ id: string; body: SaveBill }>>({
      query: ({ company, id, body }) => ({ url: at(company, `/bills/${id}`), method: 'PATCH', body }),
    }),
    moveBill: b.mutation<
      Bill,
      Of<{
        id: string;
        move: 'send' | 'take-back' | 'approve' | 'return' | 'set-aside' | 'discard' | 'restore';
        rowVersion: number;
        note?: string;
      }>
    >({
      query: ({ company, id, move, ...body }) => ({ url: at(company, `/bills/${id}/${move}`), method: 'POST', body }),
      invalidatesTags: ['bills'],
    }),
    journal: b.query<JournalPreview, Of<{ id: string }>>({
      query: ({ company, id }) => at(company, `/bills/${id}/journal`),
      providesTags: ['bills'],
    }),
    post: b.mutation<Posted, Of<{ body: PostBills }>>({
      query: ({ company, body }) => ({ url: at(company, '/postings'), method: 'POST', body }),
      invalidatesTags: ['bills', 'ledger', 'suppliers'],
    }),
    entries: b.query<EntryList, Of<{ q?: string; cursor?: string }>>({
      query: ({ company, ...params }) => ({ url: at(company, '/entries'), params }),
      providesTags: ['ledger'],
    }),
    entry: b.query<Entry, Of<{ id: string }>>({ query: ({ company, id }) => at(company, `/entries/${id}`) }),
    trail: b.query<Trail, Of<{ id: string }>>({ query: ({ company, id }) => at(company, `/entry-lines/${id}/trail`) }),
    periods: b.query<PeriodList, Of>({ query: ({ company }) => at(company, '/periods'), providesTags: ['ledger'] }),
    setPeriod: b.mutation<void, Of<{ year: number; month: number; open: boolean }>>({
      query: ({ company, ...body }) => ({ url: at(company, '/periods'), method: 'PUT', body }),
      invalidatesTags: ['ledger'],
    }),
    suppliers: b.query<SupplierList, Of<{ q?: string }>>({
      query: ({ company, ...params }) => ({ url: at(company, '/suppliers'), params }),
      providesTags: ['suppliers', 'ledger'],
    }),
    supplier: b.query<SupplierAccount, Of<{ id: string }>>({
      query: ({ company, id }) => at(company, `/suppliers/${id}`),
      providesTags: ['suppliers', 'ledger'],
    }),
    newSupplier: b.mutation<{ id: string; name: string }, Of<{ body: NewSupplier }>>({
      query: ({ company, body }) => ({ url: at(company, '/suppliers'), method: 'POST', body }),
      invalidatesTags: ['suppliers'],
    }),
  }),
});

/** The sentence of a failed call, whatever failed. */
export function sentenceOf(error: unknown): string {
  const data = (error as { data?: Partial<Problem> } | undefined)?.data;
  if (data?.title) return data.title;
  return (error as { status?: unknown } | undefined)?.status === 'FETCH_ERROR'
    ? 'The server does not answer. What you typed is still here; it is saved as soon as the server is back.'
    : 'Something went wrong. Please try again.';
}
