import type {
  AccountList,
  BudgetList,
  CheckList,
  SetCheck,
  CombinationEffect,
  CombinationList,
  CombinationQuery,
  CompanySettings,
  CostCentreList,
  DimensionList,
  DimensionRow,
  DimensionValueList,
  DistributionList,
  Effect,
  EventList,
  ItemList,
  TermsList,
  NewPerson,
  PersonList,
  PutBudget,
  PutCombination,
  PutDimension,
  PutDistribution,
  PutRate,
  PutUsualCoding,
  RateList,
  SetCompany,
  SetRoles,
  TaxCodeList,
  UsualCoding,
} from '@ledgerline/contract';
import { api, at, list, type Of } from '../app/api';

const changed = ['settings', 'choices', 'bill'] as const;
const cursorOf = (cursor: string | null, params: object) => ({ ...params, ...(cursor ? { cursor } : {}) });
const pages = { initialPageParam: null, getNextPageParam: (last: { next: string | null }) => last.next };
/** Made where there is no id yet, changed where there is one. */
const put = (company: string, path: string, id: string | null, body: object) =>
  id ? { url: at(company, `${path}/${id}`), method: 'PUT', body } : { url: at(company, path), method: 'POST', body };

export const settingsApi = api.injectEndpoints({
  overrideExisting: 'throw',
  endpoints: (b) => ({
    company: b.query<CompanySettings, Of>({ query: ({ company }) => at(company, '/settings'), providesTags: ['settings'] }),
    setCompany: b.mutation<void, Of<{ body: SetCompany }>>({
      query: ({ company, body }) => ({ url: at(company, '/settings'), method: 'PUT', body }),
      invalidatesTags: ['settings', 'session'],
    }),
    /** A row of a list: made, or changed where it has an id. */
    putRow: b.mutation<void, Of<{ path: string; id: string | null; body: object }>>({
      query: ({ company, path, id, body }) => put(company, path, id, body),
      invalidatesTags: changed,
    }),
    /** What a change would do to bills in hand, before it is kept. */
    effect: b.query<Effect, Of<{ path: string; body: object }>>({
      query: ({ company, path, body }) => ({ url: at(company, `${path}/effect`), method: 'POST', body }),
      providesTags: ['settings', list('bill')],
    }),
    people: b.query<PersonList, Of>({ query: ({ company }) => at(company, '/people'), providesTags: ['settings'] }),
    newPerson: b.mutation<void, Of<{ body: NewPerson }>>({
      query: ({ company, body }) => ({ url: at(company, '/people'), method: 'POST', body }),
      invalidatesTags: ['settings'],
    }),
    setRoles: b.mutation<void, Of<{ id: string; body: SetRoles }>>({
      query: ({ company, id, body }) => ({ url: at(company, `/people/${id}/roles`), method: 'PUT', body }),
      invalidatesTags: ['settings', 'session'],
    }),
    accounts: b.infiniteQuery<AccountList, Of<{ q?: string }>, string | null>({
      infiniteQueryOptions: pages,
      query: ({ queryArg: { company, ...params }, pageParam }) => ({ url: at(company, '/accounts'), params: cursorOf(pageParam, params) }),
      providesTags: ['settings'],
    }),
    costCentres: b.infiniteQuery<CostCentreList, Of<{ q?: string }>, string | null>({
      infiniteQueryOptions: pages,
      query: ({ queryArg: { company, ...params }, pageParam }) => ({
        url: at(company, '/cost-centres'),
        params: cursorOf(pageParam, params),
      }),
      providesTags: ['settings'],
    }),
    taxCodes: b.query<TaxCodeList, Of>({ query: ({ company }) => at(company, '/tax-codes'), providesTags: ['settings'] }),
    itemList: b.infiniteQuery<ItemList, Of<{ q?: string }>, string | null>({
      infiniteQueryOptions: pages,
      query: ({ queryArg: { company, ...params }, pageParam }) => ({ url: at(company, '/items'), params: cursorOf(pageParam, params) }),
      providesTags: ['settings'],
    }),
    terms: b.query<TermsList, Of>({ query: ({ company }) => at(company, '/terms'), providesTags: ['settings'] }),
    budgets: b.infiniteQuery<BudgetList, Of<{ year: number; q?: string }>, string | null>({
      infiniteQueryOptions: pages,
      query: ({ queryArg: { company, ...params }, pageParam }) => ({ url: at(company, '/budgets'), params: cursorOf(pageParam, params) }),
      providesTags: ['settings', list('bill')],
    }),
    putBudget: b.mutation<void, Of<{ body: PutBudget }>>({
      query: ({ company, body }) => ({ url: at(company, '/budgets'), method: 'PUT', body }),
      invalidatesTags: ['settings'],
    }),
    usualCoding: b.query<UsualCoding, Of>({ query: ({ company }) => at(company, '/usual-coding'), providesTags: ['settings'] }),
    setUsualCoding: b.mutation<void, Of<{ body: PutUsualCoding }>>({
      query: ({ company, body }) => ({ url: at(company, '/usual-coding'), method: 'PUT', body }),
      invalidatesTags: ['settings'],
    }),
    distributions: b.query<DistributionList, Of>({ query: ({ company }) => at(company, '/distributions'), providesTags: ['settings'] }),
    putDistribution: b.mutation<void, Of<{ id: string | null; body: PutDistribution }>>({
      query: ({ company, id, body }) => put(company, '/distributions', id, body),
      invalidatesTags: ['settings'],
    }),
    dimensions: b.query<DimensionList, Of>({ query: ({ company }) => at(company, '/dimensions'), providesTags: ['settings'] }),
    putDimension: b.mutation<{ field: DimensionRow['field'] }, Of<{ id: string | null; body: PutDimension }>>({
      query: ({ company, id, body }) => put(company, '/dimensions', id, body),
      invalidatesTags: changed,
    }),
    dimensionValues: b.infiniteQuery<DimensionValueList, Of<{ field: DimensionRow['field']; q?: string }>, string | null>({
      infiniteQueryOptions: pages,
      query: ({ queryArg: { company, ...params }, pageParam }) => ({
        url: at(company, '/dimension-values'),
        params: cursorOf(pageParam, params),
      }),
      providesTags: ['settings'],
    }),
    combinations: b.query<CombinationList, Of>({ query: ({ company }) => at(company, '/combinations'), providesTags: ['settings'] }),
    combinationEffect: b.query<CombinationEffect, Of<CombinationQuery>>({
      query: ({ company, ...params }) => ({ url: at(company, '/combinations/effect'), params }),
      providesTags: ['settings', list('bill')],
    }),
    putCombination: b.mutation<void, Of<{ id: string | null; body: PutCombination }>>({
      query: ({ company, id, body }) => put(company, '/combinations', id, body),
      invalidatesTags: changed,
    }),
    rates: b.infiniteQuery<RateList, Of, string | null>({
      infiniteQueryOptions: pages,
      query: ({ queryArg: { company }, pageParam }) => ({ url: at(company, '/rates'), params: cursorOf(pageParam, {}) }),
      providesTags: ['settings'],
    }),
    putRate: b.mutation<void, Of<{ body: PutRate }>>({
      query: ({ company, body }) => ({ url: at(company, '/rates'), method: 'PUT', body }),
      invalidatesTags: changed,
    }),
    checks: b.query<CheckList, Of>({ query: ({ company }) => at(company, '/checks'), providesTags: ['settings', list('bill')] }),
    setCheck: b.mutation<void, Of<{ code: string; body: SetCheck }>>({
      query: ({ company, code, body }) => ({ url: at(company, `/checks/${code}`), method: 'PUT', body }),
      invalidatesTags: ['settings', 'bill'],
    }),
    events: b.infiniteQuery<EventList, Of<{ of: 'company' | 'sign-ins' }>, string | null>({
      infiniteQueryOptions: pages,
      query: ({ queryArg: { company, of }, pageParam }) => ({ url: at(company, '/events'), params: cursorOf(pageParam, { of }) }),
      providesTags: ['events'],
    }),
  }),
});
