import { describe, expect, it } from 'vitest';
import type { Gray, SeenWord } from '@ledgerline/core/imaging';
import { readLine } from './line.ts';
import type { Ocr } from './ocr.ts';

const gray: Gray = { width: 200, height: 60, data: new Uint8Array(12_000).fill(250) };
const word = (text: string, confidence: number, x0: number, x1: number): SeenWord => ({
  text,
  confidence,
  x0,
  x1,
  y0: 10,
  y1: 40,
  base: 40,
  line: 0,
});

/** A recogniser that answers by the height of what it is shown and its language, and remembers what it was asked. */
function fake(answer: (height: number, language: string) => SeenWord[]) {
  const asked: string[] = [];
  const read = async ({ height }: Gray, { language = 'eng' } = {}) => {
    asked.push(`${language} ${height}`);
    return answer(height, language);
  };
  return { asked, ocr: { read } as unknown as Ocr };
}
const texts = (words: SeenWord[]) => words.map((w) => w.text);

describe('one line', () => {
  it('that is plain at the first size is read once, with boxes in pixels of what was given', async () => {
    const { ocr, asked } = fake(() => [word('2.140', 0.95, 13, 117)]);
    const [seen] = await readLine(ocr, gray, 'eng', 300, { wide: 150, tall: 30 });
    expect(asked).toEqual(['eng 39']);
    expect([seen!.text, seen!.x0, seen!.x1]).toEqual(['2.140', 20, 180]);
  });
  it('that makes no sense at one size is tried at others', async () => {
    const { ocr, asked } = fake((height) => [height === 60 ? word('17', 0.95, 20, 170) : word('aby', 0.02, 13, 110)]);
    expect(texts(await readLine(ocr, gray, 'eng', 300, { wide: 150, tall: 30 }))).toEqual(['17']);
    expect(asked).toEqual(['eng 39', 'eng 60']);
  });
  it('of which a reading leaves ink out is read by one that does not, however sure the first was', async () => {
    const { ocr } = fake((height) => [
      height === 84 ? word('500', 0.9, 28, 240) : word('00', 0.97, (60 * height) / 60, (110 * height) / 60),
    ]);
    expect(texts(await readLine(ocr, gray, 'eng', 300, { wide: 150, tall: 30 }))).toEqual(['500']);
  });
  it('that one language cannot read is read by English', async () => {
    const { ocr, asked } = fake((_, language) => (language === 'eng' ? [word('202616493', 0.96, 13, 117)] : []));
    expect(texts(await readLine(ocr, gray, 'nld', 300, { wide: 150, tall: 30 }))).toEqual(['202616493']);
    expect(asked).toEqual(['nld 39', 'nld 60', 'nld 84', 'eng 39']);
  });
  it('that two tries read alike is surer than either, but not sure', async () => {
    const { ocr } = fake((height) => [word(height === 39 ? 'P0-4902' : 'PO-4902', 0.44, (20 * height) / 60, (170 * height) / 60)]);
    const [seen] = await readLine(ocr, gray, 'eng', 300, { wide: 150, tall: 30 });
    expect(seen!.text).toBe('PO-4902');
    expect(seen!.confidence).toBeCloseTo(1 - 0.56 ** 2);
  });
  it('that is one stroke gets fewer tries', async () => {
    const { ocr, asked } = fake(() => [word('|', 0.5, 13, 16)]);
    await readLine(ocr, gray, 'nld', 300, { wide: 4, tall: 30 });
    expect(asked).toEqual(['nld 39', 'nld 60']);
  });
  it('that is one letter may have a box too narrow for its ink', async () => {
    const { ocr, asked } = fake(() => [word('A', 0.96, 20, 30)]);
    expect(texts(await readLine(ocr, gray, 'eng', 300, { wide: 26, tall: 28 }))).toEqual(['A']);
    expect(asked).toEqual(['eng 39']);
  });
  it('of which nothing can be read has no words', async () => {
    const { ocr, asked } = fake(() => []);
    expect(await readLine(ocr, gray, 'eng', 300, { wide: 150, tall: 30 })).toEqual([]);
    expect(asked).toHaveLength(3);
  });
});
