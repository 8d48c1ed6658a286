import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { hasHeavyStream } from './streams.ts';
import { getDocument, VerbosityLevel, type PDFDocumentProxy } from './pdfjs.mjs';

const folder = dirname(createRequire(import.meta.url).resolve('pdfjs-dist/package.json'));

/** Why a PDF can't be read, as a code; the words for people are in `reading/notes.ts`. */
export type PdfFault = 'encrypted' | 'broken' | 'empty' | 'too-many-pages' | 'too-heavy';

export class UnreadablePdf extends Error {
  constructor(
    readonly fault: PdfFault,
    readonly pages = 0,
  ) {
    super(fault);
  }
}

/**
 * Opens a PDF: no scripts, no forms, nothing from outside; pictures are decoded up to so many pixels, by default none. `known`: the file was
 * opened before, so that its streams need not be looked at again. Throws UnreadablePdf.
 */
export async function openPdf(bytes: Uint8Array, { pictures = 1, known = false } = {}): Promise<PDFDocumentProxy> {
  if (!known && (await hasHeavyStream(bytes))) throw new UnreadablePdf('too-heavy');
  try {
    return await getDocument({
      data: bytes,
      verbosity: VerbosityLevel.ERRORS,
      isEvalSupported: false,
      useSystemFonts: false,
      disableFontFace: true,
      enableXfa: false,
      stopAtErrors: false,
      maxImageSize: pictures,
      standardFontDataUrl: `${join(folder, 'standard_fonts')}/`,
      cMapUrl: `${join(folder, 'cmaps')}/`,
      cMapPacked: true,
      wasmUrl: `${join(folder, 'wasm')}/`,
    }).promise;
  } catch (error) {
    throw new UnreadablePdf(error instanceof Error && error.name === 'PasswordException' ? 'encrypted' : 'broken');
  }
}

/** Product of two PDF transformation matrices (ISO 32000-1, 8.3.3). */
export function multiply(a: number[], b: number[]): number[] {
  const [a0 = 1, a1 = 0, a2 = 0, a3 = 1, a4 = 0, a5 = 0] = a;
  const [b0 = 1, b1 = 0, b2 = 0, b3 = 1, b4 = 0, b5 = 0] = b;
  return [a0 * b0 + a2 * b1, a1 * b0 + a3 * b1, a0 * b2 + a2 * b3, a1 * b2 + a3 * b3, a0 * b4 + a2 * b5 + a4, a1 * b4 + a3 * b5 + a5];
}
