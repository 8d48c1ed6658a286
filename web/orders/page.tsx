import { Plus } from 'lucide-react';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import type { OrderRow } from '@ledgerline/contract';
import { usePlace } from '../app/company';
import { FileMenu } from '../imports/file-menu';
import { DataTable, type Column } from '../ui/data-table';
import { money, showDay } from '../ui/format';
import { useRows } from '../ui/infinite';
import { SearchField } from '../ui/search';
import { Head } from '../ui/states';
import { ordersApi } from './api';
import { OrderDialog } from './edit';

/** How far an order has come. */
const far = { none: '', part: 'in part', all: 'all' } as const;
const columns: Column<OrderRow>[] = [
  { id: 'number', head: 'Order', width: 130, cell: (o) => <span className="code">{o.number}</span> },
  { id: 'supplier', head: 'Supplier', cell: (o) => o.supplier },
  { id: 'note', head: 'Note', width: 150, minor: true, cell: (o) => <span className="quiet">{o.note}</span> },
  { id: 'date', head: 'Ordered', width: 112, cell: (o) => showDay(o.orderDate) },
  { id: 'lines', head: 'Lines', width: 64, num: true, minor: true, cell: (o) => o.lines },
  { id: 'net', head: 'Without tax', width: 150, num: true, cell: (o) => `${o.currency} ${money(o.net, o.currency)}` },
  { id: 'received', head: 'Received', width: 88, minor: true, cell: (o) => far[o.received] },
  { id: 'billed', head: 'Billed', width: 80, cell: (o) => far[o.billed] },
  { id: 'active', head: '', width: 72, cell: (o) => (o.active ? '' : <span className="quiet">closed</span>) },
];

/** What was ordered, the newest first. */
export function OrdersPage() {
  const { company, can } = usePlace();
  const navigate = useNavigate();
  const [q, setQ] = useState('');
  const [open, only] = useState(true);
  const [making, make] = useState(false);
  const asked = { company: company.id, ...(q ? { q } : {}), ...(open ? { open: '1' as const } : {}) };
  const rows = useRows(ordersApi.useOrdersInfiniteQuery(asked), (p) => p.orders);
  return (
    <div className="flex h-full flex-col">
      <Head title="Orders" detail="What was ordered, line by line. Its bills are held against it">
        <label className="flex items-center gap-2 text-[14px] whitespace-nowrap">
          <input type="checkbox" className="checkbox checkbox-sm" checked={open} onChange={(e) => only(e.target.checked)} />
          open ones
        </label>
        <SearchField label="Search orders" placeholder="Number, supplier or text" value={q} change={setQ} />
        <Link className="btn btn-ghost btn-sm" to="/orders/not-billed">
          Received, not billed
        </Link>
        <FileMenu list="orders" beside="receipts" {...(q ? { q } : {})} />
        {can('orders:edit') && (
          <button className="btn btn-primary btn-sm" onClick={() => make(true)}>
            <Plus size={14} aria-hidden />
            New order
          </button>
        )}
      </Head>
      <DataTable<OrderRow>
        label="Orders"
        remember={`Orders ${company.id}`}
        {...rows}
        columns={columns}
        rowId={(o) => o.id}
        open={(o) => void navigate(`/orders/${o.id}`)}
        empty="No order here. Make one, or bring them in from a file."
      />
      {making && <OrderDialog order={null} close={() => make(false)} done={(id) => void navigate(`/orders/${id}`)} />}
    </div>
  );
}
