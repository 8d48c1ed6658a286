import sharp from 'sharp';
import { rotation, squaring, turned, warp, type Gray, type Quad } from '@ledgerline/core/imaging';
import { rasterPage } from '@ledgerline/server/imaging/raster';
import { seeded } from './random.ts';

/** What paper goes through on its way to a file; each part can be left out. */
export interface Wear {
  seed?: number;
  /** Dots per inch of the device. */ dpi?: number;
  /** Degrees by which the sheet lay askew, clockwise. */ skew?: number;
  /** Quarter turn clockwise in which it was put in. */ turn?: 0 | 90 | 180 | 270;
  /** Grain: the widest that a pixel strays from its brightness, 0 to 255. */ grain?: number;
  /** Two punch holes at the left edge. */ holes?: boolean;
  /** Only black and white, as a fax sends it. */ fax?: boolean;
  /** Lies on a table, seen at a slant, with a shadow across. */ photo?: boolean;
}

const pointsToInch = 72;

/** A page of a PDF as grey pixels after all that: the same seed gives the same picture. */
export async function wornPage(pdf: Uint8Array, number: number, wear: Wear = {}): Promise<Gray> {
  const { picture, points } = await rasterPage(new Uint8Array(pdf), number);
  const dpi = wear.dpi ?? 200,
    random = seeded(wear.seed ?? 1);
  const [width, height] = [Math.round((points.width * dpi) / pointsToInch), Math.round((points.height * dpi) / pointsToInch)];
  const raw = { width: picture.width, height: picture.height, channels: picture.channels };
  const { data } = await sharp(picture.data, { raw })
    .resize(width, height, { fit: 'fill' })
    .toColourspace('b-w')
    .raw()
    .toBuffer({ resolveWithObject: true });
  let page: Gray = { width, height, data: new Uint8Array(data) };
  if (wear.holes) punch(page, dpi);
  if (wear.skew) page = warp(page, rotation(-wear.skew, { x: width / 2, y: height / 2 }), width, height);
  if (wear.photo) page = onTable(page, random);
  if (wear.turn) page = turned({ ...page, channels: 1 }, wear.turn);
  grain(page, wear.grain ?? 12, random);
  if (wear.fax) page.data.forEach((v, i) => (page.data[i] = v < 150 ? 0 : 255));
  return page;
}

function grain({ data }: Gray, most: number, random: ReturnType<typeof seeded>): void {
  for (let i = 0; i < data.length; i++) data[i] = Math.max(0, Math.min(255, data[i]! + (random.next() + random.next() - 1) * most));
}

/** Two holes of 6 mm, 80 mm apart, 12 mm from the left edge (ISO 838). */
function punch({ width, height, data }: Gray, dpi: number): void {
  const mm = dpi / 25.4;
  for (const cy of [height / 2 - 40 * mm, height / 2 + 40 * mm])
    for (let y = Math.floor(cy - 3 * mm); y < cy + 3 * mm; y++)
      for (let x = Math.floor(9 * mm); x < 15 * mm; x++) if (Math.hypot(x - 12 * mm, y - cy) < 3 * mm) data[y * width + x] = 25;
}

/** The sheet on a darker table, a little from the side, with light that falls off. */
function onTable(page: Gray, random: ReturnType<typeof seeded>): Gray {
  const { width: w, height: h } = page,
    off = () => random.next() * w * 0.035,
    margin = w * 0.06;
  const [width, height] = [Math.round(w * 1.16), Math.round(h * 1.13)];
  const quad: Quad = [
    { x: margin + off(), y: margin + off() },
    { x: width - margin - off(), y: margin + off() },
    { x: width - margin - off(), y: height - margin - off() },
    { x: margin + off(), y: height - margin - off() },
  ];
  const sheet: Quad = [
    { x: 0, y: 0 },
    { x: w, y: 0 },
    { x: w, y: h },
    { x: 0, y: h },
  ];
  const inside = warp({ width: w, height: h, data: new Uint8Array(w * h) }, squaring(quad, sheet), width, height);
  const out = warp(page, squaring(quad, sheet), width, height);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const i = y * width + x,
        light = 1 - 0.35 * (x / width) - 0.1 * (y / height);
      out.data[i] = (inside.data[i]! > 128 ? 96 : out.data[i]!) * light;
    }
  return out;
}

/** A page cut or filled with white to a size: the pages of one file are equally large. */
function fitted(page: Gray, width: number, height: number): Gray {
  if (page.width === width && page.height === height) return page;
  const data = new Uint8Array(width * height).fill(255),
    wide = Math.min(width, page.width);
  for (let y = 0; y < Math.min(height, page.height); y++) data.set(page.data.subarray(y * page.width, y * page.width + wide), y * width);
  return { width, height, data };
}

/** A file of worn pages: TIFF with all of them, as a scanner or a fax (Group 4, a bit for each pixel) writes it, else a picture of the first. */
export async function paperFile(pages: Gray[], format: 'tiff' | 'fax' | 'png' | 'jpeg', dpi = 200): Promise<Uint8Array> {
  const [first] = pages as [Gray, ...Gray[]];
  const { width, height } = first;
  const many = format === 'tiff' || format === 'fax',
    stack = many ? pages.map((p) => fitted(p, width, height)) : [first];
  const image = sharp(Buffer.concat(stack.map((p) => p.data)), {
    raw: { width, height: height * stack.length, channels: 1, ...(stack.length > 1 ? { pageHeight: height } : {}) },
  });
  // Scanners and faxes write grey and bits, a camera colours.
  const file = many
    ? image.toColourspace('b-w').tiff({
        ...(format === 'fax' ? { compression: 'ccittfax4', bitdepth: 1 } : { compression: 'lzw' }),
        xres: dpi / 25.4,
        yres: dpi / 25.4,
      })
    : format === 'jpeg'
      ? image.withMetadata({ density: dpi }).jpeg({ quality: 70 })
      : image.withMetadata({ density: dpi }).png();
  return new Uint8Array(await file.toBuffer());
}
