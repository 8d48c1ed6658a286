import fc from 'fast-check';
import { beforeAll, describe, expect, it } from 'vitest';
import { makePdf } from '@ledgerline/documents/maker';
import { wornPage } from '@ledgerline/documents/paper';
import { makeInvoice } from '@ledgerline/documents/invoice';
import { seeded } from '@ledgerline/documents/random';
import { suppliers } from '@ledgerline/documents/suppliers';
import { darkBands, invertBands } from './bands.ts';
import { piecesOf } from './components.ts';
import { crop } from './crop.ts';
import { identity, invert, multiply, project, rotation, squaring, turned } from './geometry.ts';
import { toGray } from './ink.ts';
import { wipeMarks } from './marks.ts';
import { blank, histogramOf, inkOf, otsu, percentile, shrink } from './pixels.ts';
import { prepare } from './prepare.ts';
import { findRules, wipeRules } from './rules.ts';
import { findSheet } from './sheet.ts';
import { skewOf, skewUnlessLying } from './skew.ts';
import { spotOf } from './spot.ts';
import { evenLight, warp } from './warp.ts';
import { usualCleanUp, type Gray, type Quad } from './types.ts';

let pdf: Uint8Array, clean: Gray;
const a4 = { width: 595, height: 842 };
const picture = (gray: Gray) => ({ ...gray, channels: 1 as const });
/** Share of pixels in a box that are darker than a brightness. */
const inked = ({ width, data }: Gray, x0: number, y0: number, x1: number, y1: number, below = 128) => {
  let n = 0;
  for (let y = y0; y < y1; y++) for (let x = x0; x < x1; x++) if (data[y * width + x]! < below) n++;
  return n / ((x1 - x0) * (y1 - y0));
};
const fill = (gray: Gray, x0: number, y0: number, x1: number, y1: number, value: number) => {
  for (let y = y0; y < y1; y++) gray.data.fill(value, y * gray.width + x0, y * gray.width + x1);
};

beforeAll(async () => {
  pdf = await makePdf(makeInvoice(suppliers[5]!, seeded(3), { number: 'IM-100', issueDate: '2026-11-20', lines: 5 }));
  clean = await wornPage(pdf, 1, { dpi: 150, grain: 0 });
});

describe('how a page lies', () => {
  it.each([-3.4, -1.3, -0.4, 0, 0.6, 1.9, 4.2])('a skew of %s degrees is found to a tenth', async (skew) => {
    const page = await wornPage(pdf, 1, { dpi: 200, skew, grain: 30, seed: 4 });
    expect(Math.abs(skewOf(page) - skew)).toBeLessThan(0.1);
  });
  it('a page without text has no skew', () => {
    expect(skewOf(blank(800, 1000))).toBe(0);
  });
  it.each([0, 90, 180, 270] as const)('a page put in with a turn of %s is set upright and straight', async (turn) => {
    const page = await wornPage(pdf, 1, { dpi: 150, turn, skew: 1.2, seed: 5 });
    const lying = turn % 180 !== 0;
    const ready = prepare(picture(page), lying ? { width: 842, height: 595 } : a4);
    expect([(ready.turn + turn) % 360, ready.upright]).toEqual([0, true]);
    expect([ready.width, ready.height]).toEqual([595, 842]);
  });
  it('letters in level rows tell a lying page from an upright one, whatever lines and bands stand on it', () => {
    const barred = { ...clean, data: clean.data.slice() };
    fill(barred, 20, 20, 70, barred.height - 20, 30);
    expect(skewUnlessLying(barred, 8)).toBe(0);
    const { data, width, height } = turned(picture(barred), 90);
    expect(skewUnlessLying({ data, width, height }, 8)).toBeNull();
  });
});

describe('a photo', () => {
  it('the sheet is found on the table and squared, and a point of it leads back to where it lay', async () => {
    const photo = await wornPage(pdf, 1, { dpi: 200, photo: true, seed: 9 });
    expect(findSheet(picture(photo))).not.toBeNull();
    const ready = prepare(picture(photo), { width: 595, height: Math.round((595 * photo.height) / photo.width) });
    expect([ready.squared, ready.width, ready.height]).toEqual([true, 595, 842]);
    // The corners of the sheet lie where the table ends.
    const at = project(ready.back, { x: 0, y: 0 }),
      far = project(ready.back, { x: 595, y: 842 });
    expect([at.x > 10, at.y > 10, far.x < 590, far.y < photo.height * (595 / photo.width) - 10]).toEqual([true, true, true, true]);
  });
  it('a scan has no sheet to be found: it is all sheet', async () => {
    expect(findSheet(picture(await wornPage(pdf, 1, { skew: 1 })))).toBeNull();
  });
  it('a shadow across the paper goes, the ink stays', () => {
    const shaded = { ...clean, data: clean.data.map((v, i) => v * (1 - 0.5 * ((i % clean.width) / clean.width))) };
    const even = evenLight(shaded, 25);
    const paper = (g: Gray, share: number) =>
      percentile(histogramOf(crop(g, { x: g.width * share, y: 0, w: g.width * 0.1, h: g.height }, 0).gray.data), 0.7);
    expect(Math.abs(paper(even, 0.05) - paper(even, 0.85))).toBeLessThan(6);
    expect(Math.abs(paper(shaded, 0.05) - paper(shaded, 0.85))).toBeGreaterThan(60);
    expect(inked(even, 0, 0, even.width, even.height)).toBeGreaterThan(inked(clean, 0, 0, clean.width, clean.height) * 0.7);
  });
});

describe('what is not text', () => {
  it('light text on a dark band becomes dark on white', () => {
    const page = blank(600, 400);
    fill(page, 50, 100, 550, 160, 40);
    for (let x = 80; x < 500; x += 24) fill(page, x, 118, x + 6, 142, 235);
    const bands = darkBands(page, 15);
    expect(bands).toHaveLength(1);
    invertBands(page, bands);
    expect([inked(page, 50, 100, 550, 112), inked(page, 82, 120, 84, 140)]).toEqual([0, 1]);
  });
  it('a notch that a stamp leaves in the edge of a band belongs to it', () => {
    const page = blank(600, 400);
    fill(page, 50, 100, 550, 172, 40);
    fill(page, 290, 100, 330, 118, 200);
    fill(page, 306, 124, 312, 150, 235);
    const bands = darkBands(page, 30);
    invertBands(page, bands);
    // The light letter below the notch is dark now, the ground beside it white.
    expect([bands.length, inked(page, 308, 128, 310, 146), inked(page, 316, 128, 326, 146)]).toEqual([1, 1, 0]);
  });
  it('long lines go, letters that cross them stay, short strokes are no lines', () => {
    const page = blank(900, 500);
    fill(page, 50, 200, 850, 203, 0);
    fill(page, 300, 100, 303, 450, 0);
    fill(page, 500, 180, 506, 225, 0);
    fill(page, 600, 300, 640, 303, 0);
    const ink = inkOf(page, 128),
      rules = findRules(ink, 900, 500, 135, 16);
    expect(rules.map((r) => (r.w > r.h ? 'level' : 'upright')).sort()).toEqual(['level', 'upright']);
    wipeRules(page, ink, rules, 16);
    expect([inked(page, 60, 200, 290, 203), inked(page, 300, 300, 303, 440)]).toEqual([0, 0]);
    expect([inked(page, 500, 182, 506, 223), inked(page, 600, 300, 640, 303)]).toEqual([1, 1]);
  });
  it('punch holes and specks go, a full stop stays', async () => {
    const page = await wornPage(pdf, 1, { dpi: 200, holes: true, grain: 0 }),
      mm = 200 / 25.4;
    const dotted = { ...page, data: page.data.slice() };
    fill(dotted, 800, 1500, 801, 1501, 0);
    fill(dotted, 900, 1500, 904, 1504, 0);
    const found = wipeMarks(dotted, inkOf(dotted, 128), mm);
    expect(found.holes).toBe(2);
    expect([inked(dotted, 800, 1500, 801, 1501), inked(dotted, 900, 1500, 904, 1504)]).toEqual([0, 1]);
    expect(
      inked(dotted, Math.round(9 * mm), Math.round(page.height / 2 - 45 * mm), Math.round(15 * mm), Math.round(page.height / 2 - 35 * mm)),
    ).toBe(0);
  });
  it('a coloured stamp fades, black ink does not', () => {
    const data = new Uint8Array(64 * 64 * 3).fill(250);
    const dot = (x: number, rgb: number[]) => data.set(rgb, (20 * 64 + x) * 3);
    dot(10, [210, 60, 60]);
    dot(20, [20, 20, 20]);
    const gray = toGray({ width: 64, height: 64, channels: 3, data });
    expect([gray.data[20 * 64 + 10]! > 200, gray.data[20 * 64 + 20]! < 30]).toEqual([true, true]);
  });
  it('steps that are switched off are not done', () => {
    const off = {
      ...usualCleanUp,
      square: false,
      upright: false,
      deskew: 0,
      light: false,
      bands: false,
      rules: false,
      marks: false,
      stamps: false,
      dpi: 150,
    };
    const ready = prepare(picture(clean), a4, off);
    expect([ready.turn, ready.skew, ready.squared, ready.dpi]).toEqual([0, 0, false, 150]);
    expect(inked(ready.gray, 0, 0, ready.gray.width, ready.gray.height)).toBeCloseTo(inked(clean, 0, 0, clean.width, clean.height), 2);
  });
});

describe('a spot', () => {
  it('is drawn anew from where it lay on the skewed page', async () => {
    const skewed = await wornPage(pdf, 1, { dpi: 200, skew: 2, grain: 0 });
    const straight = await wornPage(pdf, 1, { dpi: 300, grain: 0 });
    const ready = prepare(picture(skewed), a4);
    // The first row of the page, where the supplier's name stands.
    const box = { x: 46, y: 46, w: 230, h: 22 };
    const { gray, x, y } = spotOf(picture(skewed), a4, ready.back, box, 300);
    const as = (v: number) => Math.round((v * 300) / 72);
    const there = crop(straight, { x: as(x), y: as(y), w: gray.width, h: gray.height }, 0).gray;
    let apart = 0;
    for (let i = 0; i < there.data.length; i++) apart += Math.abs(there.data[i]! - gray.data[i]!);
    expect(apart / there.data.length).toBeLessThan(22);
    expect(inked(gray, 0, 0, gray.width, gray.height)).toBeGreaterThan(0.05);
  });
  it('light on dark comes dark on light', () => {
    const page = blank(400, 200, 30);
    fill(page, 100, 80, 300, 90, 240);
    const { gray } = spotOf(picture(page), { width: 400, height: 200 }, null, { x: 80, y: 70, w: 240, h: 30 }, 72);
    expect(percentile(histogramOf(gray.data), 0.6)).toBeGreaterThan(150);
  });
});

describe('geometry', () => {
  const degrees = fc.double({ min: -30, max: 30, noNaN: true }),
    place = fc.record({ x: fc.double({ min: 0, max: 600, noNaN: true }), y: fc.double({ min: 0, max: 800, noNaN: true }) });
  const near = fc.double({ min: -60, max: 60, noNaN: true });
  const corners = fc.array(near, { minLength: 8, maxLength: 8 }).map((d): Quad => [
    { x: d[0]!, y: d[1]! },
    { x: 600 + d[2]!, y: d[3]! },
    { x: 600 + d[4]!, y: 800 + d[5]! },
    { x: d[6]!, y: 800 + d[7]! },
  ]);
  const sheet: Quad = [
    { x: 0, y: 0 },
    { x: 600, y: 0 },
    { x: 600, y: 800 },
    { x: 0, y: 800 },
  ];
  it('what a projection does, its inverse takes back', () => {
    fc.assert(
      fc.property(corners, degrees, place, (quad, by, p) => {
        const m = multiply(squaring(sheet, quad), rotation(by, { x: 300, y: 400 })),
          back = project(invert(m), project(m, p));
        expect(back.x).toBeCloseTo(p.x, 4);
        expect(back.y).toBeCloseTo(p.y, 4);
      }),
    );
  });
  it('squaring takes each corner to its corner', () => {
    fc.assert(
      fc.property(corners, (quad) => {
        const m = squaring(quad, sheet);
        quad.forEach((corner, i) => {
          const at = project(m, corner);
          expect(Math.hypot(at.x - sheet[i]!.x, at.y - sheet[i]!.y)).toBeLessThan(1e-6);
        });
      }),
    );
  });
  it('four quarter turns are none, and a turn keeps every pixel', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 9 }),
        fc.integer({ min: 1, max: 9 }),
        fc.constantFrom(1 as const, 3 as const),
        (w, h, channels) => {
          const given = { width: w, height: h, channels, data: Uint8Array.from({ length: w * h * channels }, (_, i) => i) };
          expect(turned(turned(turned(turned(given, 90), 90), 90), 90)).toEqual(given);
          expect(turned(turned(given, 90), 270)).toEqual(given);
          expect(turned(given, 180)).toEqual(turned(turned(given, 90), 90));
        },
      ),
    );
  });
  it('drawing anew without a move changes nothing inside', () => {
    const same = warp(clean, identity, clean.width, clean.height);
    expect(same.data.slice(clean.width * 5, clean.width * 6 - 2)).toEqual(clean.data.slice(clean.width * 5, clean.width * 6 - 2));
  });
});

describe('pixels', () => {
  it('every pixel of ink belongs to one piece, and pieces do not touch', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 24 }), fc.integer({ min: 1, max: 24 }), fc.infiniteStream(fc.boolean()), (w, h, stream) => {
        const ink = Uint8Array.from({ length: w * h }, () => (stream.next().value ? 1 : 0));
        const { pieces } = piecesOf(ink, w, h);
        expect(pieces.reduce((t, p) => t + p.area, 0)).toBe(ink.reduce((t, v) => t + v, 0));
        for (const p of pieces) expect(p.area).toBeLessThanOrEqual(p.w * p.h);
      }),
    );
  });
  it('the threshold parts two brightnesses, wherever they lie', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 100 }), fc.integer({ min: 140, max: 255 }), (dark, light) => {
        const cut = otsu(histogramOf(Uint8Array.from({ length: 400 }, (_, i) => (i % 4 === 0 ? dark : light))));
        expect(cut >= dark && cut < light).toBe(true);
      }),
    );
  });
  it('a smaller picture keeps its mean', () => {
    const half = shrink(clean, 3),
      mean = (g: Gray) => g.data.reduce((t, v) => t + v, 0) / g.data.length;
    expect(Math.abs(mean(half) - mean(clean))).toBeLessThan(1.5);
  });
});
