// The one way to pdf.js on the server: plain JavaScript, so that processes can load it before TypeScript. The order counts: what the
// engine has itself is remembered first, and put back when both parts of pdf.js are there (its worker would otherwise be loaded with the
// first document, and put its fillers in again).
import { natives } from './natives.mjs';
import 'pdfjs-dist/legacy/build/pdf.mjs';
import 'pdfjs-dist/legacy/build/pdf.worker.mjs';

natives();

export * from 'pdfjs-dist/legacy/build/pdf.mjs';
