import type { Fault } from './pool.ts';

/** Why a file could not be read and what to do, in a clerk's words. */
export const faultNotes: Record<Fault, string> = {
  encrypted: 'This PDF is locked with a password. Ask the supplier for one without, or type the bill in by hand.',
  broken: 'This PDF is damaged and cannot be opened. Ask the supplier to send it again.',
  empty: 'This file is empty. Ask the supplier to send it again.',
  'too-many-pages': 'This PDF has more than 200 pages, too many to read at once. Split it and add the parts.',
  'no-text': 'This PDF is a picture without text and cannot be read yet. It is kept.',
  'too-long': 'Reading took too long and was stopped. The file is kept; try again, or type the bill in by hand.',
  'too-large': 'This file is too large to read (the limit is 40 MB). It is kept; ask the supplier for a smaller one.',
};
