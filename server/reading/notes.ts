import type { Fault, ReadResult } from './result.ts';

/** Why a file could not be read and what to do, in a clerk's words. */
export const faultNotes: Record<Fault, string> = {
  encrypted: 'This PDF is locked with a password. Ask the supplier for one without, or type the bill in by hand.',
  broken: 'This PDF is damaged and cannot be opened. Ask the supplier to send it again.',
  empty: 'This file is empty. Ask the supplier to send it again.',
  'too-many-pages': 'This PDF has more than 200 pages, too many to read at once. Split it and add the parts.',
  xml: 'This XML file is not an e-invoice that can be read. It is kept as it came.',
  picture: 'This picture cannot be opened. It is kept as it came; ask the supplier to send it again.',
  kind: 'Files of this kind cannot be read. It is kept as it came.',
  'too-long': 'Reading took too long and was stopped. The file is kept; try again, or type the bill in by hand.',
  'too-heavy':
    'Opening this file takes more memory than any document needs, so it was stopped. It is kept; ask the supplier for another one, or type the bill in by hand.',
  'too-large': 'This file is too large to read (the limit is 40 MB). It is kept; ask the supplier for a smaller one.',
};

/** Where reading failed again and again for a reason of ours. */
export const failedNote = 'Reading this failed several times. The file is kept as it came: try again, or type the bill in by hand.';

/** Why one page could not be read as a picture, and what to do. */
export const pageNotes: Partial<Record<Fault, string>> = {
  'too-long': 'This page took too long to read and was set out by itself. Try again, or type it in from the page.',
  'too-heavy': 'This page takes more memory than any page needs and was set out by itself. Type it in from the page.',
  picture: faultNotes.picture,
  broken: 'This page could not be read and was set out by itself. Try again, or type it in from the page.',
};

/** Why a read failed, as exactly as it is known. */
export const noteOf = (failed: Extract<ReadResult, { ok: false }>): string => failed.note ?? faultNotes[failed.fault];
