import { ChevronLeft, ChevronRight, ZoomIn, ZoomOut } from 'lucide-react';
import * as pdfjs from 'pdfjs-dist';
import workerUrl from 'pdfjs-dist/build/pdf.worker.min.mjs?url';
import { useEffect, useRef, useState } from 'react';
import type { DocumentPages, Mark } from '@ledgerline/contract';
import { Trouble, Waiting } from '../ui/states';

pdfjs.GlobalWorkerOptions.workerSrc = workerUrl;

export interface ShownMark { path: string; mark: Mark; unsure: boolean; label: string }
interface Props { url: string; pages: DocumentPages['pages']; marks: ShownMark[]; active: string | null; focus?: Mark | null; onMark?(path: string): void; onWord?(text: string, mark: Mark): void }

/** The document's pages on a canvas with the marks over them; a click on a mark or a word tells the bill beside it. */
export function Sheet({ url, pages, marks, active, focus, onMark, onWord }: Props) {
  const [pdf, setPdf] = useState<pdfjs.PDFDocumentProxy | null>(null);
  const [failed, setFailed] = useState(false);
  const [number, setNumber] = useState(1);
  const [zoom, setZoom] = useState(1);
  const [wide, setWide] = useState(400);
  const canvas = useRef<HTMLCanvasElement>(null);
  const holder = useRef<HTMLDivElement>(null);
  const shown = focus ?? marks.find((m) => m.path === active)?.mark ?? null;

  useEffect(() => {
    const task = pdfjs.getDocument({ url, isEvalSupported: false, enableXfa: false, cMapUrl: '/pdf/cmaps/', cMapPacked: true, standardFontDataUrl: '/pdf/standard_fonts/' });
    // A load that was given up for another document must not speak for that one.
    let gone = false;
    task.promise.then((doc) => { if (!gone) { setPdf(doc); setNumber(1); } }, () => { if (!gone) setFailed(true); });
    return () => { gone = true; setPdf(null); setFailed(false); void task.destroy(); };
  }, [url]);
  useEffect(() => { if (shown) setNumber(shown.page); }, [shown]);
  useEffect(() => {
    const watch = new ResizeObserver(([entry]) => { if (entry) setWide(entry.contentRect.width); });
    if (holder.current) watch.observe(holder.current);
    return () => watch.disconnect();
  }, [pdf]);
  useEffect(() => {
    const listen = (e: KeyboardEvent) => { if (e.key === 'PageDown' || e.key === 'PageUp') { e.preventDefault(); setNumber((n) => Math.min(pdf?.numPages ?? 1, Math.max(1, n + (e.key === 'PageDown' ? 1 : -1)))); } };
    addEventListener('keydown', listen);
    return () => removeEventListener('keydown', listen);
  }, [pdf]);

  const size = pages.find((p) => p.number === number) ?? { width: 595, height: 842, words: [], number };
  const scale = ((wide - 32) / size.width) * zoom;
  useEffect(() => {
    if (!pdf || !canvas.current || wide < 60) return;
    let task: pdfjs.RenderTask | null = null, gone = false;
    void pdf.getPage(number).then((page) => {
      if (gone || !canvas.current) return;
      const view = page.getViewport({ scale: scale * devicePixelRatio });
      canvas.current.width = view.width;
      canvas.current.height = view.height;
      task = page.render({ canvas: canvas.current, viewport: view });
      task.promise.catch(() => undefined);
    });
    return () => { gone = true; task?.cancel(); };
  }, [pdf, number, scale, wide]);
  useEffect(() => {
    if (!shown || !holder.current) return;
    const top = shown.y * scale, box = holder.current;
    if (top < box.scrollTop + 30 || top > box.scrollTop + box.clientHeight - 60) box.scrollTo({ top: top - box.clientHeight / 3 });
  }, [shown, scale, number]);

  if (failed) return <Trouble sentence="This document cannot be shown. It is kept as it came; open it from Arrivals." />;
  const place = (m: { x: number; y: number; w: number; h: number }, grow = 2) => ({ left: m.x * scale - grow, top: m.y * scale - grow, width: m.w * scale + 2 * grow, height: m.h * scale + 2 * grow });
  return (
    <div className="flex h-full flex-col bg-base-300/60">
      <div ref={holder} className="relative min-h-0 grow overflow-auto p-4">
        {!pdf && <Waiting />}
        <div className={`relative mx-auto bg-white shadow ${pdf ? '' : 'hidden'}`} style={{ width: size.width * scale, height: size.height * scale }} data-testid="page">
          <canvas ref={canvas} className="absolute inset-0" style={{ width: size.width * scale, height: size.height * scale }} aria-label={`Page ${number}`} />
          {onWord && size.words.map((word, i) => <button key={i} tabIndex={-1} aria-hidden data-word={word.text} title="Click to fill the field in hand" className="absolute cursor-copy hover:bg-[#17656b]/15" style={place(word, 0)} onMouseDown={(e) => { e.preventDefault(); onWord(word.text, { page: number, x: word.x, y: word.y, w: word.w, h: word.h }); }} />)}
          {marks.filter((m) => m.mark.page === number).map((m) => (
            <button key={m.path} tabIndex={-1} title={m.label} aria-label={`Mark: ${m.label}`} data-mark={m.path} onMouseDown={(e) => { if (e.altKey || !onMark) return; e.preventDefault(); onMark(m.path); }}
              className={`absolute rounded-[3px] border ${m.path === active ? 'z-10 border-2 border-[#5a2a5e] bg-[#5a2a5e]/10' : m.unsure ? 'border-dashed border-[#b06f00]' : 'border-[#17656b]/35'}`} style={place(m.mark)} />
          ))}
          {focus && focus.page === number && <div className="absolute z-10 rounded-[3px] border-2 border-[#5a2a5e] bg-[#d18a10]/25" style={place(focus, 3)} data-testid="trail-mark" />}
        </div>
      </div>
      <div className="flex h-9 shrink-0 items-center gap-2 border-t hair bg-base-200 px-3 text-[13px]">
        <button className="btn btn-ghost btn-xs btn-square" aria-label="Page before" title="PageUp" disabled={number <= 1} onClick={() => setNumber(number - 1)}><ChevronLeft size={15} /></button>
        <span>Page {number} of {pdf?.numPages ?? '…'}</span>
        <button className="btn btn-ghost btn-xs btn-square" aria-label="Next page" title="PageDown" disabled={number >= (pdf?.numPages ?? 1)} onClick={() => setNumber(number + 1)}><ChevronRight size={15} /></button>
        <span className="ml-auto" /><button className="btn btn-ghost btn-xs btn-square" aria-label="Smaller" onClick={() => setZoom(Math.max(0.5, zoom / 1.25))}><ZoomOut size={15} /></button>
        <button className="btn btn-ghost btn-xs" onClick={() => setZoom(1)}>{Math.round(scale * 75)} %</button>
        <button className="btn btn-ghost btn-xs btn-square" aria-label="Larger" onClick={() => setZoom(Math.min(4, zoom * 1.25))}><ZoomIn size={15} /></button>
      </div>
    </div>
  );
}
