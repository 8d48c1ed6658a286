import { Dialog, DialogEnd } from '../../ui/dialog';
import { choosable, standingOf, standingsOf, stands, type ColumnsView, type DimensionHead, type Standing } from './columns';

const said: Record<Standing, string> = { needed: 'Where a row has one', always: 'Always', never: 'Never' };

/** Which columns the grid has, and how wide they are. */
export function ColumnsDialog({
  view,
  dimensions,
  change,
  close,
}: {
  view: ColumnsView;
  dimensions: readonly DimensionHead[];
  change(change: Partial<ColumnsView>): void;
  close(): void;
}) {
  return (
    <Dialog title="Columns" close={close}>
      <fieldset className="space-y-1">
        <legend className="mb-1 text-[13px] quiet">Shown in the grid</legend>
        {choosable(dimensions).map(({ id, name, head }) => (
          <div key={id} className="flex items-center gap-2">
            <span className="w-52">{name ?? head}</span>
            <select
              aria-label={name ?? head}
              className="select select-sm w-44"
              value={standingOf(view, id)}
              onChange={(e) => change(stands(view, id, e.target.value as Standing))}
            >
              {standingsOf(id).map((as) => (
                <option key={as} value={as}>
                  {said[as]}
                </option>
              ))}
            </select>
          </div>
        ))}
      </fieldset>
      <p className="mt-3 text-[13px] quiet">Draw the edge of a column’s head to size it.</p>
      <DialogEnd close={close}>
        <button className="btn" disabled={Object.keys(view.widths).length === 0} onClick={() => change({ widths: {} })}>
          As wide as what stands in them
        </button>
      </DialogEnd>
    </Dialog>
  );
}
