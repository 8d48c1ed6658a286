import { Dialog } from '../../ui/dialog';
import { columnName, hideable, onDemand, type ColumnId, type ColumnsView } from './columns';

/** Whether a column is always there, never, or where a row needs it. */
const standing = (view: ColumnsView, id: ColumnId): string =>
  view.hidden.includes(id) ? 'never' : onDemand.includes(id) && !view.shown.includes(id) ? 'needed' : 'always';
const stood = ({ hidden, shown }: ColumnsView, id: ColumnId, as: string): Partial<ColumnsView> => ({
  hidden: as === 'never' ? [...hidden, id] : hidden.filter((h) => h !== id),
  shown: as === 'always' && onDemand.includes(id) ? [...shown, id] : shown.filter((s) => s !== id),
});

/** Which columns the grid has, and how wide they are. */
export function ColumnsDialog({ view, change, close }: { view: ColumnsView; change(change: Partial<ColumnsView>): void; close(): void }) {
  return (
    <Dialog title="Columns" close={close}>
      <fieldset className="space-y-1">
        <legend className="mb-1 text-[13px] quiet">Shown in the grid</legend>
        {hideable.map((id) => (
          <div key={id} className="flex items-center gap-2">
            <span className="w-40">{columnName(id)}</span>
            <select
              aria-label={columnName(id)}
              className="select select-sm w-44"
              value={standing(view, id)}
              onChange={(e) => change(stood(view, id, e.target.value))}
            >
              {onDemand.includes(id) && <option value="needed">Where a row has one</option>}
              <option value="always">Always</option>
              <option value="never">Never</option>
            </select>
          </div>
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
