/** A picture of bytes, rows from the top: one channel (0 black, 255 white) or three (red, green, blue) for each pixel. */
export interface Picture {
  width: number;
  height: number;
  channels: 1 | 3;
  data: Uint8Array;
}

/** A picture in grey: one byte for each pixel, 0 black, 255 white. */
export interface Gray {
  width: number;
  height: number;
  data: Uint8Array;
}

export interface Point {
  x: number;
  y: number;
}

/** Corners of a sheet: top left, top right, bottom right, bottom left. */
export type Quad = readonly [Point, Point, Point, Point];

/** A plane projection, row by row (nine numbers, the last 1). */
export type Matrix = readonly number[];

/** A drawn line on the page, in pixels. */
export interface Rule {
  x: number;
  y: number;
  w: number;
  h: number;
}

/** What is done to a picture before it is read. Kept as data, so that it can differ from one scanner to another. */
export interface CleanUp {
  /** Resolution in dots per inch that a page is brought to. */
  dpi: number;
  /** Find the sheet in a photo and square it. */
  square: boolean;
  /** Turn the page upright in steps of 90 degrees. */
  upright: boolean;
  /** Straighten a page that is not turned by more than this many degrees; 0 leaves it. */
  deskew: number;
  /** Make shadows and uneven paper white. */
  light: boolean;
  /** Light text on dark bands becomes dark on light. */
  bands: boolean;
  /** Long drawn lines are taken off. */
  rules: boolean;
  /** Punch holes, the edges of a scan, and specks are taken off. */
  marks: boolean;
  /** Ink of stamps and pens that is coloured is made pale. */
  stamps: boolean;
  /** Letters in pale ink are made darker. */
  pale: boolean;
  /** The hard steps of a picture in pure black and white, as a fax sends it, are made soft. */
  soften: boolean;
}

export const usualCleanUp: CleanUp = {
  dpi: 300,
  square: true,
  upright: true,
  deskew: 8,
  light: true,
  bands: true,
  rules: true,
  marks: true,
  stamps: true,
  pale: true,
  soften: true,
};
