import type { Page, Word } from '@ledgerline/core/page';
import type { ProcessFault } from '../processes/pool.ts';

/** A page of a stored file that is to be read as a picture. `turn` null: found out from the page. */
export interface ScanWanted {
  sha: string;
  page: number;
  turn: number | null;
}

/** A page that was read as a picture, or why it could not be. `turn` is what set it upright; `auto` tells that it was found out. */
export interface Scanned {
  sha: string;
  page: number;
  turn: number;
  auto: boolean;
  read: Omit<Page, 'number'> | null;
  fault: ProcessFault | 'picture' | null;
}

/** A spot of a page to be looked at again: a box in points on the page as it came, turned by `turn`. */
export interface Look {
  sha: string;
  page: number;
  turn: number;
  back: readonly number[] | null;
  box: { x: number; y: number; w: number; h: number };
  /** Only digits and what stands between them. */
  digits: boolean;
  language: string;
}
export interface Seen extends Look {
  words: Word[];
}
