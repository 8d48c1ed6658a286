import { EventList, EventsQuery } from '@ledgerline/contract';
import { decodeCursor, encodeCursor } from '../http/cursor.ts';
import type { Api } from '../http/define.ts';
import { listEvents } from './store.ts';

export function eventRoutes(api: Api): void {
  api.query(
    {
      path: '/events',
      access: 'events:see',
      summary: 'Who did what, newest first, as the event log has it',
      query: EventsQuery,
      answer: EventList,
    },
    async ({ services, caller, query }) => {
      const limit = query.limit ?? 100,
        at = decodeCursor(query.cursor, 'whole');
      const events = await listEvents(services.database.db, caller.company.id, {
        subject: query.subject,
        id: query.id,
        before: at ? Number(at[0]) : undefined,
        limit,
      });
      const last = events[events.length - 1];
      return { events, next: last && events.length === limit ? encodeCursor([String(last.seq), last.id]) : null };
    },
  );
}
