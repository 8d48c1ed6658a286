import { Dialog } from '../ui/dialog';
import { columnName, hideable } from './columns';
import type { DeskView } from './view';

/** Which columns the grid has, and how wide they are. */
export function ColumnsDialog({ view, change, close }: { view: DeskView; change(change: Partial<DeskView>): void; close(): void }) {
  return (
    <Dialog title="Columns" close={close}>
      <fieldset className="space-y-1">
        <legend className="mb-1 text-[13px] quiet">Shown in the grid</legend>
        {hideable.map((id) => (
          <label key={id} className="flex items-center gap-2">
            <input
              type="checkbox"
              className="checkbox checkbox-sm"
              checked={!view.hidden.includes(id)}
              onChange={(e) => change({ hidden: e.target.checked ? view.hidden.filter((h) => h !== id) : [...view.hidden, id] })}
            />
            {columnName(id)}
          </label>
        ))}
      </fieldset>
      <p className="mt-3 text-[13px] quiet">Draw the edge of a column’s head to size it.</p>
      <div className="mt-4 flex justify-end gap-2">
        <button className="btn" disabled={Object.keys(view.widths).length === 0} onClick={() => change({ widths: {} })}>
          As wide as what stands in them
        </button>
        <button className="btn btn-primary" onClick={close}>
          Close
        </button>
      </div>
    </Dialog>
  );
}
