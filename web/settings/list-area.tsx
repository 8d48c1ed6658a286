import { Plus } from 'lucide-react';
import { useState, type ReactNode } from 'react';
import { usePlace } from '../app/company';
import { DataTable, type Column } from '../ui/data-table';
import { SearchField } from '../ui/search';
import { Head } from '../ui/states';

/** One of a company's lists: searched, opened, added to. `form` is the dialog for a new or an opened row. */
export function ListArea<T extends object>({
  title,
  detail,
  what,
  rows,
  columns,
  rowId,
  search,
  aside,
  form,
}: {
  title: string;
  detail: string;
  /** What one row is: "account". */
  what: string;
  rows: { rows: T[]; more?: boolean; load?(): void; loading: boolean; error?: unknown };
  columns: Column<T>[];
  rowId(row: T): string;
  search?: { value: string; change(value: string): void };
  /** Stands beside the search. */
  aside?: ReactNode;
  form?(row: T | null, close: () => void): ReactNode;
}) {
  const { company, can } = usePlace();
  const [open, setOpen] = useState<T | null | undefined>(undefined);
  const edits = Boolean(form) && can('settings:edit');
  return (
    <>
      <Head title={title} detail={detail}>
        {search && <SearchField label={`Search ${title.toLowerCase()}`} placeholder="Code or name" {...search} />}
        {aside}
        {edits && (
          <button className="btn btn-primary btn-sm" onClick={() => setOpen(null)}>
            <Plus size={14} aria-hidden />
            New {what}
          </button>
        )}
      </Head>
      <DataTable<T>
        label={title}
        remember={`${title} ${company.id}`}
        {...rows}
        columns={columns}
        rowId={rowId}
        {...(edits ? { open: (row: T) => setOpen(row) } : {})}
        empty="Nothing here yet."
      />
      {open !== undefined && form?.(open, () => setOpen(undefined))}
    </>
  );
}

/** Whether a row of a list is still in use. */
export const Active = ({ active }: { active: boolean }) => <span className={active ? '' : 'quiet'}>{active ? 'open' : 'closed'}</span>;
