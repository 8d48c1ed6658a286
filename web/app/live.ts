import { useEffect } from 'react';
import { useDispatch } from 'react-redux';
import { api, list, tags, type Tag } from './api';

interface Change {
  type: string;
  company: string;
  id: string | null;
}
/** What is fetched again when something happened to a kind of thing. */
const concerns: Record<string, (id: string | null) => (Tag | { type: Tag; id: string })[]> = {
  bill: (id) => [...(id ? [{ type: 'bill' as const, id }] : ['bill' as const]), list('bill'), 'today', list('arrival')],
  arrival: (id) => [...(id ? [{ type: 'arrival' as const, id }] : []), list('arrival'), 'today'],
  document: (id) => [...(id ? [{ type: 'document' as const, id }] : []), list('arrival'), 'today'],
  presence: (id) => (id ? [{ type: 'presence' as const, id }] : []),
  entry: () => [list('entry'), list('supplier'), 'today'],
  // What changes in the master data may settle or open something on any bill.
  supplier: (id) => [...(id ? [{ type: 'supplier' as const, id }] : ['supplier' as const]), list('supplier'), 'choices', 'bill'],
  order: (id) => [...(id ? [{ type: 'order' as const, id }] : ['order' as const]), list('order'), 'bill', list('bill')],
  terms: () => ['settings', 'choices'],
  import: () => ['settings', 'choices', 'bill', 'supplier', list('supplier'), list('bill'), 'order', list('order')],
  period: () => ['period'],
  company: () => ['session', 'settings'],
  person: () => ['session', 'settings'],
  'coding-rule': () => ['coding'],
  check: () => ['settings', 'bill'],
  // The server itself heard nothing for a while.
  away: () => [...tags],
};

/** What happens within this time is fetched again together, in milliseconds: one act of somebody says several things in a row. */
const together = 250;

/** Listens to the server's event stream: what changed in this company is loaded again; after the stream was away, everything is. */
export function useLive(company: string): void {
  const dispatch = useDispatch();
  useEffect(() => {
    let stream: EventSource | null = null,
      timer: ReturnType<typeof setTimeout> | undefined,
      soon: ReturnType<typeof setTimeout> | undefined,
      away = false;
    const changed = new Map<string, Change>();
    const tell = () => {
      soon = undefined;
      const changes = [...changed.values()];
      changed.clear();
      const concerned = changes.flatMap((c) =>
        (concerns[c.type] ?? (() => ['settings' as const, 'choices' as const, 'bill' as const]))(c.id),
      );
      if (changes.some((c) => c.type !== 'presence')) concerned.push('events');
      dispatch(api.util.invalidateTags(concerned));
    };
    const open = () => {
      stream = new EventSource('/api/live');
      stream.addEventListener('open', () => {
        if (away) dispatch(api.util.invalidateTags([...tags]));
        away = false;
      });
      stream.addEventListener('changes', (event) => {
        for (const c of JSON.parse((event as MessageEvent<string>).data) as Change[])
          if (c.company === company) changed.set(`${c.type} ${c.id}`, c);
        if (changed.size > 0) soon ??= setTimeout(tell, together);
      });
      // The session has ended, here or elsewhere.
      stream.addEventListener('over', () => dispatch(api.util.invalidateTags(['session'])));
      stream.addEventListener('error', () => {
        away = true;
        // The browser comes back by itself, unless the server answered with a refusal.
        if (stream?.readyState !== EventSource.CLOSED) return;
        clearTimeout(timer);
        timer = setTimeout(open, 5000);
      });
    };
    open();
    return () => {
      clearTimeout(timer);
      clearTimeout(soon);
      stream?.close();
    };
  }, [company, dispatch]);
}
