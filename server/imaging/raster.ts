import { createCanvas } from '@napi-rs/canvas';
import { OPS, type PDFPageProxy } from '../reading/pdfjs.mjs';
import type { Box } from '@ledgerline/core/page';
import { multiply, openPdf } from '../reading/open.ts';
import { pictureLimits, type Sheet } from './decode.ts';

/** What a page is drawn with. */
export type Operators = Awaited<ReturnType<PDFPageProxy['getOperatorList']>>;

/** A picture on a PDF page: its box in points and how fine it is. */
export interface Placed extends Box {
  dpi: number;
}

/** The pictures of a page with their places, from its drawing operators; patterns and forms inside forms are followed by their matrices. */
export function picturesOn({ fnArray, argsArray }: Operators, view: number[]): Placed[] {
  const out: Placed[] = [];
  let now = view;
  const kept: number[][] = [];
  const add = (w: number, h: number) => {
    const at = (x: number, y: number) => ({ x: now[0]! * x + now[2]! * y + now[4]!, y: now[1]! * x + now[3]! * y + now[5]! });
    const corners = [at(0, 0), at(1, 0), at(0, 1), at(1, 1)];
    const xs = corners.map((c) => c.x),
      ys = corners.map((c) => c.y);
    const x = Math.min(...xs),
      y = Math.min(...ys);
    const wide = Math.hypot(now[0]!, now[1]!),
      high = Math.hypot(now[2]!, now[3]!);
    if (wide > 0 && high > 0) out.push({ x, y, w: Math.max(...xs) - x, h: Math.max(...ys) - y, dpi: Math.max(w / wide, h / high) * 72 });
  };
  for (const [i, op] of fnArray.entries()) {
    const args = argsArray[i] as never;
    if (op === OPS.save) kept.push(now);
    else if (op === OPS.restore) now = kept.pop() ?? view;
    else if (op === OPS.transform) now = multiply(now, args as number[]);
    else if (op === OPS.paintFormXObjectBegin) {
      kept.push(now);
      if (args[0]) now = multiply(now, args[0] as number[]);
    } else if (op === OPS.paintFormXObjectEnd) now = kept.pop() ?? view;
    else if (op === OPS.paintImageXObject) add(args[1] as number, args[2] as number);
    else if (op === OPS.paintImageMaskXObject || op === OPS.paintInlineImageXObject) {
      const image = args[0] as { width?: number; height?: number };
      if (image?.width && image.height) add(image.width, image.height);
    }
  }
  return out;
}

/**
 * A page of a PDF as pixels, as fine as the pictures on it but at most 300 dots per inch. Scripts are never run and nothing is loaded
 * from outside. Throws UnreadablePdf.
 */
export async function rasterPage(bytes: Uint8Array, number: number): Promise<Sheet> {
  const pdf = await openPdf(bytes, { pictures: pictureLimits.pixels, known: true });
  try {
    const page = await pdf.getPage(number);
    const { width, height, transform } = page.getViewport({ scale: 1 });
    const finest = Math.max(
      0,
      ...picturesOn(await page.getOperatorList(), transform)
        .filter((p) => p.w * p.h > width * height * 0.02)
        .map((p) => p.dpi),
    );
    const most = Math.min(300, (4700 * 72) / Math.max(width, height));
    const dpi = Math.min(most, finest > 90 ? finest : 300);
    const view = page.getViewport({ scale: dpi / 72 });
    const [w, h] = [Math.max(1, Math.round(view.width)), Math.max(1, Math.round(view.height))];
    const canvas = createCanvas(w, h);
    await page.render({ canvas: canvas as never, canvasContext: canvas.getContext('2d') as never, viewport: view, background: '#ffffff' })
      .promise;
    const rgba = canvas.data();
    return { picture: plain(rgba, w, h), points: { width, height } };
  } finally {
    await pdf.destroy();
  }
}

/** Three channels, or one where there is only grey. */
function plain(rgba: Uint8Array, width: number, height: number): Sheet['picture'] {
  const n = width * height;
  let grey = true;
  for (let i = 0; i < n && grey; i++) grey = rgba[i * 4] === rgba[i * 4 + 1] && rgba[i * 4] === rgba[i * 4 + 2];
  const channels = grey ? 1 : 3,
    data = new Uint8Array(n * channels);
  for (let i = 0; i < n; i++) for (let c = 0; c < channels; c++) data[i * channels + c] = rgba[i * 4 + c]!;
  return { width, height, channels, data };
}
