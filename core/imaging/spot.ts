import { identity, multiply, project, scaling } from './geometry.ts';
import { blackAndWhite, softened, toGray } from './ink.ts';
import { histogramOf, percentile } from './pixels.ts';
import type { Gray, Matrix, Picture } from './types.ts';
import { evenLight, warp } from './warp.ts';

/**
 * One spot of a page drawn anew from its picture at a resolution of its own, evenly lit and dark on light, with a margin of white.
 * `back` leads from the cleaned page to the page as it came (null: they are one), `box` is in points of the cleaned page. Also says
 * which point of that page the corner of what was drawn is.
 */
export function spotOf(
  picture: Picture,
  points: { width: number; height: number },
  back: Matrix | null,
  box: { x: number; y: number; w: number; h: number },
  dpi: number,
): { gray: Gray; x: number; y: number } {
  const pad = Math.min(6, box.h * 0.35),
    x = box.x - pad,
    y = box.y - pad,
    by = dpi / 72;
  const width = Math.max(1, Math.round((box.w + 2 * pad) * by)),
    height = Math.max(1, Math.round((box.h + 2 * pad) * by));
  const toPixels = [picture.width / points.width, 0, 0, 0, picture.height / points.height, 0, 0, 0, 1];
  const lies = multiply(toPixels, multiply(back ?? identity, multiply([1, 0, x, 0, 1, y, 0, 0, 1], scaling(1 / by))));
  const corners = [
    { x: 0, y: 0 },
    { x: width, y: 0 },
    { x: 0, y: height },
    { x: width, y: height },
  ].map((p) => project(lies, p));
  const [left, right] = [Math.min(...corners.map((c) => c.x)), Math.max(...corners.map((c) => c.x))],
    [top, foot] = [Math.min(...corners.map((c) => c.y)), Math.max(...corners.map((c) => c.y))];
  const part = cut(picture, Math.floor(left) - 4, Math.floor(top) - 4, Math.ceil(right) + 5, Math.ceil(foot) + 5);
  const ink = toGray(part.picture),
    drawn = warp(ink, multiply([1, 0, -part.x, 0, 1, -part.y, 0, 0, 1], lies), width, height);
  let gray = darkOnLight(evenLight(drawn, Math.max(24, Math.round(dpi / 3))));
  // As soft as the page was made: what one step does at 300 dpi takes four at 600.
  if (blackAndWhite(ink)) for (let i = Math.round((dpi / 300) ** 2); i > 0; i--) gray = softened(gray);
  return { gray, x, y };
}

function cut(picture: Picture, x0: number, y0: number, x1: number, y1: number): { picture: Picture; x: number; y: number } {
  const x = Math.min(picture.width - 1, Math.max(0, x0)),
    y = Math.min(picture.height - 1, Math.max(0, y0));
  const width = Math.max(1, Math.min(picture.width, x1) - x),
    height = Math.max(1, Math.min(picture.height, y1) - y),
    n = picture.channels;
  const data = new Uint8Array(width * height * n);
  for (let row = 0; row < height; row++) {
    const from = ((y + row) * picture.width + x) * n;
    data.set(picture.data.subarray(from, from + width * n), row * width * n);
  }
  return { picture: { width, height, channels: n, data }, x, y };
}

/** Turns light text on a dark ground round: the ground is what most of the spot is. */
function darkOnLight(gray: Gray): Gray {
  const ground = percentile(histogramOf(gray.data), 0.5);
  return ground > 120 ? gray : { ...gray, data: gray.data.map((v) => 255 - v) };
}
