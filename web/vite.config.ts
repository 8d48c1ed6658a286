import { cpSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig, type Plugin } from 'vite';

const pdfjs = dirname(createRequire(import.meta.url).resolve('pdfjs-dist/package.json'));

/** The PDF library's fonts and character maps go with the build: nothing is fetched from elsewhere. */
const pdfFiles = (): Plugin => ({
  name: 'pdf-files',
  closeBundle() {
    for (const part of ['cmaps', 'standard_fonts'])
      cpSync(join(pdfjs, part), join(import.meta.dirname, 'dist/pdf', part), { recursive: true });
  },
});

export default defineConfig({
  root: import.meta.dirname,
  plugins: [react(), tailwindcss(), pdfFiles()],
  build: { outDir: 'dist', emptyOutDir: true, chunkSizeWarningLimit: 1500 },
  server: { port: 4311, proxy: { '/api': 'http://127.0.0.1:4310' } },
});
