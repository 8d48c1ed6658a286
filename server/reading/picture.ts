import sharp from 'sharp';

sharp.cache(false);
sharp.concurrency(1);

export interface Picture {
  page: number;
  width: number;
  height: number;
}
/** Pixels a picture may have in all, pages it may have, and the least width and height of a page in pixels. */
export const pictureLimits = { pixels: 120_000_000, pages: 200, least: 400 };

/** Why a picture can't be opened. */
export class UnreadablePicture extends Error {}

const open = (bytes: Uint8Array, page = 0) => sharp(bytes, { limitInputPixels: pictureLimits.pixels, failOn: 'error', page });

/**
 * The pages of a picture file (PNG, JPEG, TIFF with one or more pages), sized in points. A picture that does not say its
 * resolution is taken to be as wide as A4. Throws UnreadablePicture.
 */
export async function pagesOfPicture(bytes: Uint8Array): Promise<(Picture & { small: boolean })[]> {
  try {
    const first = await open(bytes).metadata();
    const count = Math.min(first.pages ?? 1, pictureLimits.pages);
    const pages: (Picture & { small: boolean })[] = [];
    for (let page = 0; page < count; page++) {
      const meta = page === 0 ? first : await open(bytes, page).metadata();
      const turned = (meta.orientation ?? 1) >= 5;
      const [w, h] = turned ? [meta.height, meta.width] : [meta.width, meta.height];
      // Faxes have pixels that are not square; the page keeps the shape of its paper only by its resolution, which is seldom told right.
      const dpi = meta.density && meta.density > 90 && meta.density < 1300 ? meta.density : (w / 595) * 72;
      pages.push({
        page: page + 1,
        width: Math.round((w * 72) / dpi),
        height: Math.round((h * 72) / dpi),
        small: w < pictureLimits.least || h < pictureLimits.least,
      });
    }
    return pages;
  } catch {
    throw new UnreadablePicture('This picture cannot be opened.');
  }
}

/** One page of a picture as PNG for showing: upright by what the camera noted, at most `wide` pixels wide. */
export async function shownPicture(bytes: Uint8Array, page: number, wide = 1700): Promise<Buffer> {
  try {
    return await open(bytes, page - 1)
      .rotate()
      .resize({ width: wide, withoutEnlargement: true })
      .png({ compressionLevel: 6 })
      .toBuffer();
  } catch {
    throw new UnreadablePicture('This picture cannot be opened.');
  }
}
