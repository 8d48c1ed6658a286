import { useEffect, useMemo, useRef, useState } from 'react';
import type { Mark } from '@ledgerline/contract';
import { useKeys } from '../app/keys/registry';
import { PageView, type ShownPage } from '../ui/page-view';
import { Empty, Trouble, Waiting } from '../ui/states';
import { cleanedBox, lies, type PageLook } from './place';
import { SheetBar } from './sheet-bar';
import { edge, useFit } from './sheet-fit';
import { Drawing, spun } from './sheet-parts';

export interface ShownMark {
  path: string;
  mark: Mark;
  unsure: boolean;
  /** How a misread figure was put right. */ repaired?: string | undefined;
  label: string;
}
interface Props {
  /** Address of the document on the server. */ base: string;
  pages: ShownPage[];
  marks: ShownMark[];
  active: string | null;
  focus?: Mark | null;
  onMark?(path: string): void;
  onWord?(text: string, mark: Mark): void;
  onBox?(mark: Mark): void;
  /** A page is on the screen. */ onDrawn?(): void;
  /** How large somebody wants it, where that is kept. */ kept?: { zoom: number; setZoom(zoom: number): void; move(): void; apart(): void };
}
interface Drawn {
  x0: number;
  y0: number;
  x1: number;
  y1: number;
}
const boxOf = ({ x0, y0, x1, y1 }: Drawn) => ({ x: Math.min(x0, x1), y: Math.min(y0, y1), w: Math.abs(x1 - x0), h: Math.abs(y1 - y0) });
/** A mouse that moves less than this, in pixels, clicks. */
const still = 4;

/** The document's pages with the marks over them; a click on a mark or a word, or a box drawn on the page, tells the bill beside it. */
export function Sheet({ base, pages, marks, active, focus, onMark, onWord, onBox, onDrawn, kept }: Props) {
  const [ready, setReady] = useState(false);
  const [failed, setFailed] = useState(false);
  const [number, setNumber] = useState(1);
  const [ownZoom, setOwnZoom] = useState(1);
  const { zoom, setZoom } = kept ?? { zoom: ownZoom, setZoom: setOwnZoom };
  const [near, setNear] = useState(false);
  const [look, setLook] = useState<PageLook>('came');
  const [spin, setSpin] = useState(0);
  const [drawn, setDrawn] = useState<Drawn | null>(null);
  const holder = useRef<HTMLDivElement>(null);
  const sheet = useRef<HTMLDivElement>(null);
  const found = focus ?? marks.find((m) => m.path === active)?.mark ?? null;
  // The same place is the same mark, whatever was saved meanwhile: the page does not move for it.
  const key = found ? `${active} ${found.page} ${found.x} ${found.y} ${found.w} ${found.h}` : null;
  const shown = useMemo(() => found, [key]); // eslint-disable-line react-hooks/exhaustive-deps -- by what it says
  const count = pages.length;
  const page = pages.find((p) => p.number === number) ?? pages[0];
  const lookAs = (next: PageLook) => {
    if (!page?.scan || next === look) return;
    setReady(false);
    setLook(next);
  };

  // Another document begins anew; while rendering, so that a page which was drawn ahead is there at once.
  const [of, setOf] = useState(base);
  if (of !== base) {
    setOf(base);
    setNumber(1);
    setReady(false);
    setFailed(false);
    setSpin(0);
  }
  useEffect(() => {
    if (shown) setNumber(shown.page);
  }, [shown]);
  const leaf = (step: number) => setNumber((n) => Math.min(count, Math.max(1, n + step)));
  useKeys('Page', [
    { key: 'PageDown', what: 'Next page', typing: true, run: () => leaf(1) },
    { key: 'PageUp', what: 'Page before', typing: true, run: () => leaf(-1) },
    { key: 'Alt+Z', what: 'Close to the field in hand, and back', run: () => setNear((n) => !n) },
    {
      key: 'Alt+O',
      what: 'As it came, or cleaned',
      when: () => Boolean(page?.scan),
      run: () => lookAs(look === 'came' ? 'cleaned' : 'came'),
    },
  ]);

  const { scale, size } = useFit({ holder, page, look, spin, zoom, near, shown, pane: failed });
  const lying = spin % 180 !== 0;

  if (failed) return <Trouble sentence="This document cannot be shown. It is kept as it came; open it from Arrivals." />;
  if (!page || !size) return <Empty>This document has no pages to show.</Empty>;
  const place = (m: Omit<Mark, 'page'>, grow = 2) => {
    const at = lies(page, look, m);
    return {
      left: at.x * scale - grow,
      top: at.y * scale - grow,
      width: at.w * scale + 2 * grow,
      height: at.h * scale + 2 * grow,
      ...(at.turn ? { transform: `rotate(${at.turn.toFixed(2)}deg)` } : {}),
    };
  };
  const pointOf = (e: React.PointerEvent) => {
    const r = sheet.current!.getBoundingClientRect();
    return { x: (e.clientX - r.left) / scale, y: (e.clientY - r.top) / scale };
  };
  const down = (e: React.PointerEvent) => {
    if (e.button !== 0 || (!onWord && !onMark)) return;
    // The field in hand keeps the cursor.
    e.preventDefault();
    const { x, y } = pointOf(e);
    setDrawn({ x0: x, y0: y, x1: x, y1: y });
  };
  const moved = (e: React.PointerEvent) => {
    if (!drawn) return;
    const { x, y } = pointOf(e);
    if (!onBox || spin || Math.hypot(x - drawn.x0, y - drawn.y0) * scale < still) return;
    sheet.current!.setPointerCapture(e.pointerId);
    setDrawn({ ...drawn, x1: x, y1: y });
  };
  const up = (e: React.PointerEvent) => {
    if (!drawn) return;
    setDrawn(null);
    const box = boxOf(drawn);
    if (box.w * scale > still && box.h * scale > still) return onBox?.({ page: number, ...cleanedBox(page, look, box) });
    const under = document.elementsFromPoint(e.clientX, e.clientY);
    const mark = e.altKey ? undefined : under.find((el) => el instanceof HTMLElement && el.dataset['mark']);
    if (mark && onMark) return onMark((mark as HTMLElement).dataset['mark']!);
    const at = under.find((el) => el instanceof HTMLElement && el.dataset['index']);
    const word = at && page.words[Number((at as HTMLElement).dataset['index'])];
    if (word) onWord?.(word.text, { page: number, x: word.x, y: word.y, w: word.w, h: word.h });
  };
  return (
    <div className="flex h-full flex-col bg-base-300/60">
      <div ref={holder} tabIndex={0} className="relative min-h-0 grow overflow-auto [scrollbar-width:thin]" style={{ padding: edge }}>
        {!ready && <Waiting />}
        <div
          className={`mx-auto ${ready ? '' : 'invisible'}`}
          style={{ width: (lying ? size.height : size.width) * scale, height: (lying ? size.width : size.height) * scale }}
        >
          <div
            ref={sheet}
            className="relative touch-pan-y bg-white shadow select-none"
            style={{ width: size.width * scale, height: size.height * scale, ...spun(spin, size, scale) }}
            data-testid="page"
            data-drawn={ready}
            onPointerDown={down}
            onPointerMove={moved}
            onPointerUp={up}
            onPointerCancel={() => setDrawn(null)}
          >
            {scale > 0 && (
              <PageView
                base={base}
                page={page}
                look={look}
                scale={scale}
                onFail={() => setFailed(true)}
                onReady={() => {
                  setReady(true);
                  onDrawn?.();
                }}
              />
            )}
            {onWord &&
              page.words.map((word, i) => (
                <span
                  key={i}
                  aria-hidden
                  data-word={word.text}
                  data-index={i}
                  title="Click to fill the field in hand; draw a box to read a spot"
                  className="absolute cursor-copy hover:bg-[#17656b]/15"
                  style={place(word, 0)}
                />
              ))}
            {marks
              .filter((m) => m.mark.page === number)
              .map((m) => (
                <button
                  key={m.path}
                  tabIndex={-1}
                  title={m.label}
                  aria-label={`Mark: ${m.label}`}
                  data-mark={m.path}
                  className={`absolute rounded-[3px] border ${m.path === active ? 'z-10 border-2 border-[#5a2a5e] bg-[#5a2a5e]/10' : m.unsure ? 'border-dashed border-[#b06f00]' : 'border-[#17656b]/35'}`}
                  style={place(m.mark)}
                />
              ))}
            {focus && focus.page === number && (
              <div
                className="absolute z-10 rounded-[3px] border-2 border-[#5a2a5e] bg-[#d18a10]/25"
                style={place(focus, 3)}
                data-testid="trail-mark"
              />
            )}
            {drawn && <Drawing box={boxOf(drawn)} scale={scale} />}
          </div>
        </div>
      </div>
      <SheetBar
        number={number}
        count={count}
        go={setNumber}
        percent={Math.round(scale * 75)}
        zoom={zoom}
        setZoom={(z) => {
          setNear(false);
          setZoom(z);
        }}
        near={near}
        setNear={setNear}
        look={page.scan ? look : null}
        setLook={lookAs}
        move={kept?.move}
        apart={kept?.apart}
        turn={() => setSpin((spin + 90) % 360)}
      />
    </div>
  );
}
