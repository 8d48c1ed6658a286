import { invert, project } from '@ledgerline/core/imaging';
import type { Mark } from '@ledgerline/contract';
import type { ShownPage } from '../ui/page-view';

export type PageLook = 'cleaned' | 'came';
type Box = Omit<Mark, 'page'>;

/** Size in points of a page as it is looked at. */
export const sizeOf = (page: ShownPage, look: PageLook): { width: number; height: number } =>
  page.scan && look === 'came' ? page.scan : page;

/**
 * Where a box of the cleaned page lies on the page as it is looked at: as itself, or on the page as it came, turned by some degrees
 * about its middle where the sheet lay askew.
 */
export function lies(page: ShownPage, look: PageLook, box: Box): Box & { turn: number } {
  if (!page.scan || look === 'cleaned') return { ...box, turn: 0 };
  const on = (x: number, y: number) => project(page.scan!.back, { x, y });
  const left = on(box.x, box.y + box.h / 2),
    right = on(box.x + box.w, box.y + box.h / 2),
    top = on(box.x + box.w / 2, box.y),
    foot = on(box.x + box.w / 2, box.y + box.h);
  const w = Math.hypot(right.x - left.x, right.y - left.y),
    h = Math.hypot(foot.x - top.x, foot.y - top.y);
  const x = (left.x + right.x) / 2,
    y = (left.y + right.y) / 2;
  return { x: x - w / 2, y: y - h / 2, w, h, turn: (Math.atan2(right.y - left.y, right.x - left.x) * 180) / Math.PI };
}

/** A box drawn on the page as it is looked at, as a box of the cleaned page. */
export function cleanedBox(page: ShownPage, look: PageLook, box: Box): Box {
  if (!page.scan || look === 'cleaned') return box;
  const back = invert(page.scan.back);
  const corners = [
    { x: box.x, y: box.y },
    { x: box.x + box.w, y: box.y },
    { x: box.x, y: box.y + box.h },
    { x: box.x + box.w, y: box.y + box.h },
  ].map((p) => project(back, p));
  const xs = corners.map((c) => c.x),
    ys = corners.map((c) => c.y);
  return { x: Math.min(...xs), y: Math.min(...ys), w: Math.max(...xs) - Math.min(...xs), h: Math.max(...ys) - Math.min(...ys) };
}

/** The words of a page inside a box, in reading order. */
export function wordsIn(page: ShownPage, box: Box): string {
  const inside = page.words.filter((w) => {
    const x = w.x + w.w / 2,
      y = w.y + w.h / 2;
    return x > box.x && x < box.x + box.w && y > box.y && y < box.y + box.h;
  });
  return inside
    .sort((a, b) => (Math.abs(a.y - b.y) < Math.min(a.h, b.h) * 0.5 ? a.x - b.x : a.y - b.y))
    .map((w) => w.text)
    .join(' ');
}
