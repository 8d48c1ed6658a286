import { useMemo, useState } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import type { EntryRow } from '@ledgerline/contract';
import { usePlace } from '../app/company';
import { billsApi } from '../bills/api';
import { SaveMenu } from '../imports/save-menu';
import { DataTable, type Column } from '../ui/data-table';
import { money, showDay } from '../ui/format';
import { useRows } from '../ui/infinite';
import { SearchField } from '../ui/search';
import { Head } from '../ui/states';
import { ledgerApi } from './api';
import { Periods } from './periods';

export function LedgerPage() {
  const { company } = usePlace();
  const navigate = useNavigate();
  const [q, setQ] = useState('');
  const [params, setParams] = useSearchParams();
  const account = params.get('account');
  const code = params.get('code') ?? '';
  const { currentData: named } = billsApi.useChoicesQuery({ company: company.id, of: 'accounts', q: code }, { skip: !account });
  const only = named?.choices.find((c) => c.id === account);
  const list = useRows(
    ledgerApi.useEntriesInfiniteQuery({ company: company.id, ...(q ? { q } : {}), ...(account ? { account } : {}) }),
    (page) => page.entries,
  );
  const columns = useMemo(
    (): Column<EntryRow>[] => [
      { id: 'number', head: 'Entry', width: 112, cell: (e) => <span className="code text-primary">{e.number}</span> },
      { id: 'date', head: 'Date', width: 112, cell: (e) => showDay(e.entryDate) },
      {
        id: 'text',
        head: 'Text',
        cell: (e) => (
          <>
            {e.description}
            {e.reversedBy && <span className="ml-2 text-[12px] text-accent">reversed</span>}
            {e.reverses && <span className="ml-2 text-[12px] text-accent">reversal</span>}
          </>
        ),
      },
      { id: 'by', head: 'Posted by', width: 140, minor: true, cell: (e) => <span className="text-[13px]">{e.postedBy}</span> },
      { id: 'amount', head: 'Amount', width: 128, num: true, cell: (e) => money(e.total, company.baseCurrency) },
    ],
    [company.baseCurrency],
  );
  return (
    <div className="flex h-full flex-col">
      <Head
        title="Ledger"
        detail={`Journal entries of ${company.name}, ${company.baseCurrency}${account ? `, on account ${only ? `${only.code} ${only.name}` : code}` : ''}`}
      >
        {account && (
          <button className="btn btn-sm" onClick={() => setParams({})}>
            All accounts
          </button>
        )}
        <SaveMenu path="/entries/file" asked={{ q, account: account ?? undefined }} what="what is found" />
        <Link className="btn btn-sm btn-ghost" to="/ledger/tax">
          Tax summary
        </Link>
        <SearchField label="Search entries" placeholder="Number, supplier, invoice" value={q} change={setQ} />
      </Head>
      <div className="flex min-h-0 grow">
        <DataTable
          label="Entries"
          remember={`entries ${company.id} ${account ?? ''}`}
          {...list}
          columns={columns}
          rowId={(e) => e.id}
          open={(e) => void navigate(`/ledger/${e.id}`)}
          empty="No entry fits."
        />
        <Periods />
      </div>
    </div>
  );
}
