import type { Static, TObject } from '@sinclair/typebox';
import { Plus } from 'lucide-react';
import { useState, type ComponentProps, type ReactNode } from 'react';
import type { FurtherList, ImportListName } from '@ledgerline/contract';
import { usePlace } from '../app/company';
import { FileMenu } from '../imports/file-menu';
import { SaveMenu } from '../imports/save-menu';
import { DataTable, type Column } from '../ui/data-table';
import { FormDialog } from '../ui/form-dialog';
import { SearchField } from '../ui/search';
import { Head } from '../ui/states';
import { settingsApi } from './api';
import { FormEffect } from './effect';

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
  saves,
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
  /** The list goes into files alone. */
  saves?: FurtherList;
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
        {saves && <SaveMenu path={`/lists/${saves}/file`} asked={{}} what="the list" />}
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
  path,
  plain,
  close,
  children,
}: {
  what: string;
  row: { id: string; code: string } | null;
  schema: S;
  values: Static<S>;
  /** Of the list: a row is made there, and changed under its id. */
  path: string;
  /** It changes nothing about bills in hand. */
  plain?: boolean;
  close(): void;
  children: ComponentProps<typeof FormDialog<S>>['children'];
}) {
  const { company } = usePlace();
  const [put] = settingsApi.usePutRowMutation();
  const named = what[0]!.toUpperCase() + what.slice(1);
  return (
    <FormDialog
      title={row ? `${named} ${row.code}` : `New ${what}`}
      schema={schema}
      values={values}
      action={row ? 'Save' : `Make ${what}`}
      send={(body) =>
        put({ company: company.id, path, id: row?.id ?? null, body })
          .unwrap()
          .then(close)
      }
      close={close}
    >
      {(form) => (
        <>
          {children(form)}
          {!plain && <FormEffect form={form} path={path} id={row?.id ?? null} />}
        </>
      )}
    </FormDialog>
  );
}
