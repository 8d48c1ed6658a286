import { useState } from 'react';
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
export function viewFrom(kept: string | null): DeskView {
  try {
    const given = JSON.parse(kept ?? '{}') as Partial<DeskView> | null;
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
      hidden: hideable.filter((id) => Array.isArray(given?.hidden) && given.hidden.includes(id)),
      shown: onDemand.filter((id) => Array.isArray(given?.shown) && given.shown.includes(id)),
    };
  } catch {
    return usualView;
  }
}

/** How a person looks at the desk, kept in this browser under their id. */
export function useDeskView(personId: string): [DeskView, (change: Partial<DeskView>) => void] {
  const key = `desk-view ${personId}`;
  const [view, set] = useState(() => viewFrom(localStorage.getItem(key)));
  return [
    view,
    (change) => {
      const next = viewFrom(JSON.stringify({ ...view, ...change }));
      localStorage.setItem(key, JSON.stringify(next));
      set(next);
    },
  ];
}
