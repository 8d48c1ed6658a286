import { useKept } from '../views/use-kept';
import { columnIds, hideable, onDemand, type ColumnsView } from './grid/columns';

/** Where the page stands beside the bill. */
export const sides = ['left', 'right', 'above'] as const;
export type Side = (typeof sides)[number];
/** How somebody looks at the desk: where the page stands, what share of the room it has, how large it is (1 fits its ink), and the grid's columns. */
export interface DeskView extends ColumnsView {
  side: Side;
  share: number;
  zoom: number;
}
export const usualView: DeskView = { side: 'left', share: 0.48, zoom: 1, widths: {}, hidden: [], shown: [] };
export const leastShare = 0.25;
const within = (value: unknown, least: number, most: number, otherwise: number): number =>
  typeof value === 'number' && Number.isFinite(value) ? Math.min(most, Math.max(least, value)) : otherwise;

/** A view as it was kept, whatever became of it meanwhile. */
export function viewFrom(kept: unknown): DeskView {
  const given = (typeof kept === 'object' ? kept : null) as Partial<DeskView> | null;
  const names = <T extends string>(among: readonly T[], of: unknown): T[] => among.filter((id) => Array.isArray(of) && of.includes(id));
  return {
    side: sides.find((s) => s === given?.side) ?? usualView.side,
    share: within(given?.share, leastShare, 1 - leastShare, usualView.share),
    zoom: within(given?.zoom, 0.5, 4, usualView.zoom),
    widths: Object.fromEntries(
      columnIds.flatMap((id) => {
        const wide = given?.widths?.[id];
        return typeof wide === 'number' && Number.isFinite(wide) ? [[id, within(wide, 24, 800, 100)]] : [];
      }),
    ),
    hidden: names(hideable, given?.hidden),
    shown: names(onDemand, given?.shown),
  };
}

/** How a person looks at the desk. */
export const useDeskView = (personId: string): [DeskView, (change: Partial<DeskView>) => void] => useKept(personId, 'desk', viewFrom);
