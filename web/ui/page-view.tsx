import * as pdfjs from 'pdfjs-dist';
import workerUrl from 'pdfjs-dist/build/pdf.worker.min.mjs?url';
import { useEffect, useRef, useState } from 'react';
import type { DocumentPages } from '@ledgerline/contract';

pdfjs.GlobalWorkerOptions.workerSrc = workerUrl;

export type ShownPage = DocumentPages['pages'][number];

const open = new Map<string, { document: Promise<pdfjs.PDFDocumentProxy>; users: number; close(): void }>();

/** How long a PDF that nobody shows stays open, in milliseconds: whoever held it ready hands it on to whoever shows it. */
const lingers = 3000;

/** Opens a PDF once for all its pages on screen; some time after the last one has gone it is closed. */
export function borrow(url: string): { document: Promise<pdfjs.PDFDocumentProxy>; give(): void } {
  let held = open.get(url);
  if (!held) {
    const task = pdfjs.getDocument({
      url,
      isEvalSupported: false,
      enableXfa: false,
      cMapUrl: '/pdf/cmaps/',
      cMapPacked: true,
      standardFontDataUrl: '/pdf/standard_fonts/',
    });
    held = { document: task.promise, users: 0, close: () => void task.destroy() };
    held.document.catch(() => undefined);
    open.set(url, held);
  }
  const mine = held;
  mine.users++;
  return {
    document: mine.document,
    give() {
      if (--mine.users > 0) return;
      setTimeout(() => {
        if (mine.users > 0 || open.get(url) !== mine) return;
        open.delete(url);
        mine.close();
      }, lingers);
    },
  };
}

/** Where a page's PDF is, and where its picture. */
export const pdfAt = (base: string, page: ShownPage): string => (page.source ? `${base}/files/${page.source.sha}` : `${base}/file`);
export const pictureAt = (base: string, page: ShownPage): string => `${base}/picture/${page.number}`;

interface Props {
  /** Address of the document on the server. */ base: string;
  page: ShownPage;
  /** A page that was read from a picture: as it was cleaned for reading, or as it came. */ look: 'cleaned' | 'came';
  scale: number;
  onFail(): void;
  onReady?(): void;
}

/** One page as it looks: of a PDF on a canvas, a picture, or the words of an e-invoice's data. */
export function PageView({ base, page: given, look, scale, onFail, onReady }: Props) {
  if (given.image === 'words') return <WordsPage page={given} scale={scale} onReady={onReady} />;
  if (given.scan && look === 'cleaned') return <CleanedPage base={base} page={given} scale={scale} onFail={onFail} onReady={onReady} />;
  const page = given.scan ? { ...given, width: given.scan.width, height: given.scan.height } : given;
  if (page.image === 'picture') return <PicturePage base={base} page={page} scale={scale} onFail={onFail} onReady={onReady} />;
  return <PdfPage base={base} page={page} scale={scale} onFail={onFail} onReady={onReady} />;
}

type Ready = { onReady?: (() => void) | undefined };

function PdfPage({ base, page, scale, onFail, onReady }: Omit<Props, 'onReady' | 'look'> & Ready) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const url = pdfAt(base, page);
  const number = page.source?.page ?? page.number,
    turn = page.source?.turn ?? 0;
  const told = useRef({ onFail, onReady });
  told.current = { onFail, onReady };
  const [pdf, setPdf] = useState<pdfjs.PDFDocumentProxy | null>(null);
  useEffect(() => {
    const held = borrow(url);
    // A load that was given up for another document must not speak for that one.
    let gone = false;
    held.document.then(
      (document) => {
        if (!gone) setPdf(document);
      },
      () => {
        if (!gone) told.current.onFail();
      },
    );
    return () => {
      gone = true;
      setPdf(null);
      held.give();
    };
  }, [url]);
  useEffect(() => {
    if (!pdf || scale <= 0) return;
    let task: pdfjs.RenderTask | null = null,
      gone = false;
    void pdf.getPage(number).then(
      (sheet) => {
        if (gone || !canvas.current) return;
        const view = sheet.getViewport({ scale: scale * devicePixelRatio, rotation: (sheet.rotate + turn) % 360 });
        canvas.current.width = view.width;
        canvas.current.height = view.height;
        task = sheet.render({ canvas: canvas.current, viewport: view });
        task.promise.then(
          () => told.current.onReady?.(),
          () => undefined,
        );
      },
      () => {
        if (!gone) told.current.onFail();
      },
    );
    return () => {
      gone = true;
      task?.cancel();
    };
  }, [pdf, number, turn, scale]);
  return (
    <canvas
      ref={canvas}
      className="absolute inset-0"
      style={{ width: page.width * scale, height: page.height * scale }}
      aria-label={`Page ${page.number}`}
    />
  );
}

function CleanedPage({ base, page, scale, onFail, onReady }: Omit<Props, 'onReady' | 'look'> & Ready) {
  return (
    <img
      src={`${base}/cleaned/${page.number}`}
      alt={`Page ${page.number}, cleaned`}
      onError={onFail}
      onLoad={onReady}
      draggable={false}
      className="absolute max-w-none"
      style={{ width: page.width * scale, height: page.height * scale }}
    />
  );
}

function PicturePage({ base, page, scale, onFail, onReady }: Omit<Props, 'onReady' | 'look'> & Ready) {
  const turn = page.source?.turn ?? 0,
    lying = turn % 180 !== 0;
  const [w, h] = [page.width * scale, page.height * scale];
  return (
    <img
      src={pictureAt(base, page)}
      alt={`Page ${page.number}`}
      onError={onFail}
      onLoad={onReady}
      draggable={false}
      className="absolute max-w-none"
      style={{
        width: lying ? h : w,
        height: lying ? w : h,
        left: lying ? (w - h) / 2 : 0,
        top: lying ? (h - w) / 2 : 0,
        transform: `rotate(${turn}deg)`,
      }}
    />
  );
}

function WordsPage({ page, scale, onReady }: { page: ShownPage; scale: number } & Ready) {
  useEffect(() => onReady?.(), [onReady, page]);
  return (
    <svg
      className="absolute inset-0 text-black"
      width={page.width * scale}
      height={page.height * scale}
      viewBox={`0 0 ${page.width} ${page.height}`}
      role="img"
      aria-label={`Page ${page.number}, drawn from the data`}
    >
      {page.words.map((w, i) => (
        <text
          key={i}
          x={w.x}
          y={w.y + w.size * 0.78}
          fontSize={w.size}
          fontWeight={w.bold ? 700 : 400}
          textLength={w.w}
          lengthAdjust="spacingAndGlyphs"
          fill="#1c1b22"
        >
          {w.text}
        </text>
      ))}
    </svg>
  );
}
