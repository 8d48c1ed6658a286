import type { Language } from './language.ts';

/** A rectangle on a page in points (1/72 inch), origin top left, y downwards. */
export interface Box {
  x: number;
  y: number;
  w: number;
  h: number;
}

/** A piece of text as its producer wrote it, before it is cut into words. `x`, `y` is the left end of the baseline. */
export interface TextRun {
  text: string;
  x: number;
  y: number;
  width: number;
  size: number;
  font: string;
}

/** A word with its box. `size` is the text height in points, `font` tells one style from another within a document. */
export interface Word extends Box {
  text: string;
  size: number;
  font: string;
  /** How sure the recogniser is of a word that it saw in a picture, 0 to 1; a word that is text has none. */
  sure?: number;
  /** Other ways in which a second look read it. */
  others?: string[];
  /** What was read at first, where the document's sums chose another reading. */
  was?: string;
}

export interface Page {
  number: number;
  width: number;
  height: number;
  words: Word[];
  /** Of a page that was read from a picture: how it lay there. */
  scan?: Scan;
}

/** How a page that was read from a picture lay in it. Words and marks stand on the page as it was cleaned: squared, upright, straight. */
export interface Scan {
  /** Size in points of the page as it came, turned upright. */
  width: number;
  height: number;
  /** From points of the cleaned page to points of the page as it came, turned upright: a plane projection, row by row. */
  back: readonly number[];
  /** Degrees by which it was straightened. */
  skew: number;
  /** Whether a sheet was found in a photo and squared. */
  squared: boolean;
  language: Language;
  /** Whether it is a sheet that parts two documents. */
  separator?: boolean;
}

/** Words on one printed row, left to right. */
export interface Row extends Box {
  page: number;
  words: Word[];
  segments: Segment[];
  text: string;
}

/** Words of a row that stand together, with a wider gap on either side. */
export interface Segment extends Box {
  page: number;
  words: Word[];
  text: string;
  size: number;
  font: string;
}

/** A value's place on a page. */
export interface Mark extends Box {
  page: number;
}
