import { useLayoutEffect, useMemo, useRef, useState } from 'react';
import { PagePiece } from '../ui/page-piece';
import type { ShownPage } from '../ui/page-view';
import { inkOf, pieceOf, wordHeight, type Piece } from './ink';
import type { Desk } from './use-desk';

/** Words of a piece are about so tall, in pixels: as large as what is typed. */
const readable = 13;

/** How large a piece is shown: its words as tall as those beside it, a whole row no wider than the grid. */
function scaleOf(piece: Piece, room: number): number {
  const usual = Math.min(2.2, Math.max(1, readable / wordHeight(piece.page)));
  return piece.line ? Math.min(usual, room / inkOf(piece.page).w) : usual;
}

/** The ink of the field in hand, as the page in hand has it; `height` is what a row's ink wants above its row, in pixels. */
export function useInk(
  desk: Desk | null,
  pages: readonly ShownPage[],
  room: number,
): { piece: Piece; scale: number; height: number } | null {
  const bill = desk?.bill,
    active = desk?.active ?? null;
  return useMemo(() => {
    const piece = bill && room > 0 ? pieceOf(bill, active, pages) : null;
    if (!piece) return null;
    const scale = scaleOf(piece, room);
    return { piece, scale, height: piece.line ? Math.ceil(piece.box.h * scale) + 6 : 0 };
  }, [bill, active, pages, room]);
}

/**
 * The piece of page that the value in hand was read from, right below its field or above its row, so that the eye need not travel. It
 * stays while the cursor moves and only shows another piece. Nothing where there is none.
 */
export function InkAtHand({ ink, base, active }: { ink: ReturnType<typeof useInk>; base: string; active: string | null }) {
  const own = useRef<HTMLDivElement>(null);
  const [at, setAt] = useState<{ left: number; top: number } | null>(null);
  useLayoutEffect(() => {
    const room = own.current?.parentElement;
    if (!ink || !room || !active) return setAt(null);
    const field = room.querySelector<HTMLElement>(
      ink.piece.line ? `[data-ink-row="${CSS.escape(ink.piece.line)}"]` : `[data-field="${CSS.escape(active)}"]`,
    );
    if (!field) return setAt(null);
    const r = field.getBoundingClientRect(),
      o = room.getBoundingClientRect(),
      wide = ink.piece.box.w * ink.scale;
    setAt({
      left: ink.piece.line ? r.left - o.left + 3 : Math.max(4, Math.min(r.left - o.left, o.width - wide - 12)),
      top: ink.piece.line ? r.top - o.top + 3 : r.bottom - o.top + 2,
    });
  }, [ink, active]);
  // The ink above a row moves the row down: it stays in sight.
  const height = ink?.height ?? 0;
  useLayoutEffect(() => {
    if (!active) return;
    own.current?.parentElement?.querySelector(`[data-field="${CSS.escape(active)}"]`)?.scrollIntoView({ block: 'nearest' });
  }, [active, height]);
  return (
    <div
      ref={own}
      aria-hidden
      data-testid="ink"
      className={`pointer-events-none absolute z-20 border-l-[3px] border-primary shadow-md ${at && ink ? '' : 'hidden'}`}
      style={at ?? undefined}
    >
      {ink && <PagePiece base={base} page={ink.piece.page} box={ink.piece.box} scale={ink.scale} framed={ink.piece.framed} />}
    </div>
  );
}
