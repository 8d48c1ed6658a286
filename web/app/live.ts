import { useEffect } from 'react';
import { useDispatch } from 'react-redux';
import { api } from './api';

const areas = ['arrivals', 'bills', 'ledger', 'suppliers'] as const;

/** Listens to the server's event stream: what changed in this company is loaded again. */
export function useLive(company: string): void {
  const dispatch = useDispatch();
  useEffect(() => {
    const stream = new EventSource('/api/live');
    stream.addEventListener('change', (event) => {
      const change = JSON.parse((event as MessageEvent<string>).data) as { area: string; company: string };
      const area = areas.find((a) => a === change.area);
      if (area && change.company === company) dispatch(api.util.invalidateTags([area]));
    });
    return () => stream.close();
  }, [company, dispatch]);
}
