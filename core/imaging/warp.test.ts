import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { identity, project, rotation, squaring } from './geometry.ts';
import { brightnessAt, paperOf, white } from './light.ts';
import { blank } from './pixels.ts';
import type { Gray, Point } from './types.ts';
import { resized, warp } from './warp.ts';

describe('a picture drawn anew', () => {
  /** What `warp` does, pixel by pixel and exactly. */
  const exactly = ({ width: w, height: t, data }: Gray, back: readonly number[], x: number, y: number): number => {
    const at = project(back, { x: x + 0.5, y: y + 0.5 }),
      [u, v] = [at.x - 0.5, at.y - 0.5];
    if (u < -1 || v < -1 || u >= w || v >= t) return 255;
    const pixel = (px: number, py: number) => data[Math.min(t - 1, Math.max(0, py)) * w + Math.min(w - 1, Math.max(0, px))]!;
    const [ix, iy] = [Math.floor(u), Math.floor(v)],
      [fx, fy] = [u - ix, v - iy];
    const row = (py: number) => pixel(ix, py) * (1 - fx) + pixel(ix + 1, py) * fx;
    return row(iy) * (1 - fy) + row(iy + 1) * fy;
  };
  it('through any mild perspective is what each pixel by itself would be', () => {
    const off = fc.integer({ min: -40, max: 40 }),
      corner = fc.tuple(off, off);
    fc.assert(
      fc.property(fc.tuple(corner, corner, corner, corner), (moved) => {
        const [w, h] = [400, 300];
        const wave = (x: number, y: number) => 128 + 60 * Math.sin(x / 2.5) + 60 * Math.sin(y / 2.5);
        const from: Gray = { width: w, height: h, data: Uint8Array.from({ length: w * h }, (_, i) => wave(i % w, Math.floor(i / w))) };
        const box = [
          { x: 0, y: 0 },
          { x: w, y: 0 },
          { x: w, y: h },
          { x: 0, y: h },
        ] as const;
        const [a, b, c, d] = box.map(({ x, y }, i) => ({ x: x + moved[i]![0], y: y + moved[i]![1] })) as [Point, Point, Point, Point];
        const back = squaring(box, [a, b, c, d]),
          out = warp(from, back, w, h);
        let far = 0;
        for (let i = 0; i < w * h; i += 7) {
          const [x, y] = [i % w, Math.floor(i / w)],
            { x: u, y: v } = project(back, { x: x + 0.5, y: y + 0.5 });
          // At the very edge a tenth of a pixel decides between the last pixel and the white beyond it.
          const edge = Math.min(Math.abs(u + 0.5), Math.abs(v + 0.5), Math.abs(u - 0.5 - w), Math.abs(v - 0.5 - h));
          if (edge > 0.25) far = Math.max(far, Math.abs(out.data[i]! - exactly(from, back, x, y)));
        }
        // From crest to trough the picture changes by 24 steps of brightness a pixel in each direction: a tenth of it, and rounding.
        expect(far).toBeLessThan(9);
      }),
      { numRuns: 12 },
    );
  });
  it('larger or smaller keeps its brightness', () => {
    const half: Gray = { width: 40, height: 20, data: Uint8Array.from({ length: 800 }, (_, i) => (i % 40 < 20 ? 30 : 220)) };
    for (const by of [0.65, 0.8, 1.4]) {
      const out = resized(half, by);
      expect([out.width, out.height]).toEqual([Math.round(40 * by), Math.round(20 * by)]);
      expect(out.data.reduce((t, v) => t + v, 0) / out.data.length).toBeCloseTo(125, -1);
    }
  });
});

describe('a page drawn with even light', () => {
  /** Paper with a shadow from the left and grain, without ink. */
  const shaded = (width: number, height: number): Gray => ({
    width,
    height,
    data: Uint8Array.from({ length: width * height }, (_, i) => 150 + (60 * (i % width)) / width + ((i * 7919) % 11)),
  });
  const even = (gray: Gray, back = identity) => warp(gray, back, gray.width, gray.height, { paper: paperOf(gray, 40), place: identity });

  it('has paper of one brightness, whichever parts of it were drawn', () => {
    const page = shaded(480, 320);
    for (let x = 20; x < 460; x += 60) page.data.fill(20, 100 * 480 + x, 100 * 480 + x + 8);
    const { data } = even(page);
    const paper = [...data].filter((v) => v > 128);
    expect(paper.filter((v) => v < white - 40)).toEqual([]);
    const mean = (from: number) => {
      let sum = 0;
      for (let y = 0; y < 320; y++) for (let x = from; x < from + 40; x++) sum += data[y * 480 + x]!;
      return sum / (40 * 320);
    };
    expect(Math.abs(mean(10) - mean(420))).toBeLessThan(12);
  });
  it('loses no ink, however small and pale, wherever it stands and however the page is turned', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 30, max: 440 }),
        fc.integer({ min: 30, max: 280 }),
        fc.double({ min: 0.1, max: 0.8, noNaN: true }),
        fc.double({ min: -5, max: 5, noNaN: true }),
        (x, y, share, degrees) => {
          const page = shaded(480, 320),
            paper = paperOf(page, 40);
          for (const [dx, dy] of [0, 1, 2].flatMap((a) => [0, 1, 2].map((b) => [a, b] as const)))
            page.data[(y + dy) * 480 + x + dx] = brightnessAt(paper, x, y) * share;
          const back = rotation(degrees, { x: 240, y: 160 }),
            { data } = warp(page, back, 480, 320, { paper, place: identity });
          // Where the middle of the spot is now: the turn undone.
          const to = project(rotation(-degrees, { x: 240, y: 160 }), { x: x + 1.5, y: y + 1.5 }),
            at = Math.floor(to.y) * 480 + Math.floor(to.x);
          const darkest = Math.min(data[at]!, data[at + 1]!, data[at - 1]!, data[at + 480]!, data[at - 480]!);
          expect(darkest).toBeLessThan(white * (share + 0.12));
        },
      ),
      { numRuns: 60 },
    );
  });
  it('bare paper that is a little darker than the rest, as a tinted row, stays so', () => {
    const page = blank(480, 320, 240);
    page.data.fill(226, 150 * 480, 200 * 480);
    const { data } = even(page);
    expect(data[175 * 480 + 200]! / data[40 * 480 + 200]!).toBeCloseTo(226 / 240, 1);
    expect(data[175 * 480 + 200]!).toBeLessThan(data[40 * 480 + 200]! - 8);
  });
  it('outside of the picture it is white', () => {
    const page = shaded(96, 96),
      { data } = warp(page, [1, 0, 200, 0, 1, 0, 0, 0, 1], 96, 96, { paper: paperOf(page, 40), place: identity });
    expect(Math.min(...data)).toBeGreaterThan(240);
  });
});
