// Processes for files from outside start from plain JavaScript and load the TypeScript file that they are given; the large libraries
// that it needs are loaded before, as they are: looked through for TypeScript they take a second longer.
import { register } from 'tsx/esm/api';

process.on('disconnect', () => process.exit(0));
const [file, ...libraries] = process.argv.slice(2);
for (const library of libraries) await import(library);
register();
await import(file);
