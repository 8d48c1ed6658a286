import { useState } from 'react';
import { toast } from 'sonner';
import { billColumns as columnIds, type SaveView, type ViewRow } from '@ledgerline/contract';
import { sentenceOf } from '../app/api';
import { usePlace } from '../app/company';
import { Dialog, DialogEnd } from '../ui/dialog';
import { viewsApi } from '../views/api';
import { billColumns, type BillColumn } from './columns';

export type Look = Omit<SaveView, 'name' | 'shared'>;
const same = (a: Look, b: Look): boolean =>
  a.q === b.q && a.sort === b.sort && a.order === b.order && a.columns.join() === b.columns.join();

/** Saved views, one's own and the team's; the list as it is now can be kept under a name. */
export function ViewBar({ look, show }: { look: Look; show(look: Look): void }) {
  const { company } = usePlace();
  const { currentData } = viewsApi.useViewsQuery({ company: company.id });
  const [saving, save] = useState<'new' | ViewRow | null>(null);
  const views = currentData?.views ?? [];
  const now = views.find((v) => same(v, look)) ?? null;
  return (
    <>
      {views.map((v) => (
        <button
          key={v.id}
          aria-pressed={v.id === now?.id}
          title={
            v.own
              ? v.shared
                ? 'Yours, shared with the team. Double click to change it'
                : 'Yours. Double click to change it'
              : `By ${v.by}`
          }
          className={`rounded border border-current/30 px-2 py-0.5 ${v.id === now?.id ? 'bg-primary text-primary-content' : 'hover:bg-base-200'}`}
          onClick={() => show({ q: v.q, sort: v.sort, order: v.order, columns: v.columns })}
          onDoubleClick={() => v.own && save(v)}
        >
          {v.name}
        </button>
      ))}
      <button className="px-2 py-0.5 text-accent hover:underline" onClick={() => save(now?.own ? now : 'new')}>
        {now?.own ? 'Change view …' : 'Save view …'}
      </button>
      {saving && <SaveDialog look={look} view={saving === 'new' ? null : saving} close={() => save(null)} />}
    </>
  );
}

function SaveDialog({ look, view, close }: { look: Look; view: ViewRow | null; close(): void }) {
  const { company } = usePlace();
  const [make] = viewsApi.useNewViewMutation();
  const [change] = viewsApi.useChangeViewMutation();
  const [remove] = viewsApi.useRemoveViewMutation();
  const done = (work: Promise<unknown>, said: string) =>
    void work.then(
      () => {
        close();
        toast(said);
      },
      (e: unknown) => toast.error(sentenceOf(e)),
    );
  return (
    <Dialog title={view ? 'Change this view' : 'Save this view'} close={close}>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          const form = new FormData(e.currentTarget);
          const body = { ...look, name: String(form.get('name')).trim(), shared: form.get('shared') === 'on' };
          done(
            view ? change({ company: company.id, id: view.id, body }).unwrap() : make({ company: company.id, body }).unwrap(),
            `View “${body.name}” saved`,
          );
        }}
      >
        <label className="block">
          Name
          <input name="name" required data-first maxLength={60} className="input mt-1 w-full" defaultValue={view?.name ?? ''} />
        </label>
        <label className="mt-3 flex items-center gap-2">
          <input type="checkbox" name="shared" className="checkbox checkbox-sm" defaultChecked={view?.shared ?? false} />
          For the whole team
        </label>
        <p className="mt-2 text-[13px] quiet">Keeps the search, the order and the columns as they are now.</p>
        <DialogEnd close={close} action="Save">
          {view && (
            <button
              type="button"
              className="btn btn-ghost"
              onClick={() => done(remove({ company: company.id, id: view.id }).unwrap(), `View “${view.name}” removed`)}
            >
              Remove
            </button>
          )}
        </DialogEnd>
      </form>
    </Dialog>
  );
}

/** Which columns the list of bills has, in its order. */
export function BillColumnsDialog({
  columns,
  change,
  close,
}: {
  columns: BillColumn[];
  change(columns: BillColumn[]): void;
  close(): void;
}) {
  return (
    <Dialog title="Columns" close={close}>
      <fieldset className="grid grid-cols-2 gap-1">
        <legend className="mb-1 text-[13px] quiet">Shown in the list</legend>
        {columnIds.map((id) => (
          <label key={id} className="flex items-center gap-2">
            <input
              type="checkbox"
              className="checkbox checkbox-sm"
              checked={columns.includes(id)}
              disabled={columns.length === 1 && columns.includes(id)}
              onChange={(e) => change(columnIds.filter((c) => (c === id ? e.target.checked : columns.includes(c))))}
            />
            {billColumns.find((c) => c.id === id)!.head}
          </label>
        ))}
      </fieldset>
      <DialogEnd close={close} />
    </Dialog>
  );
}
