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
  const waiting = useRef<{ timer: ReturnType<typeof setTimeout>; now(): void } | null>(null);
  const theirs = data?.[place];
  useEffect(() => {
    if (theirs && !touched.current) set(from(theirs));
  }, [theirs]); // eslint-disable-line react-hooks/exhaustive-deps -- once it is there
  // Whoever leaves before it has settled finds it kept all the same.
  useEffect(() => {
    const leaving = () => waiting.current?.now();
    addEventListener('pagehide', leaving);
    return () => removeEventListener('pagehide', leaving);
  }, []);
  return [
    view,
    (change) => {
      touched.current = true;
      const next = from({ ...view, ...change });
      localStorage.setItem(key, JSON.stringify(next));
      set(next);
      // Whoever looks next in this window sees it as it is now, not as it was fetched.
      dispatch(viewsApi.util.updateQueryData('ownViews', undefined, (had) => ({ ...had, [place]: next })));
      clearTimeout(waiting.current?.timer);
      const now = () => {
        clearTimeout(waiting.current?.timer);
        waiting.current = null;
        void keep({ [place]: next });
      };
      waiting.current = { timer: setTimeout(now, settles), now };
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
