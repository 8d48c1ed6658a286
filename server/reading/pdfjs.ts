// The one way to pdf.js on the server. The order counts: what the engine has itself is remembered first, and put back when both parts of
// pdf.js are there (its worker would otherwise be loaded with the first document, and put its fillers in again).
import { natives } from './natives.ts';
import { getDocument, OPS, VerbosityLevel, type PDFDocumentProxy, type PDFPageProxy } from 'pdfjs-dist/legacy/build/pdf.mjs';
// The worker is imported for what it leaves behind: itself.
import 'pdfjs-dist/legacy/build/pdf.worker.mjs';

natives();

export { getDocument, OPS, VerbosityLevel, type PDFDocumentProxy, type PDFPageProxy };
