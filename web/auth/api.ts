import type { ConfirmFactor, SecondFactor, Session, SessionList, SetUp, SignIn } from '@ledgerline/contract';
import { api, signedOut } from '../app/api';

export const authApi = api.injectEndpoints({
  overrideExisting: 'throw',
  endpoints: (b) => ({
    session: b.query<Session, void>({ query: () => '/session', providesTags: ['session'] }),
    signIn: b.mutation<void, SignIn>({
      query: (body) => ({ url: '/session', method: 'POST', body }),
      invalidatesTags: ['session'],
    }),
    demoSignIn: b.mutation<void, { personId: string }>({
      query: (body) => ({ url: '/session/demo', method: 'POST', body }),
      invalidatesTags: ['session'],
    }),
    signOut: b.mutation<void, void>({
      query: () => ({ url: '/session', method: 'DELETE' }),
      // Whoever signs in next begins with nothing of this person's.
      async onQueryStarted(_, { dispatch, queryFulfilled }) {
        await queryFulfilled.catch(() => undefined);
        dispatch(signedOut());
        dispatch(api.util.resetApiState());
      },
    }),
    sessions: b.query<SessionList, void>({ query: () => '/sessions', providesTags: ['sessions'] }),
    endElsewhere: b.mutation<void, void>({ query: () => ({ url: '/sessions', method: 'DELETE' }), invalidatesTags: ['sessions'] }),
    endOne: b.mutation<void, { id: string }>({
      query: ({ id }) => ({ url: `/sessions/${id}`, method: 'DELETE' }),
      invalidatesTags: ['sessions'],
    }),
    changePassword: b.mutation<void, { password: string; next: string }>({
      query: (body) => ({ url: '/session/password', method: 'PUT', body }),
      invalidatesTags: ['sessions'],
    }),
    beginFactor: b.mutation<SecondFactor, { password: string }>({ query: (body) => ({ url: '/session/factor', method: 'POST', body }) }),
    confirmFactor: b.mutation<void, ConfirmFactor>({
      query: (body) => ({ url: '/session/factor', method: 'PUT', body }),
      invalidatesTags: ['sessions'],
    }),
    dropFactor: b.mutation<void, { password: string }>({
      query: (body) => ({ url: '/session/factor', method: 'DELETE', body }),
      invalidatesTags: ['sessions'],
    }),
    setUp: b.mutation<void, SetUp>({ query: (body) => ({ url: '/setup', method: 'POST', body }), invalidatesTags: ['session'] }),
  }),
});
