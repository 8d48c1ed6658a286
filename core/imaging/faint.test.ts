import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { darkBands, invertBands } from './bands.ts';
import { piecesOf } from './components.ts';
import { blackAndWhite, softened, toGray } from './ink.ts';
import { wipeMarks } from './marks.ts';
import { darkenPale } from './pale.ts';
import { blank, inkOf, shrink } from './pixels.ts';
import { brokenLines, findRules } from './rules.ts';
import { tellingLines } from './telling.ts';
import type { Gray } from './types.ts';

const fill = (gray: Gray, x0: number, y0: number, x1: number, y1: number, value: number) => {
  for (let y = y0; y < y1; y++) gray.data.fill(value, y * gray.width + x0, y * gray.width + x1);
};
const at = ({ data, width }: Gray, x: number, y: number) => data[y * width + x]!;
/** A letter: an upright stroke and a foot. */
const letter = (gray: Gray, x: number, y: number, value: number) => {
  fill(gray, x, y, x + 4, y + 24, value);
  fill(gray, x, y + 20, x + 16, y + 24, value);
};
const pictures = fc
  .tuple(fc.integer({ min: 1, max: 30 }), fc.integer({ min: 1, max: 20 }))
  .chain(([width, height]) =>
    fc.uint8Array({ minLength: width * height, maxLength: width * height }).map((data): Gray => ({ width, height, data })),
  );

describe('pale ink', () => {
  it('is made dark, and ink that was dark stays as it was', () => {
    const page = blank(200, 100, 247);
    letter(page, 20, 20, 170);
    letter(page, 80, 20, 40);
    darkenPale(page, 300);
    expect([at(page, 22, 30) < 70, at(page, 82, 30), at(page, 150, 50)]).toEqual([true, 40, 247]);
  });
  it('is made no darker where it is the grain of the paper', () => {
    const page = blank(200, 100, 247);
    letter(page, 20, 20, 200);
    darkenPale(page, 300);
    expect(at(page, 22, 30)).toBe(200);
  });
  it('a tinted field is no letter', () => {
    const page = blank(400, 300, 247);
    fill(page, 20, 20, 380, 200, 180);
    darkenPale(page, 300);
    expect(at(page, 100, 100)).toBe(180);
  });
  it('a pale letter of which only parts are dark is not taken for dust; dust is', () => {
    const page = blank(200, 100, 247);
    letter(page, 20, 20, 200);
    fill(page, 20, 24, 22, 26, 140);
    fill(page, 120, 24, 122, 26, 140);
    const found = wipeMarks(page, inkOf(page, 150), 300 / 25.4);
    expect([found.specks, at(page, 21, 25), at(page, 121, 25)]).toEqual([1, 140, 247]);
  });
});

describe('a picture in black and white', () => {
  it('is told from a grey one', () => {
    const fax = blank(100, 100);
    letter(fax, 10, 10, 0);
    const grey = { ...fax, data: fax.data.map((v, i) => (i % 50 === 0 ? 128 : v)) };
    expect([blackAndWhite(fax), blackAndWhite(grey)]).toEqual([true, false]);
  });
  it('softened keeps an even ground and lies between the darkest and the lightest pixel', () => {
    fc.assert(
      fc.property(pictures, (gray) => {
        const soft = softened(gray).data;
        expect(Math.min(...soft) >= Math.min(...gray.data) && Math.max(...soft) <= Math.max(...gray.data)).toBe(true);
      }),
    );
    expect(new Set(softened(blank(9, 7, 200)).data)).toEqual(new Set([200]));
  });
  it('its steps become slopes', () => {
    const edge = blank(10, 10);
    fill(edge, 0, 0, 5, 10, 0);
    expect([3, 4, 5, 6].map((x) => at(softened(edge), x, 5))).toEqual([0, 64, 191, 255]);
  });
});

describe('a small dark label', () => {
  const chip = () => {
    const page = blank(600, 300, 247);
    // As at 300 dpi: a box of 45 by 12 points at an odd place, with light letters in it.
    fill(page, 103, 61, 290, 111, 35);
    for (let x = 118; x < 270; x += 20) letter(page, x, 74, 240);
    return page;
  };
  it('becomes dark text on white, wherever it lies', () => {
    for (const off of [0, 1, 2, 3]) {
      const page = chip();
      page.data.copyWithin(0, off * 601);
      const bands = darkBands(page, 30);
      expect(bands).toHaveLength(1);
      invertBands(page, bands);
      expect([at(page, 119 - off, 80 - off) < 60, at(page, 130 - off, 80 - off) > 230]).toEqual([true, true]);
    }
  });
  it('bold letters that stand close are none', () => {
    const page = blank(600, 300, 247);
    for (let x = 100; x < 300; x += 22) {
      fill(page, x, 60, x + 9, 110, 20);
      fill(page, x, 60, x + 17, 70, 20);
      fill(page, x, 100, x + 17, 110, 20);
    }
    expect(darkBands(page, 30)).toEqual([]);
  });
});

describe('pixels four at a time tell what they tell one by one', () => {
  it('ink below any threshold, wherever the picture lies in memory', () => {
    fc.assert(
      fc.property(pictures, fc.integer({ min: 0, max: 254 }), fc.integer({ min: 0, max: 3 }), (gray, cut, off) => {
        const moved = new Uint8Array(gray.data.length + off);
        moved.set(gray.data, off);
        const data = moved.subarray(off);
        expect([...inkOf({ ...gray, data }, cut)]).toEqual([...gray.data].map((v) => (v <= cut ? 1 : 0)));
      }),
    );
  });
  it('pieces and long lines, in sparse ink', () => {
    fc.assert(
      fc.property(fc.integer({ min: 30, max: 61 }), fc.integer({ min: 0, max: 12 }), fc.integer({ min: 0, max: 9 }), (width, x, y) => {
        const ink = new Uint8Array(width * 14);
        ink.fill(1, y * width + x, y * width + x + 18);
        ink[12 * width + width - 1] = 1;
        expect(piecesOf(ink, width, 14).pieces.map((p) => p.area)).toEqual([18, 1]);
        expect(findRules(ink, width, 14, 18, 3).map((r) => [r.x, r.w])).toEqual([[x, 18]]);
        expect(findRules(ink, width, 14, 19, 3)).toEqual([]);
      }),
    );
  });
  it('halving takes the mean of four', () => {
    const page: Gray = { width: 4, height: 2, data: Uint8Array.from([0, 100, 40, 40, 100, 200, 40, 40]) };
    expect([...shrink(page, 2).data]).toEqual([100, 40]);
  });
});

it('colour fades block by block, and what has none is not touched', () => {
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 255 }), fc.integer({ min: 17, max: 40 }), (v, width) => {
      const data = new Uint8Array(width * 20 * 3).fill(v);
      expect(new Set(toGray({ width, height: 20, channels: 3, data }).data)).toEqual(new Set([v]));
    }),
  );
});

describe('a thin line that a fax has broken', () => {
  const piece = (x: number, y: number, w: number, h: number) => ({ x, y, w, h, area: w * h });
  it('is known by its pieces close behind each other, level or upright', () => {
    const level = [0, 40, 85, 130].map((x) => piece(x, 100, 38, 3));
    const upright = [0, 40, 85, 130].map((y) => piece(300, y, 3, 38));
    expect(brokenLines([...level, ...upright], 130, 6).sort((a, b) => a - b)).toEqual([0, 1, 2, 3, 4, 5, 6, 7]);
  });
  it('stems of letters that stand below each other in rows of text are none', () => {
    const stems = [0, 56, 112, 168].map((y) => piece(300, y, 4, 30));
    expect(brokenLines(stems, 130, 6)).toEqual([]);
  });
});

describe('lines that tell a language', () => {
  const page = (boxes: [number, number, number, number][]) => {
    const gray = blank(2480, 3508);
    // Letters as bars with gaps between them, the dots of the recogniser's world.
    for (const [x, y, w, h] of boxes)
      for (let at = x; at < x + w - h * 0.4; at += Math.round(h * 0.6))
        for (let row = y; row < y + h; row++) gray.data.fill(20, row * 2480 + at, row * 2480 + at + Math.round(h * 0.4));
    return gray;
  };
  it('are the longest and the tallest in turns, each once', () => {
    const title: [number, number, number, number] = [1500, 200, 600, 90],
      sentence: [number, number, number, number] = [200, 3000, 1900, 34],
      cell: [number, number, number, number] = [200, 1500, 400, 34];
    const found = tellingLines(page([cell, title, sentence]), 300, 2);
    const near = ([x, y]: readonly number[], b: { x: number; y: number }) => Math.abs(b.x - x!) < 12 && Math.abs(b.y - y!) < 12;
    expect([near(sentence, found[0]!), near(title, found[1]!)]).toEqual([true, true]);
    expect(tellingLines(page([cell, title, sentence]), 300, 9)).toHaveLength(3);
  });
  it('an empty page has none', () => expect(tellingLines(blank(2480, 3508), 300, 6)).toEqual([]));
});
