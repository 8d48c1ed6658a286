import type { Page } from '../page/index.ts';
import { codesAlike } from './codes.ts';
import type { Context } from './head/index.ts';
import { withPoints } from './points.ts';
import { readDocument } from './read.ts';
import { proofs, repaired, tellRepairs } from './repair.ts';
import { spotsToCheck, withSecondLook, type Spot, type SpotSeen } from './secondlook.ts';
import type { Reading } from './types.ts';

/** A document's reading with the pages it was read from, whose words may have been settled, and the spots that need a second look first. */
export interface ScannedReading {
  reading: Reading;
  pages: Page[];
  spots: Spot[];
}

/**
 * Reads a document of pages that were pictures. Without `seen` it may ask for spots to be looked at again; with what was seen there
 * it lets the document's sums choose between the readings, and says of each repaired value what was read at first.
 */
export function readScanned(seenPages: Page[], seen: SpotSeen[] | null, known: Context = {}): ScannedReading {
  const pages = withPoints(seenPages),
    first = readDocument(pages, known);
  const spots = seen === null ? spotsToCheck(first, pages) : [];
  if (spots.length > 0) return { reading: first, pages, spots };
  const looked = withPoints(withSecondLook(seenPages, seen ?? [])),
    second = readDocument(looked, known);
  const base = proofs(second) >= proofs(first) ? { pages: looked, reading: second } : { pages, reading: first };
  const done = repaired(base.pages, base.reading, (p, next = 0) => readDocument(p, { ...known, next }));
  const reading = tellRepairs(done.reading, done.pages);
  return { reading: { ...reading, lines: codesAlike(reading.lines) }, pages: done.pages, spots: [] };
}
