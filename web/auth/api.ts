import type { Session, SetUp } from '@ledgerline/contract';
import { api, signedOut } from '../app/api';

export const authApi = api.injectEndpoints({
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
    signOut: b.mutation<void, void>({
      query: () => ({ url: '/session', method: 'DELETE' }),
      // Whoever signs in next begins with nothing of this person's.
      async onQueryStarted(_, { dispatch, queryFulfilled }) {
        await queryFulfilled.catch(() => undefined);
        dispatch(signedOut());
        dispatch(api.util.resetApiState());
      },
    }),
    setUp: b.mutation<void, SetUp>({ query: (body) => ({ url: '/setup', method: 'POST', body }), invalidatesTags: ['session'] }),
  }),
});
