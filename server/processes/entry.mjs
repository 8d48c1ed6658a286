// Processes for files from outside start from plain JavaScript and load the TypeScript file that they are given.
import { register } from 'tsx/esm/api';

process.on('disconnect', () => process.exit(0));
register();
await import(process.argv[2]);
