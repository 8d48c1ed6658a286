import type { Static, TObject } from '@sinclair/typebox';
import { Plus } from 'lucide-react';
import { useState, type ComponentProps, type ReactNode } from 'react';
import type { ImportListName } from '@ledgerline/contract';
import { usePlace } from '../app/company';
import { FileMenu } from '../imports/file-menu';
import { DataTable, type Column } from '../ui/data-table';
import { FormDialog } from '../ui/form-dialog';
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
  files,
  dimension,
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
  /** The list goes into files and comes from them. */
  files?: ImportListName;
  /** Of the values of dimensions those of this one. */
  dimension?: string;
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
        {files && <FileMenu list={files} {...(dimension ? { dimension } : {})} {...(search ? { q: search.value } : {})} />}
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

/** The dialog of a new or an opened row of a list; `what` is what one row is: "account". */
export function RowDialog<S extends TObject>({
  what,
  row,
  schema,
  values,
  put,
  close,
  children,
}: {
  what: string;
  row: { id: string; code: string } | null;
  schema: S;
  values: Static<S>;
  /** Keeps it: in place of the row, or as a new one. */
  put(asked: { company: string; id: string | null; body: Static<S> }): { unwrap(): Promise<unknown> };
  close(): void;
  children: ComponentProps<typeof FormDialog<S>>['children'];
}) {
  const { company } = usePlace();
  const named = what[0]!.toUpperCase() + what.slice(1);
  return (
    <FormDialog
      title={row ? `${named} ${row.code}` : `New ${what}`}
      schema={schema}
      values={values}
      action={row ? 'Save' : `Make ${what}`}
      send={(body) =>
        put({ company: company.id, id: row?.id ?? null, body })
          .unwrap()
          .then(close)
      }
      close={close}
    >
      {children}
    </FormDialog>
  );
}
