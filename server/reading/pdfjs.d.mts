export * from 'pdfjs-dist/legacy/build/pdf.mjs';
