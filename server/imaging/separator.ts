import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { PDFDocument, StandardFonts } from '@cantoo/pdf-lib';
import QRCode from 'qrcode';
import { prepareZXingModule, readBarcodes } from 'zxing-wasm/reader';
import { shrinkGray, toGray, type Picture } from '@ledgerline/core/imaging';

/** What the code on a separator sheet says. */
export const separatorText = 'LEDGERLINE NEXT DOCUMENT';

/** The reader's program ships with it: nothing is loaded from elsewhere. */
let ready: Promise<unknown> | null = null;
const prepared = () =>
  (ready ??= prepareZXingModule({
    overrides: {
      wasmBinary: new Uint8Array(readFileSync(createRequire(import.meta.url).resolve('zxing-wasm/reader/zxing_reader.wasm'))).buffer,
    },
    fireImmediately: true,
  }));

/** Whether a page carries the code of a separator sheet. Looked for at about 50 dots per inch, which is enough for a code so large. */
export async function isSeparator(picture: Picture): Promise<boolean> {
  const gray = toGray(picture, false),
    { width, height, data } = shrinkGray(gray, Math.max(1, Math.round(Math.max(gray.width, gray.height) / 560)));
  const rgba = new Uint8ClampedArray(width * height * 4);
  for (let i = 0; i < data.length; i++) rgba.fill(data[i]!, i * 4, i * 4 + 4);
  await prepared();
  const found = await readBarcodes({ data: rgba, width, height, colorSpace: 'srgb' } as ImageData, {
    formats: ['QRCode'],
    tryInvert: false,
  });
  return found.some((code) => code.text === separatorText);
}

/** A separator sheet to print: A4, its code in the middle, large enough for a fax. */
export async function separatorSheet(): Promise<Uint8Array> {
  const file = await PDFDocument.create();
  file.setTitle('Separator sheet');
  const page = file.addPage([595.28, 841.89]),
    font = await file.embedFont(StandardFonts.HelveticaBold),
    plain = await file.embedFont(StandardFonts.Helvetica);
  const { modules } = QRCode.create(separatorText, { errorCorrectionLevel: 'H' });
  const side = 260,
    dot = side / modules.size,
    left = (595.28 - side) / 2,
    top = 600;
  for (let row = 0; row < modules.size; row++)
    for (let column = 0; column < modules.size; column++)
      if (modules.get(row, column))
        page.drawRectangle({ x: left + column * dot, y: top - (row + 1) * dot, width: dot + 0.2, height: dot + 0.2 });
  const centred = (text: string, y: number, size: number, f = font) =>
    page.drawText(text, { x: (595.28 - f.widthOfTextAtSize(text, size)) / 2, y, size, font: f });
  centred('Next document', 680, 34);
  centred('Lay this sheet between two documents. It is left out of both.', 290, 13, plain);
  return file.save();
}
