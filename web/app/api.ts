import { createAction } from '@reduxjs/toolkit';
import { createApi, fetchBaseQuery } from '@reduxjs/toolkit/query/react';
import type { Problem } from '@ledgerline/contract';
import { isIdle } from './idle';

/** What can be fetched: by kind and, where there is one, by id; 'LIST' stands for lists of the kind. */
export const tags = [
  'session',
  'sessions',
  'today',
  'arrival',
  'document',
  'bill',
  'entry',
  'period',
  'supplier',
  'order',
  'choices',
  'settings',
  'events',
  'presence',
  'views',
  'repeat',
  'import',
  'coding',
] as const;
export type Tag = (typeof tags)[number];
export const list = (type: Tag) => ({ type, id: 'LIST' as const });

const ask = fetchBaseQuery({
  baseUrl: '/api',
  prepareHeaders(headers) {
    if (isIdle()) headers.set('ledgerline-idle', '1');
  },
});
/** Asks the server; one that does not know us any more lets us sign in again. */
const askSignedIn: typeof ask = async (asked, of, more) => {
  const answer = await ask(asked, of, more);
  if (answer.error?.status === 401 && of.endpoint !== 'signIn') of.dispatch(api.util.invalidateTags(['session']));
  return answer;
};

/** Everything that is only fetched. Each area adds its endpoints (`bills/api.ts` …). */
export const api = createApi({
  baseQuery: askSignedIn,
  tagTypes: tags,
  endpoints: () => ({}),
});

/** Somebody signed out: what was held for them goes. */
export const signedOut = createAction('signedOut');

/** What every endpoint of a company is asked with. */
export type Of<T = object> = { company: string } & T;
export const at = (company: string, path: string) => `/companies/${company}${path}`;

interface Failed {
  status?: number | string;
  data?: Partial<Problem>;
}
export const problemOf = (error: unknown): Failed => (error ?? {}) as Failed;
/** The server could not be reached, or was not itself: what was asked may be asked again. */
export const isAway = (error: unknown): boolean => {
  const { status, data } = problemOf(error);
  return status === 'FETCH_ERROR' || status === 'TIMEOUT_ERROR' || status === 'PARSING_ERROR' || (Number(status) >= 500 && !data?.kind);
};

/** The sentence of a failed call, whatever failed. */
export function sentenceOf(error: unknown): string {
  const { status, data } = problemOf(error);
  if (status === 'FETCH_ERROR')
    return 'The server does not answer. What you typed is still here; it is saved as soon as the server is back.';
  return data?.title ?? 'Something went wrong. Please try again.';
}
