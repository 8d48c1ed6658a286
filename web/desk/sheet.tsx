import { ChevronLeft, ChevronRight, ZoomIn, ZoomOut } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import type { Mark } from '@ledgerline/contract';
import { PageView, type ShownPage } from '../ui/page-view';
import { Empty, Trouble, Waiting } from '../ui/states';

export interface ShownMark {
  path: string;
  mark: Mark;
  unsure: boolean;
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
}

/** The document's pages with the marks over them; a click on a mark or a word tells the bill beside it. */
export function Sheet({ base, pages, marks, active, focus, onMark, onWord }: Props) {
  const [ready, setReady] = useState(false);
  const [failed, setFailed] = useState(false);
  const [number, setNumber] = useState(1);
  const [zoom, setZoom] = useState(1);
  const [wide, setWide] = useState(400);
  const holder = useRef<HTMLDivElement>(null);
  const shown = focus ?? marks.find((m) => m.path === active)?.mark ?? null;
  const count = pages.length;

  useEffect(() => {
    setNumber(1);
    setReady(false);
    setFailed(false);
  }, [base]);
  useEffect(() => {
    if (shown) setNumber(shown.page);
  }, [shown]);
  useEffect(() => {
    const watch = new ResizeObserver(([entry]) => {
      if (entry) setWide(entry.contentRect.width);
    });
    if (holder.current) watch.observe(holder.current);
    return () => watch.disconnect();
  }, [failed]);
  useEffect(() => {
    const listen = (e: KeyboardEvent) => {
      if (e.key === 'PageDown' || e.key === 'PageUp') {
        e.preventDefault();
        setNumber((n) => Math.min(count, Math.max(1, n + (e.key === 'PageDown' ? 1 : -1))));
      }
    };
    addEventListener('keydown', listen);
    return () => removeEventListener('keydown', listen);
  }, [count]);

  const size = pages.find((p) => p.number === number) ?? pages[0];
  const scale = size && wide > 60 ? ((wide - 32) / size.width) * zoom : 0;
  useEffect(() => {
    if (!shown || !holder.current) return;
    const top = shown.y * scale,
      box = holder.current;
    if (top < box.scrollTop + 30 || top > box.scrollTop + box.clientHeight - 60) box.scrollTo({ top: top - box.clientHeight / 3 });
  }, [shown, scale, number]);

  if (failed) return <Trouble sentence="This document cannot be shown. It is kept as it came; open it from Arrivals." />;
  if (!size) return <Empty>This document has no pages to show.</Empty>;
  const place = (m: { x: number; y: number; w: number; h: number }, grow = 2) => ({
    left: m.x * scale - grow,
    top: m.y * scale - grow,
    width: m.w * scale + 2 * grow,
    height: m.h * scale + 2 * grow,
  });
  return (
    <div className="flex h-full flex-col bg-base-300/60">
      <div ref={holder} className="relative min-h-0 grow overflow-auto p-4">
        {!ready && <Waiting />}
        <div
          className={`relative mx-auto bg-white shadow ${ready ? '' : 'invisible'}`}
          style={{ width: size.width * scale, height: size.height * scale }}
          data-testid="page"
        >
          {scale > 0 && <PageView base={base} page={size} scale={scale} onFail={() => setFailed(true)} onReady={() => setReady(true)} />}
          {onWord &&
            size.words.map((word, i) => (
              <button
                key={i}
                tabIndex={-1}
                aria-hidden
                data-word={word.text}
                title="Click to fill the field in hand"
                className="absolute cursor-copy hover:bg-[#17656b]/15"
                style={place(word, 0)}
                onMouseDown={(e) => {
                  e.preventDefault();
                  onWord(word.text, { page: number, x: word.x, y: word.y, w: word.w, h: word.h });
                }}
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
                onMouseDown={(e) => {
                  if (e.altKey || !onMark) return;
                  e.preventDefault();
                  onMark(m.path);
                }}
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
        </div>
      </div>
      <div className="flex h-9 shrink-0 items-center gap-2 border-t hair bg-base-200 px-3 text-[13px]">
        <button
          className="btn btn-ghost btn-xs btn-square"
          aria-label="Page before"
          title="PageUp"
          disabled={number <= 1}
          onClick={() => setNumber(number - 1)}
        >
          <ChevronLeft size={15} />
        </button>
        <span>
          Page {number} of {count}
        </span>
        <button
          className="btn btn-ghost btn-xs btn-square"
          aria-label="Next page"
          title="PageDown"
          disabled={number >= count}
          onClick={() => setNumber(number + 1)}
        >
          <ChevronRight size={15} />
        </button>
        <span className="ml-auto" />
        <button className="btn btn-ghost btn-xs btn-square" aria-label="Smaller" onClick={() => setZoom(Math.max(0.5, zoom / 1.25))}>
          <ZoomOut size={15} />
        </button>
        <button className="btn btn-ghost btn-xs" onClick={() => setZoom(1)}>
          {Math.round(scale * 75)} %
        </button>
        <button className="btn btn-ghost btn-xs btn-square" aria-label="Larger" onClick={() => setZoom(Math.min(4, zoom * 1.25))}>
          <ZoomIn size={15} />
        </button>
      </div>
    </div>
  );
}
