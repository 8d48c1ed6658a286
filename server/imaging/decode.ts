import decodeHeic from 'heic-decode';
import sharp, { type Metadata, type Sharp } from 'sharp';
import type { Picture } from '@ledgerline/core/imaging';

sharp.cache(false);
sharp.concurrency(1);

/** Pixels a picture may have in all, pages it may have, the least width and height of a page, and the most pixels along a side that are looked at. */
export const pictureLimits = { pixels: 120_000_000, pages: 200, least: 400, side: 4700 };

/** Why a picture can't be opened. */
export class UnreadablePicture extends Error {
  constructor() {
    super('This picture cannot be opened.');
  }
}

/** A page as pixels, with its size in points as it came. */
export interface Sheet {
  picture: Picture;
  points: { width: number; height: number };
}

const a4 = { width: 595, height: 842 };

/** Whether the first bytes are those of an HEIC photo (ISO 23008-12: a file type box with an HEVC image brand). */
export const isHeic = (bytes: Uint8Array): boolean =>
  /^ftyp(heic|heix|heim|heis|hevc|mif1|msf1)/.test(Buffer.from(bytes.subarray(4, 12)).toString('latin1'));

async function opened(bytes: Uint8Array, page: number): Promise<Sharp> {
  if (!isHeic(bytes)) return sharp(bytes, { limitInputPixels: pictureLimits.pixels, failOn: 'error', page });
  const images = await decodeHeic.all({ buffer: bytes });
  try {
    const [first] = images;
    // The size is known before a pixel is made.
    if (!first || first.width * first.height > pictureLimits.pixels) throw new UnreadablePicture();
    const { width, height, data } = await first.decode();
    return sharp(new Uint8Array(data), { raw: { width, height, channels: 4 } });
  } finally {
    images.dispose();
  }
}

/** Number of pages of a picture file, and the size of each in pixels, upright by what the camera noted. Throws UnreadablePicture. */
export async function picturePages(bytes: Uint8Array): Promise<{ width: number; height: number; dpi: { x: number; y: number } | null }[]> {
  try {
    const first = await (await opened(bytes, 0)).metadata();
    const count = pagesIn(bytes, first);
    const pages = [];
    for (let page = 0; page < count; page++) {
      const meta = page === 0 ? first : await (await opened(bytes, page)).metadata();
      pages.push(sizeOf(bytes, page, meta));
    }
    return pages;
  } catch {
    throw new UnreadablePicture();
  }
}

/** How many pages of a picture are looked at. */
const pagesIn = (bytes: Uint8Array, { pages }: Metadata): number => (isHeic(bytes) ? 1 : Math.min(pages ?? 1, pictureLimits.pages));

/** Size of a page, upright by what the camera noted, and how fine it is. */
function sizeOf(bytes: Uint8Array, page: number, { width, height, orientation, density }: Metadata) {
  const lying = (orientation ?? 1) >= 5;
  return { ...(lying ? { width: height, height: width } : { width, height }), dpi: dpiOf(bytes, page, density) };
}

/**
 * The size in points of a page of so many pixels. A fax says how fine it is in each direction; a picture that says nothing sensible
 * is taken to be as wide as A4.
 */
export function pointsOf({ width, height, dpi }: { width: number; height: number; dpi: { x: number; y: number } | null }) {
  if (!dpi) return { width: a4.width, height: Math.round((height * a4.width) / width) };
  return { width: Math.round((width * 72) / dpi.x), height: Math.round((height * 72) / dpi.y) };
}

const sensible = (dpi: number) => dpi > 90 && dpi < 1300;

function dpiOf(bytes: Uint8Array, page: number, density: number | undefined): { x: number; y: number } | null {
  const told = tiffResolution(bytes, page) ?? (density ? { x: density, y: density } : null);
  return told && sensible(told.x) && sensible(told.y) ? told : null;
}

/**
 * Dots per inch across and down of a page of a TIFF (TIFF 6.0: tags 282, 283 and 296); faxes have them differ. Null for other files.
 */
export function tiffResolution(bytes: Uint8Array, page: number): { x: number; y: number } | null {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const order = bytes[0] === 0x49 && bytes[1] === 0x49 ? true : bytes[0] === 0x4d && bytes[1] === 0x4d ? false : null;
  if (order === null || bytes.length < 8 || view.getUint16(2, order) !== 42) return null;
  try {
    let at = view.getUint32(4, order);
    for (let i = 0; i < page && at !== 0; i++) at = view.getUint32(at + 2 + 12 * view.getUint16(at, order), order);
    if (at === 0) return null;
    const found = new Map<number, number>();
    for (let i = 0, n = view.getUint16(at, order); i < n; i++) {
      const entry = at + 2 + 12 * i;
      const tag = view.getUint16(entry, order);
      if (tag === 296) found.set(tag, view.getUint16(entry + 8, order));
      if (tag !== 282 && tag !== 283) continue;
      const place = view.getUint32(entry + 8, order);
      found.set(tag, view.getUint32(place, order) / (view.getUint32(place + 4, order) || 1));
    }
    const unit = found.get(296) === 3 ? 2.54 : 1;
    const [x, y] = [found.get(282), found.get(283)];
    return x && y ? { x: x * unit, y: y * unit } : null;
  } catch {
    // Offsets that lead out of the file: the picture itself may still open.
    return null;
  }
}

/** A page of a picture file as pixels, upright by what the camera noted, on white. Throws UnreadablePicture. */
export async function decodePage(bytes: Uint8Array, page: number): Promise<Sheet> {
  try {
    const image = await opened(bytes, page - 1),
      meta = await image.metadata();
    if (page > pagesIn(bytes, meta)) throw new UnreadablePicture();
    const size = sizeOf(bytes, page - 1, meta),
      // A fax or a grey scan needs no colours.
      colours = /^(b-w|grey16)$/.test(meta.space ?? '') ? 'b-w' : 'srgb';
    const { data, info } = await image
      .rotate()
      .flatten({ background: '#ffffff' })
      .resize({ width: pictureLimits.side, height: pictureLimits.side, fit: 'inside', withoutEnlargement: true })
      .toColourspace(colours)
      .raw({ depth: 'uchar' })
      .toBuffer({ resolveWithObject: true });
    return { picture: { width: info.width, height: info.height, ...byChannels(data, info.channels) }, points: pointsOf(size) };
  } catch {
    throw new UnreadablePicture();
  }
}

/** One channel where there is only grey, else three. */
function byChannels(data: Buffer, channels: number): { channels: 1 | 3; data: Uint8Array } {
  if (channels === 1 || channels === 3) return { channels, data: new Uint8Array(data.buffer, data.byteOffset, data.length) };
  const out = new Uint8Array(data.length / channels);
  for (let i = 0; i < out.length; i++) out[i] = data[i * channels]!;
  return { channels: 1, data: out };
}

/** A page of a picture file as PNG for showing, at most `wide` pixels wide. Throws UnreadablePicture. */
export async function shownPicture(bytes: Uint8Array, page: number, wide = 1700): Promise<Buffer> {
  try {
    const upright = await (await opened(bytes, page - 1)).rotate().toBuffer({ resolveWithObject: true });
    return await sharp(upright.data, isHeic(bytes) ? { raw: { width: upright.info.width, height: upright.info.height, channels: 4 } } : {})
      .resize({ width: wide, withoutEnlargement: true })
      .png({ compressionLevel: 6 })
      .toBuffer();
  } catch {
    throw new UnreadablePicture();
  }
}
