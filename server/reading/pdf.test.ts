import sharp from 'sharp';
import { PDFDocument, StandardFonts } from '@cantoo/pdf-lib';
import { describe, expect, it } from 'vitest';
import { pastedPdf } from '@ledgerline/documents/picture';
import { UnreadablePdf } from './open.ts';
import { contentOfPdf, pdfLimits } from './pdf.ts';

const text = 'Dear Marrowby, the table below is what we did in August for you'.split(' ');
/** Words of a letter, five in a row. */
const letter = (words: string[], top = 80) =>
  words.map((t, i) => ({ text: t, x: 50 + (i % 5) * 90, y: top + Math.floor(i / 5) * 16, size: 10 }));
const picture = async (width: number, height: number) =>
  new Uint8Array(
    await sharp({ create: { width, height, channels: 3, background: '#e0d0c0' } })
      .png()
      .toBuffer(),
  );
const table = { x: 40, y: 300, w: 500, h: 300 };
const pictured = async (bytes: Uint8Array) => (await contentOfPdf(bytes)).pictured;

describe('a page of text', () => {
  it('whose figures seem to stand in a picture is read as one, and keeps its text', async () => {
    const { pictured: found, pages } = await contentOfPdf(await pastedPdf(letter(text), await picture(1400, 840), table));
    expect([found, pages[0]!.words.map((w) => w.text)]).toEqual([[0], text]);
  });
  it('that has its amounts itself is not, whatever picture is on it', async () => {
    const words = letter([...text, '12.50', '1,240.00', '8.75']);
    expect(await pictured(await pastedPdf(words, await picture(1400, 840), table))).toEqual([]);
  });
  it('on which only a small or a coarse picture stands is not', async () => {
    expect(await pictured(await pastedPdf(letter(text), await picture(400, 200), { x: 40, y: 300, w: 120, h: 60 }))).toEqual([]);
    expect(await pictured(await pastedPdf(letter(text), await picture(100, 60), table))).toEqual([]);
  });
  it('that is printed over its picture is not', async () => {
    expect(await pictured(await pastedPdf(letter(text, 340), await picture(1400, 840), table))).toEqual([]);
  });
  it('is not looked at for pictures behind the tenth of a booklet', async () => {
    const whole = await PDFDocument.create(),
      one = await PDFDocument.load(await pastedPdf(letter(text), await picture(1400, 840), table));
    for (let i = 0; i < 12; i++) whole.addPage((await whole.copyPages(one, [0]))[0]);
    expect(await pictured(await whole.save())).toEqual(Array.from({ length: 10 }, (_, i) => i));
  });
});

describe('a file that is no PDF to read', () => {
  const plain = async (pages: number) => {
    const file = await PDFDocument.create(),
      font = await file.embedFont(StandardFonts.Helvetica);
    for (let i = 0; i < pages; i++)
      file.addPage([595, 842]).drawText('Invoice no. QGR-20611 of 3 November', { x: 50, y: 700, size: 10, font });
    return file.save();
  };
  it.each([
    ['empty', async () => new Uint8Array(0)],
    ['broken', async () => new TextEncoder().encode('%PDF-1.7 and nothing behind it')],
    ['too-many-pages', () => plain(4)],
  ] as const)('says why: %s', async (fault, bytes) => {
    const reading = contentOfPdf(await bytes(), { ...pdfLimits, pages: 3 });
    await expect(reading).rejects.toBeInstanceOf(UnreadablePdf);
    await expect(reading).rejects.toMatchObject({ fault });
  });
  it('has only the pages that are asked for, turned', async () => {
    const { pages, count } = await contentOfPdf(await plain(3), pdfLimits, [
      { page: 3, turn: 90 },
      { page: 9, turn: 0 },
    ]);
    expect([pages.map((p) => [p.number, p.width, p.height]), count]).toEqual([[[3, 842, 595]], 3]);
  });
});
