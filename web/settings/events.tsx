import { useState } from 'react';
import type { EventRow } from '@ledgerline/contract';
import { usePlace } from '../app/company';
import type { Column } from '../ui/data-table';
import { showTime } from '../ui/format';
import { useRows } from '../ui/infinite';
import { settingsApi } from './api';
import { ListArea } from './list-area';

const said = (e: EventRow): string =>
  [e.note, ...e.changes.slice(0, 4).map((c) => `${c.field.replace(/^[0-9a-f-]{36}\./, 'row ')}: ${c.before ?? '–'} → ${c.after ?? '–'}`)]
    .filter(Boolean)
    .join(' · ');

const columns: Column<EventRow>[] = [
  { id: 'seq', head: 'No.', width: 72, num: true, cell: (e) => <span className="quiet">{e.seq}</span> },
  { id: 'at', head: 'When', width: 124, cell: (e) => showTime(e.at) },
  { id: 'who', head: 'Who', width: 140, cell: (e) => e.person ?? 'Ledgerline' },
  { id: 'what', head: 'What', width: 200, cell: (e) => (e.subject === 'sign-in' ? e.verb : `${e.subject} ${e.verb}`) },
  { id: 'changes', head: 'Before and after', minor: true, cell: (e) => <span title={said(e)}>{said(e)}</span> },
  { id: 'from', head: 'From', width: 84, minor: true, cell: (e) => <span className="quiet">{e.source}</span> },
];

/** The event log: who did what, before and after, newest first. It is only added to, and chained so that a change would show. */
export function EventsArea() {
  const { company } = usePlace();
  const [of, choose] = useState<'company' | 'sign-ins'>('company');
  const rows = useRows(settingsApi.useEventsInfiniteQuery({ company: company.id, of }), (p) => p.events);
  return (
    <ListArea
      title="Event log"
      detail="Who did what, newest first. It is only added to; a change or a gap would show"
      what="event"
      {...(of === 'company' ? { saves: 'events' as const } : {})}
      rows={rows}
      columns={columns}
      rowId={(e) => e.id}
      {...(company.roles.includes('administrator')
        ? {
            aside: (
              <select
                aria-label="Which events"
                className="select select-sm w-56"
                value={of}
                onChange={(e) => choose(e.target.value as typeof of)}
              >
                <option value="company">{company.name}</option>
                <option value="sign-ins">Sign-ins, all companies</option>
              </select>
            ),
          }
        : {})}
    />
  );
}
