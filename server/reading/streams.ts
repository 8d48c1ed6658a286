import { createInflate, inflateSync } from 'node:zlib';

const megabyte = 1024 * 1024;
/** The most bytes that one stream of a PDF may hold at any step of its decoding: a page of 120 million pixels fits in. */
const mostDecoded = 360 * megabyte;
/** And what one may hold that is deflated once more: nobody does that with anything large. */
const mostBetween = 16 * megabyte;

/** By how much each filter can multiply what it is given (deflate: RFC 1951; LZW with 12-bit codes; run lengths of 128); the others make pixels or bytes one for one. */
const grows: Record<string, number> = {
  FlateDecode: 1032,
  Fl: 1032,
  LZWDecode: 1400,
  LZW: 1400,
  RunLengthDecode: 64,
  RL: 64,
  BrotliDecode: 1_000_000,
};
const isFlate = (filter: string) => filter === 'FlateDecode' || filter === 'Fl';

/** The filters of a stream by its dictionary (ISO 32000-1, 7.3.8.2); those that stand elsewhere in the file are looked up. */
function filtersOf(dictionary: string, whole: () => string): string[] {
  const [, said] = /\/(?:Filter|F)\s*(\[[^\]]*\]|\/[A-Za-z0-9]+|\d+\s+\d+\s+R)/.exec(dictionary) ?? [];
  if (!said) return [];
  const [, object, generation] = /^(\d+)\s+(\d+)\s+R$/.exec(said) ?? [];
  const names = object
    ? (new RegExp(`(?:^|[\\r\\n\\s])${object}\\s+${generation}\\s+obj\\s*(\\[[^\\]]*\\]|/[A-Za-z0-9]+)`).exec(whole())?.[1] ??
      '/FlateDecode')
    : said;
  return [...names.matchAll(/\/([A-Za-z0-9]+)/g)].map((m) => m[1]!);
}

/** The dictionary that ends before a place, at most so long. */
function dictionaryBefore(bytes: Buffer, end: number): string {
  const text = bytes.toString('latin1', Math.max(0, end - 8192), end).trimEnd();
  if (!text.endsWith('>>')) return '';
  let depth = 0;
  for (let i = text.length - 2; i >= 0; i--) {
    if (text.startsWith('>>', i)) depth++;
    else if (text.startsWith('<<', i)) depth--;
    else continue;
    if (depth === 0) return text.slice(i);
    i--;
  }
  return text;
}

/** What a deflated piece holds, or null where that is too much. What is broken holds nothing that matters. */
function inflated(bytes: Buffer): Buffer | null {
  try {
    return inflateSync(bytes, { maxOutputLength: mostBetween });
  } catch (error) {
    return error instanceof Error && 'code' in error && error.code === 'ERR_BUFFER_TOO_LARGE' ? null : Buffer.alloc(0);
  }
}

/** Whether a deflated piece becomes more than the limit: counted while it comes out, and kept nowhere. */
function becomesTooMuch(bytes: Buffer): Promise<boolean> {
  return new Promise((done) => {
    let size = 0;
    const inflate = createInflate();
    inflate.on('data', (part: Buffer) => {
      size += part.length;
      if (size > mostDecoded) {
        done(true);
        inflate.destroy();
      }
    });
    inflate.on('end', () => done(false)).on('error', () => done(false));
    inflate.end(bytes);
  });
}

async function isHeavy(bytes: Buffer, filters: string[]): Promise<boolean> {
  const growing = filters.filter((f) => f in grows);
  let held = bytes;
  for (const [i, filter] of growing.entries()) {
    // What small pieces can become at most need not be tried.
    const most = growing.slice(i).reduce((size, f) => size * grows[f]!, held.length);
    if (most <= mostDecoded) return false;
    if (!isFlate(filter) || filters[i] !== filter) return true;
    if (i === growing.length - 1) return becomesTooMuch(held);
    const next = inflated(held);
    if (next === null) return true;
    held = next;
  }
  return false;
}

/** Every stream of a file as it stands there, with the names of its filters. */
function* streamsOf(file: Uint8Array): Generator<{ dictionary: string; filters: string[]; held: Buffer }> {
  const bytes = Buffer.from(file.buffer, file.byteOffset, file.byteLength);
  let text: string | null = null;
  const whole = () => (text ??= bytes.toString('latin1'));
  for (let at = bytes.indexOf('stream'); at >= 0; at = bytes.indexOf('stream', at + 6)) {
    if (bytes.toString('latin1', at - 3, at) === 'end') continue;
    const dictionary = dictionaryBefore(bytes, at),
      filters = filtersOf(dictionary, whole);
    let from = at + 6;
    if (bytes[from] === 13) from++;
    if (bytes[from] === 10) from++;
    const end = bytes.indexOf('endstream', from);
    const to = end < 0 ? bytes.length : end;
    yield { dictionary, filters, held: bytes.subarray(from, to) };
    // Without filters it may be no stream at all: what stands in it is looked at too.
    if (filters.length > 0) at = Math.max(at, to - 6);
  }
}

/**
 * Whether a PDF holds a stream that becomes more than any page needs, such as one deflated within another: told before anything of it is
 * decoded for good. Streams that are locked with a password are not seen; the limits of the process meet those.
 */
export async function hasHeavyStream(file: Uint8Array): Promise<boolean> {
  for (const { filters, held } of streamsOf(file)) if (filters.length > 0 && (await isHeavy(held, filters))) return true;
  return false;
}

/** Filters of pictures: what they hold is no text. */
const pictures = new Set(['DCTDecode', 'DCT', 'CCITTFaxDecode', 'CCF', 'JPXDecode', 'JBIG2Decode']);
/** So much is looked at for text that hides; where there is more, it may hide. */
const mostLookedAt = 24 * megabyte;
/** What is said before the operator that sets how text shows (ISO 32000-1, 9.3.6): 3 and 7 hide it. */
const textMode = /(\S+)\s+Tr(?=[\s(<[/%]|$)/g,
  shown = new Set(['0', '1', '2', '4', '5', '6']);
const hides = (text: Buffer): boolean =>
  text.includes('Tr') && [...text.toString('latin1').matchAll(textMode)].some(([, said]) => !shown.has(said!));

/**
 * Whether a PDF may set text to be invisible, as scanners do that put what they recognised behind the picture: whatever cannot be told
 * here may. A file that is made to deceive can print white on white as well; that is not looked for.
 */
export function mayHideText(file: Uint8Array): boolean {
  const whole = Buffer.from(file.buffer, file.byteOffset, file.byteLength);
  if (whole.includes('/Encrypt') || hides(whole)) return true;
  let left = mostLookedAt;
  for (const { dictionary, filters, held } of streamsOf(file)) {
    if (filters.length === 0 || filters.some((f) => pictures.has(f))) continue;
    // Tables of places are packed by differences, and hold no text.
    if (filters.length > 1 || !isFlate(filters[0]!) || (/\/(DecodeParms|DP)\b/.test(dictionary) && !/\/XRef\b/.test(dictionary)))
      return true;
    try {
      const own = inflateSync(held, { maxOutputLength: left });
      left -= own.length;
      if (hides(own)) return true;
    } catch {
      return true;
    }
  }
  return false;
}
