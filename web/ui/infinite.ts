import { useCallback, useMemo } from 'react';

interface Infinite<P> {
  currentData?: { pages: P[] } | undefined;
  error?: unknown;
  isFetching: boolean;
  hasNextPage: boolean;
  fetchNextPage(): unknown;
}

/** An infinite query as the rows of a list: those loaded so far, and how to load more. */
export function useRows<P, T>(query: Infinite<P>, of: (page: P) => T[]) {
  const { currentData, error, isFetching, hasNextPage, fetchNextPage } = query;
  const rows = useMemo(() => (currentData?.pages ?? []).flatMap(of), [currentData]); // eslint-disable-line react-hooks/exhaustive-deps -- `of` picks a field
  const load = useCallback(() => {
    if (!isFetching) void fetchNextPage();
  }, [isFetching, fetchNextPage]);
  return { rows, more: hasNextPage, load, loading: !currentData && !error, error };
}
