import { useEffect, useMemo, useState, type RefObject } from 'react';
import type { Mark } from '@ledgerline/contract';
import type { ShownPage } from '../ui/page-view';
import { inkOf } from './ink';
import { lies, sizeOf, type PageLook } from './place';

/** Room round the page in its pane, in pixels. */
export const edge = 12;
/** Nothing is shown larger than this by itself. */
const largest = 1.75;

interface Given {
  holder: RefObject<HTMLDivElement | null>;
  page: ShownPage | undefined;
  look: PageLook;
  spin: number;
  zoom: number;
  near: boolean;
  /** The value in hand; it is brought into sight. */ shown: Mark | null;
  /** The pane is another one. */ pane: unknown;
}

/**
 * How large a page is drawn, and where its pane stands: the page's ink fills the pane, its margins are left outside, and the value in hand
 * is in sight. What is drawn anew, or saved, moves nothing.
 */
export function useFit({ holder, page, look, spin, zoom, near, shown, pane }: Given): {
  scale: number;
  size: { width: number; height: number } | undefined;
} {
  const [room, setRoom] = useState({ wide: 0, high: 0 });
  useEffect(() => {
    const watch = new ResizeObserver(([entry]) => {
      if (entry) setRoom({ wide: entry.contentRect.width, high: entry.contentRect.height });
    });
    if (holder.current) watch.observe(holder.current);
    return () => watch.disconnect();
  }, [holder, pane]);
  const size = page && sizeOf(page, look);
  const ink = useMemo(() => (page ? lies(page, look, inkOf(page)) : null), [page, look]);
  const whole = spin !== 0 || !ink;
  const wide = size ? (whole ? (spin % 180 ? size.height : size.width) : ink.w) : 0;
  const fitted = wide > 0 && room.wide > 60 ? Math.min(largest, (room.wide - 2 * edge) / wide) : 0;
  // Close enough that the value in hand is about as tall as a thumb.
  const scale = fitted * (near && shown ? Math.max(zoom, Math.min(6, 26 / Math.max(4, shown.h) / Math.max(0.01, fitted))) : zoom);
  const number = page?.number;

  // A page, or another size of it, begins at its ink.
  useEffect(() => {
    if (!ink || whole || !scale || !holder.current) return;
    holder.current.scrollTo({ left: (ink.x + ink.w / 2) * scale + edge - holder.current.clientWidth / 2, top: ink.y * scale });
  }, [number, scale, look, whole]); // eslint-disable-line react-hooks/exhaustive-deps -- by what is on the screen
  useEffect(() => {
    const box = holder.current;
    if (!shown || !box || !page || spin || !scale) return;
    const at = lies(page, look, shown),
      [top, left] = [at.y * scale + edge, at.x * scale + edge],
      foot = top + at.h * scale,
      end = left + at.w * scale;
    const inSight = top > box.scrollTop + 6 && foot < box.scrollTop + box.clientHeight - 24;
    const beside = left > box.scrollLeft && end < box.scrollLeft + box.clientWidth;
    if (near || !inSight || !beside)
      box.scrollTo({
        top: near || !inSight ? top - box.clientHeight / 3 : box.scrollTop,
        left: near || !beside ? (left + end) / 2 - box.clientWidth / 2 : box.scrollLeft,
      });
  }, [shown, scale, number, near, look, page, spin, room.high]); // eslint-disable-line react-hooks/exhaustive-deps -- `holder` stays
  return { scale, size };
}
