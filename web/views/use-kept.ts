import { useEffect, useRef, useState } from 'react';
import { useDispatch } from 'react-redux';
import type { PersonView } from '@ledgerline/contract';
import type { AppDispatch } from '../app/store';
import { viewsApi } from './api';

type Place = keyof PersonView;
/** How long nothing changes before it is kept, in milliseconds. */
const settles = 800;

/**
 * How a person looks at a place: at once as this browser had it, then as the server has it, and kept there for wherever they sign in
 * next. `from`: makes a view of whatever was kept.
 */
export function useKept<V extends NonNullable<PersonView[Place]>>(
  personId: string,
  place: Place,
  from: (kept: unknown) => V,
): [V, (change: Partial<V>) => void] {
  const key = `view ${place} ${personId}`;
  const [view, set] = useState<V>(() => from(parsed(localStorage.getItem(key))));
  const { data } = viewsApi.useOwnViewsQuery();
  const dispatch = useDispatch<AppDispatch>();
  const [keep] = viewsApi.useKeepViewsMutation();
  const touched = useRef(false);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const theirs = data?.[place];
  useEffect(() => {
    if (theirs && !touched.current) set(from(theirs));
  }, [theirs]); // eslint-disable-line react-hooks/exhaustive-deps -- once it is there
  return [
    view,
    (change) => {
      touched.current = true;
      const next = from({ ...view, ...change });
      localStorage.setItem(key, JSON.stringify(next));
      set(next);
      // Whoever looks next in this window sees it as it is now, not as it was fetched.
      dispatch(viewsApi.util.updateQueryData('ownViews', undefined, (had) => ({ ...had, [place]: next })));
      clearTimeout(timer.current);
      timer.current = setTimeout(() => void keep({ [place]: next }), settles);
    },
  ];
}

function parsed(kept: string | null): unknown {
  try {
    return JSON.parse(kept ?? 'null');
  } catch {
    return null;
  }
}
