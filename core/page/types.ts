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
}

export interface Page {
  number: number;
  width: number;
  height: number;
  words: Word[];
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
