import { useEffect, useLayoutEffect, useRef } from 'react';
import type { DocumentPages } from '@ledgerline/contract';
import { borrow, draw, type OpenPdf } from './pdf';

export type ShownPage = DocumentPages['pages'][number];

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

/** Puts a drawn page on the screen in one step: what stood there stays until then. */
function put(canvas: HTMLCanvasElement, from: HTMLCanvasElement): void {
  canvas.width = from.width;
  canvas.height = from.height;
  canvas.getContext('2d')?.drawImage(from, 0, 0);
}

function PdfPage({ base, page, scale, onFail, onReady }: Omit<Props, 'onReady' | 'look'> & Ready) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const url = pdfAt(base, page);
  const number = page.source?.page ?? page.number,
    turn = page.source?.turn ?? 0,
    sharp = scale * devicePixelRatio;
  // As many pixels on the screen as it is drawn with: a part of one would blur the letters.
  const whole = (points: number) => Math.ceil(points * sharp) / devicePixelRatio;
  const told = useRef({ onFail, onReady });
  told.current = { onFail, onReady };
  const held = useRef<OpenPdf | null>(null);
  // Before the browser paints: a page that was drawn ahead is there with its bill.
  useLayoutEffect(() => {
    const { pdf, give } = borrow(url);
    held.current = pdf;
    if (pdf.first && number === 1 && turn === 0 && canvas.current) {
      put(canvas.current, pdf.first);
      told.current.onReady?.();
    }
    return give;
  }, [url, number, turn]);
  useEffect(() => {
    const pdf = held.current;
    if (!pdf || sharp <= 0) return;
    const { drawn, stop } = draw(pdf, { number, turn, scale: sharp });
    drawn.then(
      (done) => {
        if (canvas.current) put(canvas.current, done);
        told.current.onReady?.();
      },
      () => told.current.onFail(),
    );
    return stop;
  }, [url, number, turn, sharp]);
  return (
    <canvas
      ref={canvas}
      className="absolute inset-0"
      style={{ width: whole(page.width), height: whole(page.height) }}
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
