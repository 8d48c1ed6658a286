import type { PDFDocumentLoadingTask, PDFDocumentProxy, RenderTask } from 'pdfjs-dist';

/** A PDF that is open on this screen. */
export interface OpenPdf {
  document: Promise<PDFDocumentProxy>;
  /** Its first page as it was drawn last, if it was. */ first: HTMLCanvasElement | null;
}

const open = new Map<string, OpenPdf & { users: number; close(): void }>();

/** How long a PDF that nobody shows stays open, in milliseconds: whoever held it ready hands it on to whoever shows it. */
const lingers = 3000;

async function opened(url: string): Promise<PDFDocumentLoadingTask> {
  const { getDocument } = await import('./pdf-library');
  return getDocument({
    url,
    isEvalSupported: false,
    enableXfa: false,
    cMapUrl: '/pdf/cmaps/',
    cMapPacked: true,
    standardFontDataUrl: '/pdf/standard_fonts/',
  });
}

/** Opens a PDF once for all its pages on screen; some time after the last one has gone it is closed. */
export function borrow(url: string): { pdf: OpenPdf; give(): void } {
  let held = open.get(url);
  if (!held) {
    const task = opened(url);
    held = {
      document: task.then(({ promise }) => promise),
      first: null,
      users: 0,
      close: () => void task.then((one) => one.destroy()).catch(() => undefined),
    };
    held.document.catch(() => undefined);
    open.set(url, held);
  }
  const mine = held;
  mine.users++;
  return {
    pdf: mine,
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

/** Which page of a PDF, how it is turned (degrees, clockwise), and how large (pixels a point). */
interface Wanted {
  number: number;
  turn: number;
  scale: number;
}

/** Draws a page off the screen. Rejects where the page cannot be shown; what was stopped never settles: nobody waits for it any more. */
export function draw(pdf: OpenPdf, { number, turn, scale }: Wanted): { drawn: Promise<HTMLCanvasElement>; stop(): void } {
  let task: RenderTask | null = null,
    gone = false;
  const work = async (): Promise<HTMLCanvasElement> => {
    const page = await (await pdf.document).getPage(number);
    const view = page.getViewport({ scale, rotation: (page.rotate + turn) % 360 });
    const canvas = Object.assign(document.createElement('canvas'), { width: Math.ceil(view.width), height: Math.ceil(view.height) });
    if (gone) return canvas;
    task = page.render({ canvas, viewport: view });
    await task.promise;
    if (number === 1 && turn === 0) pdf.first = canvas;
    return canvas;
  };
  const drawn = new Promise<HTMLCanvasElement>((done, fail) => {
    work().then(
      (canvas) => {
        if (!gone) done(canvas);
      },
      (e: unknown) => {
        if (!gone) fail(e instanceof Error ? e : new Error(String(e)));
      },
    );
  });
  return {
    drawn,
    stop() {
      gone = true;
      task?.cancel();
    },
  };
}

/** A page at a desk's usual size, in pixels a point: what is drawn ahead is shown at once and drawn sharp after. */
const usual = 1.25;

/** Opens a PDF and draws its first page before anybody looks at it. */
export function makeReady(url: string): { give(): void } {
  const { pdf, give } = borrow(url);
  const { drawn, stop } = draw(pdf, { number: 1, turn: 0, scale: usual * devicePixelRatio });
  drawn.catch(() => undefined);
  return {
    give() {
      stop();
      give();
    },
  };
}
