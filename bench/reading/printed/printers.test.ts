import { expect, it } from 'vitest';
import { contentOfPdf } from '../../../server/reading/pdf.ts';
import { strange } from '../strange/index.ts';
import { libraries } from './printers.ts';

it.each(Object.keys(libraries))('what %s prints is what was drawn, in its places', async (name) => {
  // One with letters of western Europe alone: the standard faces have no others.
  const { sheet } = Array.from({ length: 40 }, (_, i) => strange(102 + i)).find((d) =>
    d.sheet.drawn.every((x) => /^[\u0020-\u00ff€–—‘’“”•…]*$/.test(x.text)),
  )!;
  const { pages } = await contentOfPdf(await libraries[name]!(sheet));
  expect(pages.length).toBe(sheet.page);
  const said = (text: string) => text.replace(/\s+/g, '');
  for (const d of sheet.drawn) {
    const { words } = pages[d.page - 1]!;
    const near = words.filter((w) => Math.abs(w.y + 0.78 * w.size - d.y) < 2 && w.x > d.x - 2);
    expect(said(near.map((w) => w.text).join('')), d.text).toContain(said(d.text));
  }
});
