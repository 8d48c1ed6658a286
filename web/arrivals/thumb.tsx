import { useEffect, useRef } from 'react';
import type { PageImage, PageSource } from '@ledgerline/contract';
import { borrow } from '../ui/pdf';

const wide = 124,
  high = 168;

/** A small picture of one page, turned as it will be read. */
export function Thumb({ base, source, image }: { base: string; source: PageSource; image: PageImage }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const url = `${base}/files/${source.sha}`;
  useEffect(() => {
    if (image !== 'pdf') return;
    const { pdf, give } = borrow(url);
    let gone = false;
    void pdf.document
      .then((opened) => opened.getPage(source.page))
      .then((page) => {
        if (gone || !canvas.current) return;
        const rotation = (page.rotate + source.turn) % 360,
          plain = page.getViewport({ scale: 1, rotation });
        const scale = Math.min(wide / plain.width, high / plain.height),
          view = page.getViewport({ scale: scale * devicePixelRatio, rotation });
        Object.assign(canvas.current, { width: view.width, height: view.height });
        Object.assign(canvas.current.style, { width: `${plain.width * scale}px`, height: `${plain.height * scale}px` });
        return page.render({ canvas: canvas.current, viewport: view }).promise;
      })
      .catch(() => undefined);
    return () => {
      gone = true;
      give();
    };
  }, [url, source.page, source.turn, image]);
  return (
    <span className="flex items-center justify-center bg-base-300/60" style={{ width: wide + 12, height: high + 12 }}>
      {image === 'pdf' ? (
        <canvas ref={canvas} className="bg-white shadow-sm" />
      ) : (
        <img
          src={`${base}/pictures/${source.sha}/${source.page}`}
          alt=""
          draggable={false}
          loading="lazy"
          className="max-h-full max-w-full bg-white object-contain shadow-sm"
          style={{ transform: `rotate(${source.turn}deg) scale(${source.turn % 180 ? wide / high : 1})` }}
        />
      )}
    </span>
  );
}
