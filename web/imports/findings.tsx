import { useState } from 'react';
import type { FindingList, FindingsQuery, ImportRun } from '@ledgerline/contract';
import { usePlace } from '../app/company';
import { DataTable, type Column } from '../ui/data-table';
import { useRows } from '../ui/infinite';
import { SearchField } from '../ui/search';
import { SaveMenu } from './save-menu';
import { importsApi } from './api';

type Finding = FindingList['findings'][number];
const columns: Column<Finding>[] = [
  { id: 'row', head: 'Row', width: 72, num: true, sort: 'row', ascending: true, cell: (f) => f.row },
  { id: 'column', head: 'Column', width: 190, sort: 'column', ascending: true, cell: (f) => f.column },
  { id: 'cell', head: 'Stands there', width: 200, minor: true, cell: (f) => <span className="code">{f.cell}</span> },
  { id: 'sentence', head: 'What is wrong', sort: 'sentence', ascending: true, cell: (f) => <span title={f.sentence}>{f.sentence}</span> },
  {
    id: 'severity',
    head: '',
    width: 110,
    sort: 'severity',
    ascending: true,
    cell: (f) => (
      <span className={f.severity === 'error' ? 'text-error' : 'quiet'}>{f.severity === 'error' ? 'left out' : 'to look at'}</span>
    ),
  },
];

/** What is wrong in a file, row by row: searched, sorted, and only the errors or only what is to be looked at. */
export function Findings({ run }: { run: ImportRun }) {
  const { company } = usePlace();
  const [q, setQ] = useState('');
  const [severity, choose] = useState<'' | 'error' | 'warning'>('');
  const [sorted, sort] = useState<{ by: NonNullable<FindingsQuery['sort']>; order: 'asc' | 'desc' }>({ by: 'row', order: 'asc' });
  const rows = useRows(
    importsApi.useFindingsInfiniteQuery({
      company: company.id,
      id: run.id,
      sort: sorted.by,
      order: sorted.order,
      ...(q ? { q } : {}),
      ...(severity ? { severity } : {}),
    }),
    (p) => p.findings,
  );
  return (
    <section aria-label="What is wrong" className="flex min-h-0 grow flex-col">
      <div className="flex shrink-0 items-center gap-4 px-6 py-1">
        <SearchField label="Search what is wrong" placeholder="Row, column or words" value={q} change={setQ} />
        <select
          aria-label="Which"
          className="select select-sm w-44"
          value={severity}
          onChange={(e) => choose(e.target.value as typeof severity)}
        >
          <option value="">All</option>
          <option value="error">Left out</option>
          <option value="warning">To look at</option>
        </select>
        {run.counts.bad > 0 && <SaveMenu path={`/imports/${run.id}/left-out`} asked={{}} what="the rows left out" />}
      </div>
      <DataTable<Finding>
        label="What is wrong"
        remember={`findings ${run.id}`}
        {...rows}
        columns={columns}
        rowId={(f) => String(f.n)}
        sorted={{ ...sorted, set: (by, order) => sort({ by, order }) }}
        empty="Nothing fits."
      />
    </section>
  );
}
