import { Plus } from 'lucide-react';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import type { SupplierRow } from '@ledgerline/contract';
import { usePlace } from '../app/company';
import { DataTable, type Column } from '../ui/data-table';
import { money, showDay } from '../ui/format';
import { useRows } from '../ui/infinite';
import { SearchField } from '../ui/search';
import { Head } from '../ui/states';
import { suppliersApi } from './api';
import { FileMenu } from '../imports/file-menu';
import { SupplierDialog } from './edit';

const columns: Column<SupplierRow>[] = [
  { id: 'code', head: 'Code', width: 76, cell: (s) => <span className="code">{s.code}</span> },
  {
    id: 'name',
    head: 'Name',
    cell: (s) => (
      <>
        <span className="font-medium text-primary">{s.name}</span>
        {s.paymentsHeld && (
          <span className="ml-2 text-[12px] text-accent" title={s.paymentsHeld}>
            payments held
          </span>
        )}
        {s.blocked && (
          <span className="ml-2 text-[12px] text-error" title={s.blocked}>
            blocked
          </span>
        )}
      </>
    ),
  },
  { id: 'tax', head: 'Tax number', width: 150, minor: true, cell: (s) => <span className="code">{s.taxId}</span> },
  { id: 'terms', head: 'Terms', width: 104, minor: true, cell: (s) => s.terms },
  { id: 'bills', head: 'Bills', width: 64, num: true, cell: (s) => s.bills },
  { id: 'last', head: 'Last', width: 112, minor: true, cell: (s) => showDay(s.lastBill) },
  {
    id: 'open',
    head: 'Open',
    width: 180,
    num: true,
    cell: (s) => s.open.map((o) => `${o.currency} ${money(o.amount, o.currency)}`).join(' · '),
  },
];

export function SuppliersPage() {
  const { company, can } = usePlace();
  const navigate = useNavigate();
  const [q, setQ] = useState('');
  const [making, make] = useState(false);
  const list = useRows(suppliersApi.useSuppliersInfiniteQuery({ company: company.id, ...(q ? { q } : {}) }), (page) => page.suppliers);
  return (
    <div className="flex h-full flex-col">
      <Head title="Suppliers" detail={company.name}>
        <SearchField label="Search suppliers" placeholder="Name, code or tax number" value={q} change={setQ} />
        <FileMenu list="suppliers" q={q} />
        {can('suppliers:edit') && (
          <button className="btn btn-primary btn-sm" onClick={() => make(true)}>
            <Plus size={14} aria-hidden />
            New supplier
          </button>
        )}
      </Head>
      <DataTable
        label="Suppliers"
        remember={`suppliers ${company.id}`}
        {...list}
        columns={columns}
        rowId={(s) => s.id}
        open={(s) => void navigate(`/suppliers/${s.id}`)}
        empty="No supplier fits."
      />
      {making && <SupplierDialog close={() => make(false)} done={(made) => void navigate(`/suppliers/${made.id}`)} />}
    </div>
  );
}
