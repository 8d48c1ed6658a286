import { EventList, EventsQuery } from '@ledgerline/contract';
import { decodeCursor, nextOf } from '../http/cursor.ts';
import type { Api } from '../http/define.ts';
import { Refusal } from '../http/problems.ts';
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
      if (query.of === 'sign-ins' && !caller.company.roles.includes('administrator'))
        throw new Refusal(403, 'Only administrators see who signed in.');
      const events = await listEvents(services.database.db, query.of === 'sign-ins' ? null : caller.company.id, {
        subject: query.subject,
        id: query.id,
        before: at ? Number(at[0]) : undefined,
        limit,
      });
      return { events, next: nextOf(events, limit, (last) => [String(last.seq), last.id]) };
    },
  );
}
